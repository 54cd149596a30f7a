#include "core/machine/motion.h"

#include <numbers>

#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

constexpr Motion motion{mm_per_second(200), mm_per_second2(1000), degrees(30), seconds(0.1), seconds(0.2)};

/// Integrates the speed step by step: accelerate, go, brake just in time.
double integrated_time(double l, double v, double a) {
    const double dt = 1e-5;
    double x = 0, speed = 0, t = 0;
    while (x < l && t < 1000) {
        const double brake = speed * speed / (2 * a);
        if (l - x <= brake)
            speed = std::max(speed - a * dt, a * dt);
        else
            speed = std::min(v, speed + a * dt);
        x += speed * dt;
        t += dt;
    }
    return t;
}

} // namespace

TEST_CASE("trapezoid and triangle: closed forms and step-by-step integration agree") {
    CHECK(in_seconds(run_time(mm(100), mm_per_second(50), mm_per_second2(500))) ==
          Approx(100.0 / 50 + 50.0 / 500)); // L/v + v/a
    CHECK(in_seconds(run_time(mm(2), mm_per_second(100), mm_per_second2(500))) ==
          Approx(2 * std::sqrt(2.0 / 500))); // too short to reach v
    CHECK(in_seconds(run_time(mm(0), mm_per_second(100), mm_per_second2(500))) == 0);
    Random random("motion");
    for (int i = 0; i < 20; ++i) {
        const double l = random.real(0.1, 200), v = random.real(5, 200), a = random.real(100, 2000);
        INFO("seed " << random.seed());
        CHECK(in_seconds(run_time(mm(l), mm_per_second(v), mm_per_second2(a))) ==
              Approx(integrated_time(l, v, a))
                  .epsilon(1e-2)
                  // Braking in steps begins up to a step late, v dt short of where it should: what it still
                  // has of speed at the end, sqrt(2 a v dt), would have taken sqrt(2 v dt / a) to brake away;
                  // begun a step early, it creeps.
                  .margin(1e-3 + std::sqrt(2 * v * 1e-5 / a)));
    }
}

TEST_CASE("distance over time runs from nothing to the whole, never backwards, never too fast") {
    const Speed v = mm_per_second(80);
    const Acceleration a = mm_per_second2(700);
    for (const double l : {0.5, 9.14, 60.0}) {
        const double total = in_seconds(run_time(mm(l), v, a));
        double before = 0;
        for (int i = 1; i <= 1000; ++i) {
            const double x = in_mm(run_distance(mm(l), v, a, seconds(total * i / 1000)));
            CHECK(x >= before);
            CHECK((x - before) / (total / 1000) <= 80 * 1.001);
            before = x;
        }
        CHECK(before == Approx(l));
        CHECK(in_mm(run_distance(mm(l), v, a, seconds(-1))) == 0);
        CHECK(in_mm(run_distance(mm(l), v, a, seconds(total + 5))) == l);
    }
}

TEST_CASE("a stroke stops at sharp corners only") {
    const auto runs = runs_of(line({{0, 0}, {10, 0}, {10, 10}}), degrees(30));
    REQUIRE(runs.size() == 2);
    CHECK(in_mm(runs[0]) == 10);
    CHECK(runs_of(line({{0, 0}, {10, 0}, {20, 2}}), degrees(30)).size() == 1); // 11 degrees
    CHECK(runs_of(ring(regular(64, 20)), degrees(30)).size() == 1);
    CHECK(runs_of(ring(regular(4, 20)), degrees(30)).size() == 4);
    CHECK(runs_of(line({{3, 3}}), degrees(30)).empty());
    CHECK(runs_of(line({{3, 3}, {3, 3}, {5, 3}}), degrees(30)).size() == 1); // a repeated point is no corner
    double sum = 0;
    const Polyline star = ring(random_ring(*std::make_unique<Random>("runs"), 30, 5, 20));
    for (const Length l : runs_of(star, degrees(30)))
        sum += in_mm(l);
    CHECK(sum == Approx(in_mm(length(star))));
}

TEST_CASE("the time of a stroke is that of its runs") {
    const Speed v = mm_per_second(50);
    const double one = in_seconds(run_time(mm(10), v, motion.acceleration));
    CHECK(in_seconds(stroke_time(ring({{0, 0}, {10, 0}, {10, 10}, {0, 10}}), v, motion)) == Approx(4 * one));
    CHECK(in_seconds(travel_time(mm(100), motion)) == Approx(100.0 / 200 + 200.0 / 1000));
}
