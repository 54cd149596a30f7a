// Changes of single lines, and the pieces, holes and far offsets of regions.
#include "core/geometry/reshape.h"

#include <numbers>

#include "core/geometry/region.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;
using std::numbers::pi;

namespace {

/// The farthest that any point of a lies from b.
double apart(const Polyline& a, const Polyline& b) {
    double worst = 0;
    for (const Point p : a.points) {
        double least = 1e300;
        for (std::size_t i = 0, n = b.points.size(); i + (b.closed ? 0 : 1) < n; ++i)
            least = std::min(least, distance_to_segment(p, b.points[i], b.points[(i + 1) % n]));
        worst = std::max(worst, least);
    }
    return worst;
}

} // namespace

TEST_CASE("simplified lines have fewer points and stay within the tolerance") {
    Random random("simplify");
    INFO("seed " << random.seed());
    for (int round = 0; round < 40; ++round) {
        const bool closed = random.coin();
        Polyline rough{{}, closed};
        const int n = random.whole(10, 400);
        for (int i = 0; i < n; ++i) {
            const double a = 2 * pi * i / n;
            rough.points.push_back(
                {30 * std::cos(a) + random.real(-0.05, 0.05), 20 * std::sin(a) + random.real(-0.05, 0.05)});
        }
        const double by = random.real(0.05, 1);
        const Polyline fine = simplified(rough, mm(by));
        CHECK(fine.points.size() <= rough.points.size());
        CHECK(fine.closed == closed);
        CHECK(apart(rough, fine) <= by + 1e-9);
        CHECK(fine.points.front() == rough.points.front());
        if (!closed) CHECK(fine.points.back() == rough.points.back());
    }
    // Points on a straight line say nothing.
    const Polyline straight = simplified(line({{0, 0}, {1, 0}, {2, 0}, {5, 0}}), mm(0.01));
    CHECK(straight.points.size() == 2);
    // A ring never falls to a line.
    CHECK(simplified(ring({{0, 0}, {10, 0}, {10, 0.1}, {0, 0.1}}), mm(5)).points.size() >= 3);
    CHECK(simplified(ring({{0, 0}, {10, 0}, {5, 8}}), {}).points.size() == 3);
}

TEST_CASE("a stretch of a line is as long as asked, also over the start of a ring") {
    const Polyline square = ring({{0, 0}, {10, 0}, {10, 10}, {0, 10}});
    CHECK(in_mm(length(stretch(square, 5, 12))) == Approx(7));
    const Polyline over = stretch(square, 35, 45);
    CHECK(in_mm(length(over)) == Approx(10));
    CHECK(over.points.front() == Point{0, 5});
    CHECK(distance(over.points.back(), {5, 0}) < 1e-9);
    CHECK(over.points.size() == 3); // the corner is among them
    CHECK(stretch(square, 5, 5).points.empty());
    CHECK(in_mm(length(stretch(line({{0, 0}, {4, 0}, {4, 3}}), 1, 6))) == Approx(5));
}

TEST_CASE("rounded corners touch their sides: a triangle and a zigzag (I)") {
    // The incircle of an equilateral triangle touches each side in its middle: rounded by its radius, it is
    // the circle.
    const double side = 30, r = side * std::sqrt(3) / 6;
    const Polyline triangle = ring({{0, 0}, {side, 0}, {side / 2, side * std::sqrt(3) / 2}});
    const CornerChange round = softened(triangle, mm(r), false, degrees(30), mm(1e-3));
    CHECK(round.changed == 3);
    CHECK(round.shortened == 0);
    CHECK(area_of(region_of({round.line}, FillRule::nonzero)) ==
          Approx(pi * r * r).epsilon(2e-3)); // one cubic for 120 degrees
    CHECK(softened(triangle, mm(r * 1.5), false, degrees(30)).shortened == 3);
    const Polyline zigzag = line({{0, 0}, {10, 10}, {20, 0}, {30, 10}});
    const CornerChange cut = softened(zigzag, mm(2), true, degrees(30));
    CHECK(cut.changed == 2);
    CHECK(cut.line.points.front() == zigzag.points.front());
    CHECK(cut.line.points.back() == zigzag.points.back());
    // Each right angle loses two sides of 2 for one of 2 sqrt 2.
    CHECK(in_mm(length(cut.line)) == Approx(in_mm(length(zigzag)) - 2 * (4 - 2 * std::sqrt(2))));
    CHECK(softened(zigzag, mm(2), true, degrees(100)).changed == 0);
    CHECK(softened(line({{0, 0}, {1, 0}}), mm(2), true, degrees(30)).changed == 0);
}

TEST_CASE("dashes: counts and lengths over many lines, seeds and rules") {
    Random random("dashes");
    INFO("seed " << random.seed());
    for (int i = 0; i < 200; ++i) {
        const double whole = random.real(1, 300), dash = random.real(0.5, 10), gap = random.real(0.3, 5);
        const Polyline straight = line({{0, 0}, {whole, 0}});
        Length used;
        const Polylines dashes = dashed(straight, {mm(dash), mm(gap), {}}, &used);
        REQUIRE_FALSE(dashes.empty());
        CHECK(dashes.front().points.front().x == Approx(0).margin(1e-9));
        CHECK(dashes.back().points.back().x == Approx(whole));
        if (dashes.size() < 2) continue;
        const double n = static_cast<double>(dashes.size());
        CHECK(n * dash + (n - 1) * in_mm(used) == Approx(whole));
        // The nearest whole number of periods: the gap is never more than half a period off.
        CHECK(std::abs(in_mm(used) - gap) * (n - 1) <= (dash + gap) / 2 + 1e-6);
    }
    CHECK(dashed(line({{0, 0}, {5, 0}}), {mm(1), mm(1), mm(3)}).empty()); // the setback takes it all
}

TEST_CASE("pieces: outer rings with their own holes, islands in holes are pieces of their own") {
    const Region all = region_of(
        {ring({{0, 0}, {50, 0}, {50, 50}, {0, 50}}), ring({{10, 10}, {40, 10}, {40, 40}, {10, 40}}),
         ring({{20, 20}, {30, 20}, {30, 30}, {20, 30}}), ring({{60, 0}, {70, 0}, {70, 10}, {60, 10}})},
        FillRule::evenodd);
    const auto parts = pieces(all);
    REQUIRE(parts.size() == 3);
    CHECK(area_of(parts[0]) == Approx(2500 - 900));
    CHECK(area_of(parts[1]) == Approx(100)); // the island, further right
    CHECK(area_of(parts[2]) == Approx(100));
    CHECK(hole_count(all) == 1);
    CHECK(area_of(without_holes(all)) == Approx(2500 + 100)); // the island is in its surroundings now
    CHECK(area_of(without_holes(all, square_mm(100))) == Approx(area_of(all)));
    CHECK(pieces({}).empty());
}

TEST_CASE("an outline moved far is the same in strides as at once") {
    Random random("strides");
    INFO("seed " << random.seed());
    Ring fine; // more points than go at once
    for (int i = 0; i < 700; ++i) {
        const double a = 2 * pi * i / 700;
        fine.push_back(
            {(40 + 1.5 * std::sin(9 * a)) * std::cos(a), (40 + 1.5 * std::sin(9 * a)) * std::sin(a)});
    }
    Ring coarse;
    for (std::size_t i = 0; i < fine.size(); i += 2)
        coarse.push_back(fine[i]);
    const Region many = region_of({{fine, true}}, FillRule::nonzero),
                 few = region_of({{coarse, true}}, FillRule::nonzero);
    for (const double by : {15.0, 4.0, -4.0, -20.0, -50.0}) {
        INFO("by " << by);
        // The two outlines differ by the sagitta of a chord, and so do their offsets.
        CHECK(area_of(offset(many, mm(by))) ==
              Approx(area_of(offset(few, mm(by)))).epsilon(2e-3).margin(0.2));
    }
    CHECK(offset(many, mm(-50)).empty());
}
