#include "core/machine/motion.h"

#include <cmath>

namespace dotlane {

Duration run_time(Length run, Speed speed, Acceleration acceleration) {
    const double l = in_mm(run), v = in_mm_per_second(speed), a = in_mm_per_second2(acceleration);
    if (l <= 0) return {};
    return seconds(l >= v * v / a ? l / v + v / a : 2 * std::sqrt(l / a));
}

Length run_distance(Length run, Speed speed, Acceleration acceleration, Duration at) {
    const double l = in_mm(run), a = in_mm_per_second2(acceleration), t = in_seconds(at);
    const double total = in_seconds(run_time(run, speed, acceleration));
    if (t <= 0) return {};
    if (t >= total) return run;
    const double v = std::min(in_mm_per_second(speed), std::sqrt(l * a)), ramp = v / a;
    if (t < ramp) return mm(a * t * t / 2);
    if (t > total - ramp) return mm(l - a * (total - t) * (total - t) / 2);
    return mm(v * ramp / 2 + v * (t - ramp));
}

std::vector<Length> runs_of(const Polyline& stroke, Angle corner) {
    std::vector<Length> out;
    const double limit = std::cos(in_radians(corner));
    const std::size_t n = stroke.points.size();
    const std::size_t last = stroke.closed ? n : n - 1;
    double run = 0;
    Point before{};
    bool any = false;
    for (std::size_t i = 0; i < last && n > 1; ++i) {
        const Point step = stroke.points[(i + 1) % n] - stroke.points[i];
        const double l = length(step);
        if (l == 0) continue;
        const Point direction = step * (1 / l);
        if (any && dot(before, direction) < limit) {
            out.push_back(mm(run));
            run = 0;
        }
        run += l;
        before = direction;
        any = true;
    }
    if (run > 0) out.push_back(mm(run));
    return out;
}

Duration stroke_time(const Polyline& stroke, Speed speed, const Motion& motion) {
    Duration total;
    for (const Length run : runs_of(stroke, motion.corner))
        total += run_time(run, speed, motion.acceleration);
    return total;
}

Duration travel_time(Length distance, const Motion& motion) {
    return run_time(distance, motion.travel, motion.acceleration);
}

} // namespace dotlane
