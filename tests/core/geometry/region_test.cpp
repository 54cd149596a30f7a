#include <numbers>

#include "core/geometry/nearest_edge.h"
#include "core/geometry/region.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;
using std::numbers::pi;

namespace {

double round_offset(const Region& r, double by) {
    return area_of(offset(r, mm(by), {Corner::round, 10, mm(1e-4)}));
}
double mitre_offset(const Region& r, double by) {
    return area_of(offset(r, mm(by), {Corner::mitre, 1000, mm(1e-4)}));
}

Region l_shape() {
    return region_of({ring({{0, 0}, {60, 0}, {60, 20}, {20, 20}, {20, 60}, {0, 60}})}, FillRule::nonzero);
}
Region ring_shape() {
    return region_of(
        {ring({{0, 0}, {100, 0}, {100, 100}, {0, 100}}), ring({{30, 30}, {70, 30}, {70, 70}, {30, 70}})},
        FillRule::evenodd);
}

} // namespace

TEST_CASE("round offset of a convex shape: Steiner's formula") {
    // area + perimeter r + pi r^2, perimeter + 2 pi r. Source: Steiner 1840.
    const Region r = region_of({ring({{0, 0}, {60, 0}, {60, 40}, {0, 40}})}, FillRule::nonzero);
    const Region grown = offset(r, mm(3), {Corner::round, 10, mm(1e-4)});
    CHECK(area_of(grown) == Approx(3028.27).margin(0.01));
    CHECK(in_mm(perimeter(grown)) == Approx(218.85).margin(0.01));
    CHECK(mitre_offset(r, 3) == Approx(3036).margin(1e-6));
    const Box inner = bounds(offset(r, mm(-3)));
    CHECK(inner.width() == Approx(54).margin(1e-4));
    CHECK(inner.height() == Approx(34).margin(1e-4));
    Random random("Steiner");
    for (int round = 0; round < 40; ++round) {
        const Region convex =
            region_of({ring(regular(random.whole(3, 12), random.real(5, 50)))}, FillRule::nonzero);
        const double by = random.real(0.5, 20);
        INFO("seed " << random.seed());
        CHECK(round_offset(convex, by) ==
              Approx(area_of(convex) + in_mm(perimeter(convex)) * by + pi * by * by).epsilon(1e-4));
    }
}

TEST_CASE("offsets on which GEOS and Clipper agree") {
    // Values computed with GEOS 3.11 and Clipper 6.4.2; round, then mitred without an effective limit.
    struct Row {
        double by, round, mitre;
    };
    const auto check = [](const Region& r, std::initializer_list<Row> rows) {
        for (const Row& row : rows) {
            INFO("offset " << row.by);
            CHECK(round_offset(r, row.by) == Approx(row.round).epsilon(2e-5));
            CHECK(mitre_offset(r, row.by) == Approx(row.mitre).epsilon(2e-5));
        }
    };
    check(square(100), {{2, 10812.566, 10816},
                        {-2, 9216, 9216},
                        {5, 12078.540, 12100},
                        {-5, 8100, 8100},
                        {12, 15252.389, 15376},
                        {-12, 5776, 5776}});
    check(l_shape(), {{2, 2491.708, 2496},
                      {-2, 1536.858, 1536},
                      {5, 3273.175, 3300},
                      {-5, 905.365, 900},
                      {12, 5301.486, 5456},
                      {-12, 0, 0}});
    check(ring_shape(), {{2, 9516.566, 9520},
                         {-2, 7283.434, 7280},
                         {5, 11178.540, 11200},
                         {-5, 5621.460, 5600},
                         {12, 14996.389, 15120},
                         {-12, 1803.611, 1680}});
}

TEST_CASE("a round corner lies within its flatness of the arc, whatever its angle") {
    // A wedge turns by 180 degrees less its own angle at the tip; the whole outline by 360.
    for (const double d : {0.5, 1.7, 6.0})
        for (double angle = 7; angle < 175; angle += 3) {
            const double half = angle * pi / 360;
            const Polyline wedge = ring({{0, 0},
                                         {50 * std::cos(half), -50 * std::sin(half)},
                                         {50 * std::cos(half), 50 * std::sin(half)}});
            const Region grown = offset(region_of({wedge}, FillRule::nonzero), mm(d));
            REQUIRE(grown.rings.size() == 1);
            const Ring& out = grown.rings[0];
            double least = 1e9;
            for (std::size_t i = 0; i < out.size(); ++i)
                least = std::min(least, distance_to_segment({0, 0}, out[i], out[(i + 1) % out.size()]));
            INFO("wedge of " << angle << " degrees, by " << d);
            CHECK(least > d - 0.005 - 0.0002); // its flatness and the grid
            CHECK(least < d + 0.0002);
        }
}

TEST_CASE("a ring grows outwards and inwards, a filled one only outwards") {
    const auto circle = [](double d) { return ring(regular(720, d / 2)); };
    const Region band = region_of({circle(50), circle(20)}, FillRule::evenodd);
    const Region grown = offset(band, mm(4), {Corner::round, 10, mm(1e-4)});
    REQUIRE(grown.rings.size() == 2);
    CHECK(bounds(grown).width() == Approx(58).margin(0.01));
    CHECK(area_of(grown) == Approx(pi * (29 * 29 - 6 * 6)).epsilon(1e-4));
    const Region solid =
        offset(region_of({circle(50)}, FillRule::nonzero), mm(4), {Corner::round, 10, mm(1e-4)});
    CHECK(area_of(solid) == Approx(2642.08).epsilon(1e-4));
}

TEST_CASE("star points recede by d / sin a when inset") {
    const double half = pi / 10; // a regular pentagram's points have 36 degrees
    Ring star;
    const double outer = 50, inner = outer * std::sin(pi / 10) / std::sin(7 * pi / 10);
    for (int i = 0; i < 10; ++i)
        star.push_back(regular(10, i % 2 ? inner : outer, {}, -pi / 2)[static_cast<std::size_t>(i)]);
    const Region region = region_of({ring(star)}, FillRule::nonzero);
    const double d = 1.5;
    const Box box = bounds(offset(region, mm(-d), {Corner::mitre, 1000, mm(1e-4)}));
    CHECK(box.y0 == Approx(-outer + d / std::sin(half)).margin(1e-3));
}

TEST_CASE("booleans: identities and known areas") {
    const Region a = region_of({ring({{0, 0}, {40, 0}, {40, 20}, {0, 20}})}, FillRule::nonzero);
    const Region b = transformed(a, Affine::translation({35, 0}));
    const Region both = united(a, b); // two bars overlapping by 5: one outline 75 x 20
    REQUIRE(both.rings.size() == 1);
    CHECK(area_of(both) == Approx(1500));
    CHECK(in_mm(perimeter(both)) == Approx(190));
    const Region disc = region_of({ring(regular(2880, 40))}, FillRule::nonzero);
    const Region bar = region_of({ring({{-20, -5}, {20, -5}, {20, 5}, {-20, 5}})}, FillRule::nonzero);
    CHECK(area_of(subtracted(disc, bar)) == Approx(4626.55).epsilon(1e-4));
    const Region left = region_of({ring(regular(2880, 50))}, FillRule::nonzero);
    CHECK(area_of(intersected(left, transformed(left, Affine::translation({60, 0})))) ==
          Approx(2236.47609).epsilon(1e-4));
    Random random("booleans");
    for (int round = 0; round < 60; ++round) {
        const Region p = region_of({ring(random_ring(random, 12, 5, 40))}, FillRule::nonzero);
        const Region q =
            region_of({ring(random_ring(random, 9, 5, 40, {random.real(-20, 20), 5}))}, FillRule::nonzero);
        INFO("seed " << random.seed());
        // |p| + |q| = |p or q| + |p and q|;  |p - q| = |p| - |p and q|
        CHECK(area_of(p) + area_of(q) ==
              Approx(area_of(united(p, q)) + area_of(intersected(p, q))).margin(1e-3));
        CHECK(area_of(subtracted(p, q)) == Approx(area_of(p) - area_of(intersected(p, q))).margin(1e-3));
    }
}

TEST_CASE("fill rules: a pentagram") {
    Ring star;
    for (int i = 0; i < 5; ++i)
        star.push_back(regular(5, 50)[static_cast<std::size_t>(i * 2 % 5)]);
    CHECK(area_of(region_of({ring(star)}, FillRule::nonzero)) == Approx(2806.424854).epsilon(1e-6));
    CHECK(area_of(region_of({ring(star)}, FillRule::evenodd)) == Approx(1939.191880).epsilon(1e-6));
}

TEST_CASE("open lines bound nothing unless they are closed for it") {
    const Polylines open = {line({{0, 0}, {10, 0}, {10, 10}})};
    CHECK(region_of(open, FillRule::nonzero).empty());
    CHECK(area_of(region_of(open, FillRule::nonzero, true)) == Approx(50));
}

TEST_CASE("the mark of a tip") {
    const Region mark = stroked({line({{0, 0}, {30, 0}})}, mm(2), mm(1e-4));
    CHECK(area_of(mark) == Approx(60 + pi).epsilon(1e-4)); // w l + pi r^2
    const Region dot = stroked({line({{5, 5}})}, mm(2), mm(1e-4));
    CHECK(area_of(dot) == Approx(pi).epsilon(1e-3));
    const Region frame = stroked({ring({{0, 0}, {20, 0}, {20, 20}, {0, 20}})}, mm(2), mm(1e-4));
    CHECK(area_of(frame) == Approx(22 * 22 - 18 * 18 - (4 - pi)).epsilon(1e-4)); // outer corners are round
}

TEST_CASE("lines are clipped to a region") {
    const Region box = square(10);
    const auto inside = clipped({line({{-5, 5}, {15, 5}})}, box);
    REQUIRE(inside.size() == 1);
    CHECK(in_mm(length(inside)) == Approx(10));
    CHECK(in_mm(length(clipped({line({{2, 2}, {8, 8}})}, box))) == Approx(std::sqrt(72)).epsilon(1e-9));
    CHECK(clipped({line({{20, 0}, {30, 0}})}, box).empty());
    const auto whole = clipped({ring({{2, 2}, {8, 2}, {8, 8}, {2, 8}})}, box);
    REQUIRE(whole.size() == 1);
    CHECK(in_mm(length(whole)) == Approx(24));
}

TEST_CASE("points inside, transforms, far-off coordinates") {
    CHECK(contains(ring_shape(), {10, 10}));
    CHECK_FALSE(contains(ring_shape(), {50, 50}));
    const Region mirrored = transformed(ring_shape(), Affine::scaling(-1, 1));
    CHECK(area_of(mirrored) == Approx(8400)); // holes stay holes
    CHECK(area_of(square(10, {9000, 9000})) == Approx(100));
    CHECK(area_of(square(1e6, {-5e5, -5e5})) == Approx(4e8)); // clamped to the limits, not overflowed
    CHECK(area_of(united(std::vector<Region>{})) == 0);
}

TEST_CASE("slits and spikes no wider than a hair change nothing of what an outline grows to, or shrinks to") {
    // Beside such turns Clipper's offset loses what it should cover: up to 2 % of a clip art's shape.
    Random random("hairs");
    for (int round = 0; round < 60; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        const Ring plain = random_ring(random, random.whole(5, 40), 18, 25);
        const double by = random.real(0.2, 8);
        for (const bool grows : {true, false}) {
            Ring rough = plain;
            for (int hairs = random.whole(1, 4); hairs > 0; --hairs) {
                const auto at = static_cast<std::size_t>(random.whole(0, static_cast<int>(plain.size()) - 1));
                const auto in = std::find(rough.begin(), rough.end(), plain[at]);
                if (in + 1 == rough.end() || std::find(plain.begin(), plain.end(), *(in + 1)) == plain.end())
                    continue; // there is one already
                const Point a = *in, b = *(in + 1), along = (b - a) * (1 / distance(a, b));
                const Point across = Point{-along.y, along.x} * (grows ? 1 : -1); // inwards: a slit
                const Point mouth = mix(a, b, random.real(0.3, 0.7));
                const double half = random.real(1e-4, 4e-3), deep = random.real(0.02, 3);
                rough.insert(in + 1,
                             {mouth - along * half, mouth + across * deep + along * random.real(-0.2, 0.2),
                              mouth + along * half});
            }
            const Length way = mm(grows ? by : -by);
            const double wanted = area_of(offset(Region{{plain}}, way)),
                         got = area_of(offset(Region{{rough}}, way));
            CHECK(got == Approx(wanted).epsilon(5e-4).margin(0.05));
        }
    }
}

TEST_CASE("a tail of no width that an outline runs out and back along loses nothing beside it") {
    // As booleans of clip art leave them: beside such a tail Clipper's offset left up to a third uncovered.
    Random random("tails");
    for (int round = 0; round < 60; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        const Ring plain = random_ring(random, random.whole(5, 40), 6, 14);
        const double by = random.real(0.5, 8), tail = random.real(0.03, 0.2);
        const auto at = static_cast<std::size_t>(random.whole(0, static_cast<int>(plain.size()) - 1));
        const Point v = plain[at], out = v * (tail / length(v)), side{-out.y, out.x};
        const double hair = random.real(-1, 1) * 2e-5 / tail; // two steps of the grid to either side
        Ring rough(plain.begin(), plain.begin() + static_cast<std::ptrdiff_t>(at));
        for (const Point p :
             {v, v + out * 0.3, v + out * 0.6, v + out, v + out * 0.5 + side * hair, v + out * 0.2, v})
            rough.push_back(p);
        rough.insert(rough.end(), plain.begin() + static_cast<std::ptrdiff_t>(at) + 1, plain.end());
        std::rotate(rough.begin(), rough.begin() + random.whole(0, static_cast<int>(rough.size()) - 1),
                    rough.end());
        const double wanted = area_of(offset(Region{{plain}}, mm(by))),
                     got = area_of(offset(Region{{rough}}, mm(by)));
        CHECK(got > wanted - 0.05);
        CHECK(got < wanted + 2 * by * tail + 0.05); // were it a part of the area
    }
}

TEST_CASE("the nearest point of a region's edge is that which looking at every edge finds") {
    Random random("nearest edges");
    INFO("seed " << random.seed());
    for (int round = 0; round < 20; ++round) {
        Region region;
        for (int i = 0, n = random.whole(1, 5); i < n; ++i)
            region.rings.push_back(random_ring(random, random.whole(3, 40), 1, 20,
                                               {random.real(-60, 60), random.real(-60, 60)}));
        const NearestEdge edge(region);
        for (int k = 0; k < 50; ++k) {
            const Point p{random.real(-100, 100), random.real(-100, 100)};
            double least = 1e300;
            for (const Ring& ring : region.rings)
                for (std::size_t i = 0; i < ring.size(); ++i)
                    least = std::min(least, distance_to_segment(p, ring[i], ring[(i + 1) % ring.size()]));
            CHECK(distance(p, edge.to(p)) == Approx(least).margin(1e-9));
        }
    }
}

TEST_CASE("edges that run there and back are no part of an area's outline") {
    // A spur out of a corner, a step of the grid wide or less, as rounding leaves it, and another one at its
    // tip.
    Random random("spurs");
    for (int round = 0; round < 300; ++round) {
        const Ring plain = regular(random.whole(3, 12), random.real(20, 60),
                                   {random.real(-9, 9), random.real(-9, 9)}, random.real(0, 6));
        const auto at = static_cast<std::size_t>(random.whole(0, static_cast<int>(plain.size()) - 1));
        const Point root = plain[at], middle = bounds(Polyline{plain, true}).centre();
        const double turn = std::atan2(root.y - middle.y, root.x - middle.x) + random.real(-0.3, 0.3),
                     far = random.real(0.1, 30), step = random.real(-1e-5, 1e-5);
        const Point way{std::cos(turn), std::sin(turn)}, aside{-way.y, way.x};
        Ring spurred = plain;
        spurred.insert(spurred.begin() + static_cast<std::ptrdiff_t>(at) + 1,
                       {root + way * far, root + way * (far * 0.4) + aside * step, root + way * (far * 0.7),
                        root + aside * (step / 2)});
        const Region before = region_of({ring(plain)}, FillRule::nonzero),
                     after = region_of({ring(spurred)}, FillRule::nonzero);
        INFO("seed " << random.seed() << " round " << round);
        CHECK(in_mm(perimeter(after)) == Approx(in_mm(perimeter(before))).margin(1e-3));
        CHECK(area_of(after) == Approx(area_of(before)).margin(2e-3)); // 30 mm by a few steps of 1e-5 mm
    }
}
