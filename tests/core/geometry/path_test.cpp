#include "core/geometry/path.h"

#include <numbers>

#include "core/geometry/polyline.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

Point on_cubic(Point from, const Segment& s, double t) {
    const double u = 1 - t;
    return from * (u * u * u) + s.c1 * (3 * u * u * t) + s.c2 * (3 * u * t * t) + s.to * (t * t * t);
}

double away_from(const Polyline& line, Point p) {
    double least = 1e300;
    for (std::size_t i = 0; i + (line.closed ? 0 : 1) < line.points.size(); ++i)
        least = std::min(least,
                         distance_to_segment(p, line.points[i], line.points[(i + 1) % line.points.size()]));
    return least;
}

} // namespace

TEST_CASE("circles and arcs stay within 5 millionths of their radius, whatever their angles and turns") {
    Random random("arcs");
    INFO("seed " << random.seed());
    for (int round = 0; round < 100; ++round) {
        const Point centre{random.real(-100, 100), random.real(-100, 100)};
        const double r = std::exp(random.real(-2, 7)), from = random.real(-9, 9),
                     sweep = random.real(-20, 20);
        Contour c = ellipse(centre, r, r);
        if (round > 0) {
            c = {centre + Point{std::cos(from), std::sin(from)} * r, {}, false};
            c.arc_about(centre, {r, 0}, {0, r}, from, sweep);
            CHECK(distance(c.end(), centre + Point{std::cos(from + sweep), std::sin(from + sweep)} * r) <
                  1e-9 * r + 1e-12);
        }
        Point start = c.start;
        double worst = 0;
        for (const Segment& s : c.segments) {
            for (double t = 0; t <= 1; t += 0.01)
                worst = std::max(worst, std::abs(distance(centre, on_cubic(start, s, t)) - r));
            start = s.to;
        }
        CHECK(worst < 5e-6 * r); // 4.2e-6 is the known error of one cubic for an eighth of a turn
        // What it is flattened to is inside the flatness too: no fault shows on large circles.
        if (round == 0 || std::abs(sweep) < 6)
            CHECK(
                in_mm(length(flattened(c, mm(1e-4)))) ==
                Approx(r * (round == 0 ? 2 * std::numbers::pi : std::abs(sweep))).epsilon(2e-5).margin(2e-3));
    }
}

TEST_CASE("arcs: the four flag cases end where they must and have the right length") {
    // A quarter and three quarters of a circle of radius 10: pi r / 2 and 3 pi r / 2.
    for (const bool large : {false, true})
        for (const bool sweep : {false, true}) {
            Contour c{{10, 0}, {}, false};
            c.arc_to(10, 10, 0, large, sweep, {0, 10});
            CHECK(c.end() == Point{0, 10});
            const double wanted = (large ? 1.5 : 0.5) * std::numbers::pi * 10;
            CHECK(in_mm(length(flattened(c, mm(1e-4)))) == Approx(wanted).epsilon(2e-5));
        }
}

TEST_CASE("arcs whose radii are too small are scaled up, as SVG 1.1 F.6.6 asks") {
    Contour c{{0, 0}, {}, false};
    c.arc_to(1, 1, 0, false, true, {20, 0});
    CHECK(in_mm(length(flattened(c, mm(1e-4)))) == Approx(10 * std::numbers::pi).epsilon(2e-5));
    Contour flat{{0, 0}, {}, false};
    flat.arc_to(0, 5, 0, false, true, {3, 4}); // no radius: a straight line
    CHECK(flat.segments.size() == 1);
    CHECK_FALSE(flat.segments[0].curved);
}

TEST_CASE("flattening keeps its tolerance on random cubics") {
    Random random("flattening");
    for (int round = 0; round < 200; ++round) {
        const auto p = [&] { return Point{random.real(-100, 100), random.real(-100, 100)}; };
        Contour c{p(), {}, false};
        c.cubic_to(p(), p(), p());
        const double tolerance = random.real(0.005, 0.5);
        const Polyline flat = flattened(c, mm(tolerance));
        CHECK(flat.points.front() == c.start);
        CHECK(flat.points.back() == c.end());
        double worst = 0;
        for (double t = 0; t <= 1; t += 0.003)
            worst = std::max(worst, away_from(flat, on_cubic(c.start, c.segments[0], t)));
        INFO("seed " << random.seed() << " round " << round);
        CHECK(worst <= tolerance);
    }
}

TEST_CASE("a quadratic is raised exactly") {
    Contour c{{0, 0}, {}, false};
    c.quad_to({10, 20}, {20, 0});
    // At t = 1/2 a quadratic is (p0 + 2c + p2) / 4.
    CHECK(distance(on_cubic(c.start, c.segments[0], 0.5), {10, 10}) < 1e-12);
}

TEST_CASE("bounds are those of the curve, not of its handles") {
    Contour c{{0, 0}, {}, false};
    c.cubic_to({0, 40}, {30, 40}, {30, 0});
    const Box box = bounds(c);
    CHECK(box.y1 == Approx(30)); // 3/4 of the handles' height for a symmetric arch
    CHECK(box.x0 == 0);
    CHECK(box.x1 == 30);
    Random random("curve bounds");
    for (int round = 0; round < 100; ++round) {
        const auto p = [&] { return Point{random.real(-50, 50), random.real(-50, 50)}; };
        Contour one{p(), {}, false};
        one.cubic_to(p(), p(), p());
        Box sampled;
        for (int i = 0; i <= 1000; ++i)
            sampled.add(on_cubic(one.start, one.segments[0], i / 1000.0));
        const Box exact = bounds(one);
        INFO("seed " << random.seed());
        CHECK(exact.grown(1e-9).contains(sampled));
        CHECK(sampled.grown(0.01).contains(exact)); // a thousand samples miss an extreme by less than this
    }
}

TEST_CASE("shapes of the file formats") {
    CHECK(in_mm(length(flattened(rectangle({0, 0, 60, 40})))) == Approx(200));
    const Contour round = rounded_rectangle({0, 0, 60, 40}, 100, 100); // radii are clamped to half the sides
    CHECK(bounds(round) == Box{0, 0, 60, 40});
    CHECK(rounded_rectangle({0, 0, 60, 40}, 0, 5).segments.size() == 3);
}

TEST_CASE("transforms compose as matrices do") {
    const Affine a = Affine::translation({5, -3}) * Affine::rotation(0.7), b = Affine::scaling(2, -1);
    const Point p{3, 4};
    CHECK(distance((a * b)(p), a(b(p))) < 1e-12);
    CHECK(distance(a.inverse()(a(p)), p) < 1e-12);
    CHECK(b.determinant() == -2);
    CHECK(transformed(ellipse({0, 0}, 5, 5), b).closed);
}

TEST_CASE("distance to a segment") {
    CHECK(distance_to_segment({0, 5}, {-10, 0}, {10, 0}) == 5);
    CHECK(distance_to_segment({13, 4}, {-10, 0}, {10, 0}) == 5);
    CHECK(distance_to_segment({3, 4}, {0, 0}, {0, 0}) == 5);
}
