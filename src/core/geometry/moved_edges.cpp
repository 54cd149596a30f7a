#include "core/geometry/moved_edges.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace dotlane {

namespace cl = ClipperLib;

MovedEdges::MovedEdges(double by, std::optional<double> mitre_limit, double arc_tolerance)
    : by_(by) {
    constexpr double grid = 4, longest_chord = 1.5; // of what is rounded; times the others, see arc_tolerance
    const double fallen_short = mitre_limit ? grid : grid + longest_chord * longest_chord * arc_tolerance;
    covered_ = by < 0 ? by + fallen_short : by - fallen_short;
    if (mitre_limit) {
        // A corner whose edges turn by t runs on by/cos(t/2) far. A limit under 2 counts as 2, as with
        // Clipper.
        least_mitre_ = *mitre_limit > 2 ? 2 / (*mitre_limit * *mitre_limit) : 0.5;
        return;
    }
    // Chords of an arc of radius r lie r(1 - cos(a/2)) inside it.
    const double reach = std::abs(by), tolerance = std::min(arc_tolerance, reach / 4);
    const double steps =
        std::min(std::numbers::pi / std::acos(1 - tolerance / reach), reach * std::numbers::pi);
    const double angle = 2 * std::numbers::pi / steps;
    steps_a_radian_ = 1 / angle;
    sine_ = by < 0 ? -std::sin(angle) : std::sin(angle);
    cosine_ = std::cos(angle);
}

cl::Path MovedEdges::operator()(const cl::Path& ring) const {
    const std::size_t n = ring.size();
    const auto [left, right] =
        std::minmax_element(ring.begin(), ring.end(), [](const auto& a, const auto& b) { return a.X < b.X; });
    const auto [top, bottom] =
        std::minmax_element(ring.begin(), ring.end(), [](const auto& a, const auto& b) { return a.Y < b.Y; });
    const auto extent = static_cast<double>(std::max(right->X - left->X, bottom->Y - top->Y));
    const bool through_corners = extent < 2.5 * std::abs(by_) || covered_ * by_ <= 0;
    std::vector<Point> normals;
    std::vector<double> lengths;
    normals.reserve(n), lengths.reserve(n);
    for (std::size_t i = 0; i < n; ++i) {
        const cl::IntPoint a = ring[i], b = ring[i + 1 < n ? i + 1 : 0];
        const Point along{static_cast<double>(b.X - a.X), static_cast<double>(b.Y - a.Y)};
        const double l = length(along);
        normals.push_back({along.y / l, -along.x / l}), lengths.push_back(l);
    }
    cl::Path out;
    out.reserve(2 * n);
    for (std::size_t i = 0; i < n; ++i) {
        const auto put = [&](Point away) {
            out.emplace_back(ring[i].X + std::llround(away.x), ring[i].Y + std::llround(away.y));
        };
        const std::size_t last = i > 0 ? i - 1 : n - 1;
        const Point before = normals[last], after = normals[i];
        const double sine = std::clamp(cross(before, after), -1.0, 1.0), cosine = dot(before, after);
        if (std::abs(sine * by_) < 1 && cosine > 0) { // less than a step of the grid
            put(before * by_);
        } else if (sine * by_ < 0) {
            // Where the moved edges cross, if each passes over all that the other would go on over.
            if (!through_corners && cosine > 0.5 &&
                std::abs(by_ * sine) < std::min(lengths[last], lengths[i])) {
                put((before + after) * (by_ / (1 + cosine)));
                continue;
            }
            put(before * by_);
            if (through_corners)
                out.push_back(ring[i]);
            else
                put(before * covered_), put(after * covered_);
            put(after * by_);
        } else if (least_mitre_ && 1 + cosine >= *least_mitre_) {
            put((before + after) * (by_ / (1 + cosine)));
        } else if (least_mitre_) { // cut off square, as far out as the edges lie
            const double bend = std::tan(std::atan2(sine, cosine) / 4);
            put(Point{before.x - before.y * bend, before.y + before.x * bend} * by_);
            put(Point{after.x + after.y * bend, after.y - after.x * bend} * by_);
        } else {
            const double turn = std::abs(std::atan2(sine, cosine));
            Point normal = before;
            for (long k = std::max(std::lround(steps_a_radian_ * turn), 1L); k > 0; --k) {
                put(normal * by_);
                normal = {normal.x * cosine_ - normal.y * sine_, normal.x * sine_ + normal.y * cosine_};
            }
            put(after * by_);
        }
    }
    return out;
}

} // namespace dotlane
