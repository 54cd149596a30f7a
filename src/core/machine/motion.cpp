#include "core/machine/motion.h"

#include <algorithm>
#include <cmath>
#include <limits>

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

Speed corner_speed(Point before, Point after, const Motion& motion) {
    const double a = length(before), b = length(after);
    // Half of the turn between the two.
    const double cosine = std::clamp(dot(before, after) / (a * b), -1.0, 1.0);
    const double c = std::sqrt((1 + cosine) / 2), s = std::sqrt((1 - cosine) / 2);
    if (s < 1e-9) return mm_per_second(std::numeric_limits<double>::infinity());
    const double by_sides = std::min(a, b) / 2 * c / s;
    const double by_deviation = in_mm(motion.deviation) * c / (1 - c);
    return mm_per_second(
        std::sqrt(in_mm_per_second2(motion.acceleration) * std::min(by_sides, by_deviation)));
}

StrokeMotion::StrokeMotion(const Polyline& stroke, Speed speed, const Motion& motion)
    : speed_(in_mm_per_second(speed))
    , acceleration_(in_mm_per_second2(motion.acceleration)) {
    const std::size_t n = stroke.points.size(), last = stroke.closed ? n : n - 1;
    Point before{};
    for (std::size_t i = 0; i < last && n > 1; ++i) {
        const Point side = stroke.points[(i + 1) % n] - stroke.points[i];
        const double l = length(side);
        if (l == 0) continue;
        const double v =
            sides_.empty() ? 0 : std::min(speed_, in_mm_per_second(corner_speed(before, side, motion)));
        sides_.push_back({l, v});
        before = side;
    }
    const auto reached = [&](double from, double length) {
        return std::sqrt(from * from + 2 * acceleration_ * length);
    };
    for (std::size_t i = sides_.size(); i-- > 0;)
        sides_[i].v = std::min(sides_[i].v, reached(end_speed(i), sides_[i].length));
    for (std::size_t i = 1; i < sides_.size(); ++i)
        sides_[i].v = std::min(sides_[i].v, reached(sides_[i - 1].v, sides_[i - 1].length));
    double total = 0;
    for (std::size_t i = 0; i < sides_.size(); ++i)
        total += time_of(i);
    time_ = seconds(total);
}

/// The highest speed on a side.
double StrokeMotion::peak(std::size_t side) const {
    const double u = sides_[side].v, w = end_speed(side);
    return std::min(speed_, std::sqrt((2 * acceleration_ * sides_[side].length + u * u + w * w) / 2));
}

double StrokeMotion::time_of(std::size_t side) const {
    const double u = sides_[side].v, w = end_speed(side), p = peak(side);
    const double ramps = (2 * p * p - u * u - w * w) / (2 * acceleration_);
    return (2 * p - u - w) / acceleration_ + std::max(0.0, sides_[side].length - ramps) / p;
}

Length StrokeMotion::at(Duration when) const {
    double t = in_seconds(when), done = 0;
    if (t <= 0) return {};
    for (std::size_t i = 0; i < sides_.size(); ++i) {
        const double needed = time_of(i);
        if (t >= needed) {
            t -= needed, done += sides_[i].length;
            continue;
        }
        const double u = sides_[i].v, w = end_speed(i), p = peak(i), up = (p - u) / acceleration_,
                     down = (p - w) / acceleration_;
        if (t < up) return mm(done + u * t + acceleration_ * t * t / 2);
        const double left = needed - t; // seen from its end
        if (left < down) return mm(done + sides_[i].length - w * left - acceleration_ * left * left / 2);
        return mm(done + (u + p) / 2 * up + p * (t - up));
    }
    return mm(done);
}

Duration stroke_time(const Polyline& stroke, Speed speed, const Motion& motion) {
    return StrokeMotion(stroke, speed, motion).time();
}

Duration travel_time(Length distance, const Motion& motion) {
    return run_time(distance, motion.travel, motion.acceleration);
}

} // namespace dotlane
