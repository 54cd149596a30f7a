// Allowances, underlaps and clips against GEOS, on letters, clip art and random shapes.
#include <algorithm>
#include <cmath>

#include "core/recipe/allowance.h"
#include "core/recipe/step.h"
#include "core/recipe/widest.h"
#include "tests/reference/geos.h"
#include "tests/reference/shapes.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("allowances of 500 real shapes lie between a round and a whole one, by GEOS") {
    Geos geos;
    Random random("allowances against GEOS");
    std::size_t cut = 0, plain = 0;
    for (int round = 0; round < 500; ++round) {
        const Region drawn = random_shape(random), seam = without_hairs(drawn);
        const double by = random.real(1, 8), reach = random.real(1, 3);
        INFO("seed " << random.seed() << " round " << round << " by " << by << " reach " << reach);
        const Region made = with_allowance(drawn, mm(by), reach);
        // What has no area gets no allowance of its own: GEOS would lay one around a tail of no width.
        // (Rings that touch or cross themselves are not read alike by both, so those say nothing here.)
        if (std::all_of(drawn.rings.begin(), drawn.rings.end(),
                        [](const Ring& ring) { return GEOSisValid(Geos::polygon(ring).get()) == 1; })) {
            ++plain;
            const Geos::Geometry hair(
                GEOSSymDifference(Geos::area_of(drawn).get(), Geos::area_of(seam).get()));
            CHECK(GEOSisEmpty(Geos::buffer(hair.get(), -0.0002).get()) == 1); // nowhere wider than 0.0004 mm
        }
        const auto seam_there = Geos::area_of(seam), made_there = Geos::area_of(made);
        // Nothing of a round allowance is missing but what corners lose, which lies beyond cos(turn / 2) of
        // it: from a reach of 1 on nothing. (GEOS flattens its arcs from within, ours are given 0.02 mm.)
        const Geos::Geometry rest(
            GEOSDifference(Geos::buffer(seam_there.get(), by - 0.02).get(), made_there.get()));
        CHECK(GEOSisEmpty(Geos::buffer(rest.get(), -0.05).get()) == 1);
        // Nothing reaches farther than corners may.
        const double most = std::sqrt(reach * reach + 1) * by; // the ends of a cut across a sharp corner
        const Geos::Geometry beyond(
            GEOSDifference(made_there.get(), Geos::buffer(seam_there.get(), most + 0.05).get()));
        CHECK(GEOSisEmpty(Geos::buffer(beyond.get(), -0.05).get()) == 1);
        const CurveCuts cuts = curve_cuts(seam, mm(by), [](Point) { return true; });
        cut += cuts.clips.size() + cuts.notches;
        // Neither reaches a sewing line, be it across a narrow bay; each clip stops just short of its own.
        const double stop = std::min(1.0, by / 4);
        for (const Polyline& clip : cuts.clips) {
            double near = 1e9;
            for (const Ring& ring : seam.rings)
                near = std::min(near, distance_to(Polyline{ring, true}, clip.points.back()));
            CHECK(near <= stop * 1.06 + 0.02); // a corner's is found in steps of a twentieth
            CHECK(near >= stop * 0.9);
            const Geos::Geometry crossed(GEOSIntersection(
                GEOSGeom_createLineString(Geos::sequence(clip.points, false)), seam_there.get()));
            CHECK(GEOSisEmpty(crossed.get()) == 1);
        }
        if (cuts.notched.empty()) continue;
        const Geos::Geometry into(GEOSIntersection(Geos::area_of(cuts.notched).get(),
                                                   Geos::buffer(seam_there.get(), stop * 0.9).get()));
        CHECK(GEOSisEmpty(Geos::buffer(into.get(), -0.01).get()) == 1);
    }
    CHECK(cut > 1000);
    CHECK(plain > 250);
}

TEST_CASE("the widest place of 500 real shapes is within GEOS's largest inscribed circle, and as large") {
    Geos geos;
    Random random("widest places against GEOS");
    int compared = 0;
    for (int round = 0; round < 500; ++round) {
        const Region shape = pieces(random_shape(random)).front();
        const Box box = bounds(shape);
        INFO("seed " << random.seed() << " round " << round);
        const auto there = Geos::area_of(shape);
        const Geos::Geometry circle(
            GEOSMaximumInscribedCircle(there.get(), 0.002 * std::max(box.width(), box.height())));
        if (!circle) continue; // GEOS gives up, about once in 50,000
        ++compared;
        double radius = 0;
        GEOSLength(circle.get(), &radius);
        const WidestPlace found = widest_place(shape);
        CHECK(contains(shape, found.at));
        // Both stop when no place can be more than about 0.5 % wider.
        CHECK(in_mm(found.radius) >= radius * 0.99 - 0.01);
        CHECK(in_mm(found.radius) <= radius + 0.005 * std::max(box.width(), box.height()));
    }
    CHECK(compared >= 495);
}

TEST_CASE(
    "fabrics of random piles are cut as GEOS says: what is seen, and the underlap below the upper ones") {
    Geos geos;
    Random random("fabrics against GEOS");
    std::size_t fabrics = 0;
    for (int round = 0; round < 60; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        PatchStep step;
        step.underlap = mm(random.real(0.5, 6)), step.web = PatchStep::Web::top,
        step.numbers = step.grain = false;
        const int count = random.whole(2, 5);
        std::vector<WorkSet> sets;
        std::vector<Region> shapes;
        for (int i = 0; i < count; ++i) {
            const Region shape = random_shape(random);
            const Box box = bounds(shape);
            const Point to{random.real(0, 25), random.real(0, 25)};
            shapes.push_back(transformed(shape, Affine::translation({to.x - box.x0, to.y - box.y0})));
            sets.push_back({LineSetId{static_cast<std::uint32_t>(i + 1)}, {}, false, {}, {}});
            FlatLine line = line_of(shapes.back(), {});
            line.order = i;
            sets.back().lines.push_back(std::move(line));
        }
        StepInput in;
        for (const WorkSet& set : sets)
            in.of.push_back(&set);
        double sum = 0, all = 0;
        Geos::Geometry above(GEOSGeom_createEmptyPolygon());
        for (int i = count - 1; i >= 0; --i) {
            const auto own = Geos::area_of(shapes[static_cast<std::size_t>(i)]);
            const Geos::Geometry seen(GEOSDifference(own.get(), above.get()));
            const Geos::Geometry below = std::move(above);
            above.reset(GEOSUnion(below.get(), own.get()));
            // What is narrower than 0.02 mm is no fabric, and gets no underlap.
            const auto cut_of =
                [&](double half) -> std::optional<std::pair<double, double>> { // area, length of its edge
                const Geos::Geometry solid(GEOSIntersection(
                    seen.get(), Geos::mitre(Geos::buffer(seen.get(), -half).get(), 0.03).get()));
                if (!solid) return {};                         // GEOS gives up, about once in 3,000
                if (Geos::area(solid.get()) < 0.01) return {}; // hidden
                // Its mitred buffer drops whole pieces now and then.
                if (Geos::area(solid.get()) < Geos::area(seen.get()) - 0.5) return {};
                const Geos::Geometry under(
                    GEOSIntersection(Geos::buffer(solid.get(), in_mm(step.underlap)).get(), below.get()));
                const Geos::Geometry all_of(GEOSUnion(solid.get(), under.get()));
                return std::pair{Geos::area(all_of.get()), Geos::length(all_of.get())};
            };
            const auto narrower = cut_of(0.008), wider = cut_of(0.012);
            // A crumb about as wide as that may count or not, and has an underlap all around it.
            if (!narrower || !wider || std::abs(narrower->first - wider->first) > 1e-3 * narrower->first)
                continue;
            const auto [cut, edge] = *narrower;
            all += cut;
            step.only = i + 1;
            const StepOutcome out = run_step(step, in, no_progress());
            REQUIRE(out.report.refused.empty());
            for (const Figure& f : out.report.figures)
                if (std::string(f.key) == "cut") {
                    // GEOS flattens its arcs from within to 64 a quarter, ours are within 0.005 mm.
                    CHECK(f.value == Approx(cut).epsilon(2e-3).margin(0.05 + 0.005 * edge));
                    sum += f.value;
                }
            ++fabrics;
        }
        CHECK(sum == Approx(all).epsilon(2e-3));
    }
    CHECK(fabrics > 100);
}
