#include "core/machine/motion.h"

#include <numbers>

#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

constexpr Motion motion{mm_per_second(200), mm_per_second2(1000), mm(0.05), seconds(0.1), seconds(0.2)};

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

namespace {

/// Goes along the stroke in steps of time and looks ahead at every corner that is still to come: speeds up
/// where all of them can be slowed down for, else slows down. Written from the words of motion.h.
double driven_time(const Polyline& stroke, double v, const Motion& m, double dt) {
    const double a = in_mm_per_second2(m.acceleration);
    std::vector<Point> points = stroke.points;
    if (stroke.closed) points.push_back(points.front());
    points.erase(std::unique(points.begin(), points.end()), points.end());
    std::vector<double> at{0}, limit{0};
    for (std::size_t i = 1; i < points.size(); ++i) {
        at.push_back(at.back() + distance(points[i - 1], points[i]));
        if (i + 1 == points.size()) break;
        const Point p = points[i - 1], q = points[i], r = points[i + 1];
        const double turn = std::abs(std::atan2(cross(q - p, r - q), dot(q - p, r - q)));
        // The circle that touches both sides: as far from the corner as half of the shorter one, or so that
        // it leaves the corner by the deviation, whichever is smaller.
        const double reach = std::min(distance(p, q), distance(q, r)) / 2,
                     by_sides = reach / std::tan(turn / 2),
                     by_deviation = in_mm(m.deviation) / (1 / std::cos(turn / 2) - 1);
        limit.push_back(turn < 1e-9 ? v : std::min(v, std::sqrt(a * std::min(by_sides, by_deviation))));
    }
    limit.push_back(0);
    double x = 0, speed = 0, t = 0;
    for (std::size_t next = 1; next < at.size();) {
        const double faster = std::min(v, speed + a * dt);
        bool brake = false;
        for (std::size_t k = next; k < at.size() && !brake; ++k) {
            const double left = at[k] - x - faster * dt;
            if (left > v * v / (2 * a) + 1) break;
            brake = faster * faster > limit[k] * limit[k] + 2 * a * std::max(left, 0.0);
        }
        speed = brake ? std::max(speed - a * dt, a * dt) : faster;
        x += speed * dt, t += dt;
        while (next < at.size() && x >= at[next])
            ++next;
    }
    return t;
}

} // namespace

TEST_CASE("the time of a stroke is that of driving along it in small steps") {
    Random random("strokes");
    INFO("seed " << random.seed());
    for (int i = 0; i < 40; ++i) {
        Polyline stroke;
        switch (i % 4) {
        case 0:
            stroke = ring(random_ring(random, random.whole(3, 30), 1, 30));
            break;
        case 1:
            stroke = ring(regular(random.whole(3, 200), random.real(0.5, 40)));
            break;
        case 2: // a spiral, ever tighter
            for (double t = 0; t < 12; t += 0.05)
                stroke.points.push_back({(13 - t) * std::cos(t), (13 - t) * std::sin(t)});
            break;
        default: // there and back, and sides of all lengths
            for (int k = 0; k < 20; ++k)
                stroke.points.push_back({random.real(0, std::pow(10, random.real(-1, 2))),
                                         random.real(0, std::pow(10, random.real(-1, 2)))});
        }
        const Motion m{
            mm_per_second(200), mm_per_second2(random.real(300, 3000)), mm(random.real(0.01, 0.3)), {}, {}};
        const double v = random.real(5, 150), told = in_seconds(stroke_time(stroke, mm_per_second(v), m));
        INFO("stroke " << i << " at " << v << " mm/s");
        // Wanted of an estimate: 3 %. The steps are a thousandth of the whole or less.
        CHECK(told == Approx(driven_time(stroke, v, m, std::min(1e-4, told / 4000))).epsilon(0.01));
    }
}

TEST_CASE("a circle is run no faster than its radius and the acceleration allow, however it is divided") {
    // Centripetal acceleration v^2 / r, any textbook of mechanics: at most sqrt(a r).
    for (const double r : {0.5, 2.0, 8.0})
        for (const std::size_t n : {60U, 240U, 2000U}) {
            const double fast = std::sqrt(1000 * r), way = in_mm(length(ring(regular(n, r))));
            const double t = in_seconds(stroke_time(ring(regular(n, r)), mm_per_second(1000), motion));
            // From rest and to it again: v / a more than at full speed, half of it each.
            CHECK(t == Approx(way / fast + fast / 1000).epsilon(0.02));
        }
    // Slow enough, it is run at the tool's own speed.
    const Polyline wide = ring(regular(400, 50));
    CHECK(in_seconds(stroke_time(wide, mm_per_second(20), motion)) ==
          Approx(in_mm(length(wide)) / 20 + 20.0 / 1000).epsilon(0.001));
}

TEST_CASE("corners nearly stop the tool, gentle turns hardly, a turn back does") {
    const auto speed = [](double degrees, double a, double b) {
        const double t = degrees * std::numbers::pi / 180;
        return in_mm_per_second(corner_speed({a, 0}, Point{std::cos(t), std::sin(t)} * b, motion));
    };
    // The circle within a right angle that leaves it by d has the radius d / (sqrt 2 - 1).
    CHECK(speed(90, 50, 50) == Approx(std::sqrt(1000 * 0.05 / (std::sqrt(2) - 1))));
    CHECK(speed(180, 50, 50) == 0);
    CHECK(speed(5, 50, 50) > speed(30, 50, 50));
    CHECK(speed(30, 0.01, 50) < speed(30, 50, 50)); // a short side leaves no room
    CHECK(std::isinf(speed(0, 1, 1)));
    // A point that is there twice is no corner, and a dot takes no time.
    CHECK(stroke_time(line({{3, 3}, {3, 3}, {5, 3}}), mm_per_second(50), motion) ==
          run_time(mm(2), mm_per_second(50), motion.acceleration));
    CHECK(stroke_time(line({{3, 3}}), mm_per_second(50), motion) == Duration());
    CHECK(in_seconds(travel_time(mm(100), motion)) == Approx(100.0 / 200 + 200.0 / 1000));
}

TEST_CASE("a stroke is run from its beginning to its end, never backwards, never too fast") {
    Random random("runs");
    INFO("seed " << random.seed());
    for (int i = 0; i < 10; ++i) {
        const Polyline star = ring(random_ring(random, 30, 2, 20));
        const StrokeMotion run(star, mm_per_second(80), motion);
        const double total = in_seconds(run.time());
        double before = 0;
        for (int k = 1; k <= 2000; ++k) {
            const double x = in_mm(run.at(seconds(total * k / 2000)));
            CHECK(x >= before - 1e-9);
            CHECK((x - before) / (total / 2000) <= 80 * 1.001);
            before = x;
        }
        CHECK(before == Approx(in_mm(length(star))));
        CHECK(in_mm(run.at(seconds(-1))) == 0);
        CHECK(in_mm(run.at(seconds(total + 1))) == Approx(in_mm(length(star))));
    }
}
