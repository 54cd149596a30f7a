// What is cropped near a box, and what an index of edges says, against the whole region asked plainly.
#include "core/geometry/crops.h"

#include "core/geometry/region_index.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// Stars in one another and beside one another, with holes, some of them large, some fine.
Region stars(Random& dice) {
    Polylines all;
    for (int i = dice.whole(1, 12); i > 0; --i) {
        const double most = dice.real(2, 40);
        all.push_back(
            {random_ring(dice, dice.whole(3, 60), 0.3 * most, most, {dice.real(0, 60), dice.real(0, 60)}),
             true});
    }
    return region_of(all, FillRule::evenodd);
}

/// Without crumbs, which the grid may leave or take.
std::size_t pieces_of(const Region& region) {
    std::size_t out = 0;
    for (const Region& piece : pieces(region))
        out += in_square_mm(area(piece)) > 1e-3;
    return out;
}

bool crosses(Point p, Point q, Point a, Point b) {
    const double d1 = cross(q - p, a - p), d2 = cross(q - p, b - p), d3 = cross(b - a, p - a),
                 d4 = cross(b - a, q - a);
    return ((d1 > 0) != (d2 > 0)) && ((d3 > 0) != (d4 > 0));
}

} // namespace

TEST_CASE("what lies near a box has the same in common with what is within it as the whole has") {
    Random dice("crops");
    for (int round = 0; round < 400; ++round) {
        const Region whole = stars(dice);
        const Crops crops(whole);
        const Point at{dice.real(-20, 80), dice.real(-20, 80)};
        const Box box{at.x, at.y, at.x + dice.real(0.5, 40), at.y + dice.real(0.5, 40)};
        const Region within = region_of(Shape{{ellipse(box.centre(), box.width() * dice.real(0.1, 0.49),
                                                       box.height() * dice.real(0.1, 0.49))}});
        const Region near = crops.near(box), plain = intersected(whole, within),
                     cropped = intersected(near, within);
        INFO("seed " << dice.seed() << " round " << round);
        // The grid of 0.00001 mm along an edge of some hundred millimetres.
        CHECK(in_square_mm(area(cropped)) == Approx(in_square_mm(area(plain))).margin(5e-3));
        // What hangs together by a step of the grid may come as one piece or as two.
        const std::size_t one = pieces_of(plain), two = pieces_of(offset(plain, mm(-0.001)));
        CHECK(pieces_of(cropped) >= std::min(one, two));
        CHECK(pieces_of(cropped) <= std::max(one, two));
        CHECK(point_count(near) <= point_count(whole) + 8 * whole.rings.size());
    }
}

TEST_CASE(
    "an index of edges counts what a line crosses, and knows inside from outside, as plain looking does") {
    Random dice("index of edges");
    for (int round = 0; round < 200; ++round) {
        Region region = stars(dice);
        if (round % 4 == 0) region = region_of(Shape{{rectangle({3, 4, 3 + dice.real(1, 90), 4.5})}});
        const RegionIndex index(region);
        for (int ask = 0; ask < 50; ++ask) {
            const Point p{dice.real(-20, 80), dice.real(-20, 80)},
                q = ask % 3 == 0 ? Point{p.x, dice.real(-20, 80)}
                                 : Point{p.x + dice.real(-9, 9), p.y + dice.real(-9, 9)};
            std::size_t plain = 0;
            for (const Ring& ring : region.rings)
                for (std::size_t i = 0; i < ring.size(); ++i)
                    plain += crosses(p, q, ring[i], ring[(i + 1) % ring.size()]);
            INFO(round << ", " << ask);
            CHECK(index.crossings(p, q) == plain);
            CHECK(index.crosses(p, q) == (plain > 0));
            CHECK(index.contains(p) == contains(region, p));
        }
    }
}
