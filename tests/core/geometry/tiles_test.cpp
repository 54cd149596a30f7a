// Long outlines, which are worked on tile by tile, against points asked one by one.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/geometry/region_index.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;
using std::numbers::pi;

namespace {

/// A long ring: spiked, wavy or crossing itself, round a middle.
Ring long_ring(Random& dice, int points, Point middle, double radius) {
    const int kind = dice.whole(0, 2), waves = dice.whole(3, 60);
    const double deep = dice.real(0.02, 0.6);
    Ring out;
    for (int i = 0; i < points; ++i) {
        const double t = 2 * pi * i / points;
        const double share = kind == 0   ? (i % 2 ? 1.0 : 1 - deep)
                             : kind == 1 ? 1 - deep * (0.5 + 0.5 * std::sin(waves * t))
                                         : 1 - dice.real(0, deep);
        const double turn = kind == 2 ? t * (waves % 2 ? 2 : 1) : t;
        out.push_back(
            {middle.x + radius * share * std::cos(turn), middle.y + 0.7 * radius * share * std::sin(turn)});
    }
    return out;
}

} // namespace

TEST_CASE("a long clean outline comes out as it went in, point for point") {
    Random dice("clean and long");
    for (int round = 0; round < 8; ++round) {
        INFO("seed " << dice.seed() << " round " << round);
        const int points = 2 * dice.whole(2500, 6000);
        Ring drawn;
        for (int i = 0; i < points; ++i) {
            const double t = 2 * pi * i / points, r = i % 2 ? 80 : 80 - 0.05 - dice.real(0, 20);
            drawn.push_back(
                {std::round(r * std::cos(t) * 1e5) / 1e5, std::round(r * std::sin(t) * 1e5) / 1e5});
        }
        const Region region = region_of({Polyline{drawn, true}}, FillRule::nonzero);
        REQUIRE(region.rings.size() == 1);
        Ring got = region.rings[0];
        REQUIRE(got.size() == drawn.size());
        const auto first = std::min_element(got.begin(), got.end(), [&](Point a, Point b) {
            return distance(a, drawn[0]) < distance(b, drawn[0]);
        });
        std::rotate(got.begin(), first, got.end());
        double most = 0;
        for (std::size_t i = 0; i < got.size(); ++i)
            most = std::max(most, distance(got[i], drawn[i]));
        CHECK(most < 1e-9);
        // And a hole in it changes nothing but itself.
        const Region holed = subtracted(region, region_of(Shape{{ellipse({3, 4}, 5, 6)}}));
        CHECK(holed.rings.size() == 2);
        CHECK(std::max(holed.rings[0].size(), holed.rings[1].size()) == drawn.size());
    }
}

TEST_CASE("areas of long outlines hold what their drawings hold, point by point") {
    Random dice("long outlines");
    for (int round = 0; round < 8; ++round) {
        INFO("seed " << dice.seed() << " round " << round);
        const Ring a = long_ring(dice, 5000, {0, 0}, dice.real(20, 60)),
                   b = long_ring(dice, 4000, {dice.real(-20, 20), 0}, dice.real(20, 60));
        const Region ra = region_of({Polyline{a, true}}, FillRule::evenodd),
                     rb = region_of({Polyline{b, true}}, FillRule::evenodd);
        const Region both = intersected(ra, rb), any = united(ra, rb), cut = subtracted(ra, rb);
        for (int i = 0; i < 400; ++i) {
            const Point p{dice.real(-70, 70), dice.real(-50, 50)};
            if (distance_to(Polyline{a, true}, p) < 1e-3 || distance_to(Polyline{b, true}, p) < 1e-3)
                continue;
            const bool in_a = ring_contains(a, p), in_b = ring_contains(b, p);
            CHECK(contains(ra, p) == in_a);
            CHECK(contains(both, p) == (in_a && in_b));
            CHECK(contains(any, p) == (in_a || in_b));
            CHECK(contains(cut, p) == (in_a && !in_b));
        }
        // Each of some ten thousand crossings lies half a step of the grid off, one way or the other.
        CHECK(in_square_mm(area(both)) + in_square_mm(area(any)) ==
              Approx(in_square_mm(area(ra)) + in_square_mm(area(rb))).margin(0.02));
    }
}

TEST_CASE("offsets of long outlines hold what lies within their distance") {
    Random dice("long offsets");
    for (int round = 0; round < 4; ++round) {
        INFO("seed " << dice.seed() << " round " << round);
        const Region region =
            region_of({Polyline{long_ring(dice, 6000, {0, 0}, dice.real(30, 60)), true}}, FillRule::evenodd);
        const double by = dice.real(0.05, 0.6);
        const Region grown = offset(region, mm(by)), shrunk = offset(region, mm(-by));
        const RegionIndex index(region);
        for (int i = 0; i < 400; ++i) {
            const Point p{dice.real(-62, 62), dice.real(-45, 45)};
            double off = 1e9;
            for (const Ring& ring : region.rings)
                off = std::min(off, distance_to(Polyline{ring, true}, p));
            if (std::abs(off - by) < 0.01) continue; // arcs are flattened to 0.005 mm
            const bool inside = index.contains(p);
            CHECK(contains(grown, p) == (inside || off < by));
            CHECK(contains(shrunk, p) == (inside && off > by));
        }
    }
}
