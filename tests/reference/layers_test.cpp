// Stencils and layers against GEOS, on letters, clip art and random shapes.
#include "core/recipe/bridges.h"
#include "core/recipe/hidden.h"
#include "tests/reference/geos.h"
#include "tests/reference/shapes.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

Region moved(const Region& region, Point to) {
    const Box box = bounds(region);
    return transformed(region, Affine::translation({to.x - box.x0, to.y - box.y0}));
}

/// Pieces of the sheet around the openings, by GEOS alone; crumbs of 0.03 mm, as roundings leave them, do not
/// count.
int pieces_of_sheet(const Region& openings) {
    const Box b = bounds(openings).grown(2);
    const Region sheet = region_of({Polyline{{{b.x0, b.y0}, {b.x1, b.y0}, {b.x1, b.y1}, {b.x0, b.y1}}, true}},
                                   FillRule::nonzero);
    const Geos::Geometry rest(GEOSDifference(Geos::area_of(sheet).get(), Geos::area_of(openings).get()));
    REQUIRE(rest);
    int out = 0;
    for (int i = 0; i < GEOSGetNumGeometries(rest.get()); ++i) {
        // What is nowhere 0.22 mm wide is dust.
        const Geos::Geometry core = Geos::buffer(GEOSGetGeometryN(rest.get(), i), -0.11);
        out += GEOSisEmpty(core.get()) == 0;
    }
    return out;
}

} // namespace

TEST_CASE("stencils of 500 real shapes are one sheet, by GEOS") {
    Geos geos;
    Random random("stencils against GEOS");
    std::size_t islands = 0, loose = 0, bridges = 0;
    for (int round = 0; round < 500; ++round) {
        const Region open = random_shape(random);
        BridgeWishes wishes;
        wishes.each = random.coin() ? 0 : random.whole(1, 4);
        wishes.width = mm(random.real(0.4, 1.5));
        wishes.place = static_cast<BridgeWishes::Place>(round % 3);
        wishes.along = degrees(random.real(0, 180));
        INFO("seed " << random.seed() << " round " << round);
        const Bridged made = bridged(open, wishes, no_progress());
        islands += made.islands, loose += made.loose.size(), bridges += made.bridges.size();
        if (made.openings.empty()) continue;
        if (made.loose.empty()) CHECK(pieces_of_sheet(made.openings) == 1);
        CHECK(made.loose.empty());
        // Nothing is open that was not, and little is closed.
        const auto before = Geos::area_of(open), after = Geos::area_of(made.openings);
        const Geos::Geometry more(GEOSDifference(after.get(), before.get()));
        CHECK(GEOSisEmpty(Geos::buffer(more.get(), -0.11).get()) == 1); // dust falls out
    }
    CHECK(islands > 150); // or nothing was looked at
    CHECK(bridges >= islands);
    CHECK(loose == 0);
}

TEST_CASE("what is seen of piles of real shapes adds up to what GEOS says, layer by layer") {
    Geos geos;
    Random random("piles against GEOS");
    for (int round = 0; round < 42; ++round) {
        std::vector<Piled> pile;
        const auto layers = static_cast<std::size_t>(random.whole(2, 6));
        // Many are worked out in another way.
        for (int i = round < 40 ? random.whole(4, 30) : 400; i > 0; --i)
            pile.push_back({moved(random_shape(random), {random.real(0, 60), random.real(0, 60)}),
                            static_cast<std::size_t>(random.whole(0, static_cast<int>(layers) - 1))});
        INFO("seed " << random.seed() << " round " << round);
        const std::vector<Region> seen = seen_of(pile, layers, no_progress());
        REQUIRE(seen.size() == layers);
        std::vector<double> wanted(layers, 0);
        Geos::Geometry above(GEOSGeom_createEmptyPolygon());
        for (std::size_t i = pile.size(); i-- > 0;) {
            const auto own = Geos::area_of(pile[i].area);
            wanted[pile[i].layer] += Geos::area(Geos::Geometry(GEOSDifference(own.get(), above.get())).get());
            above.reset(GEOSUnion(above.get(), own.get()));
        }
        for (std::size_t k = 0; k < layers; ++k)
            // Both round to grids of their own: 1/100,000 mm along every edge.
            CHECK(in_square_mm(area(seen[k])) == Approx(wanted[k]).epsilon(1e-5).margin(0.01));
    }
}
