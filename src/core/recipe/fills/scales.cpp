#include "core/project/fills/scales.h"

#include <cmath>
#include <numbers>

#include "core/recipe/pattern.h"

namespace dotlane {

FillLines fill(const ScalesFill&, const FillInput& in, Progress& progress) {
    const Frame frame = frame_of(in);
    const double wide = in_mm(in.spacing), radius = wide / 2;
    // Chords of half the usual flatness: 1 - cos of half the angle between two points.
    const double bulge = in_mm(default_flatness) / 2;
    const int steps = std::max(
        8,
        static_cast<int>(std::ceil(std::numbers::pi / (2 * std::acos(1 - std::min(0.5, bulge / radius))))));
    std::vector<Point> scale; // one, about its middle
    for (int s = 0; s < steps; ++s) {
        const double turn = std::numbers::pi * s / steps;
        scale.push_back({-radius * std::cos(turn), radius * std::sin(turn)});
    }
    const Span rows = span_of(frame.box.y0 - radius, frame.box.y1, radius),
               across = span_of(frame.box.x0, frame.box.x1, wide);
    std::vector<PatternLine> lines;
    for (long k = rows.first; k <= rows.last; ++k) {
        PatternLine row{{}, static_cast<std::uint32_t>(k - rows.first)};
        const double y = static_cast<double>(k) * radius, shift = k % 2 == 0 ? 0 : radius;
        for (long i = across.first; i <= across.last; ++i)
            for (const Point p : scale)
                row.line.points.push_back(p + Point{static_cast<double>(i) * wide + shift, y});
        lines.push_back(std::move(row));
    }
    return woven(std::move(lines), frame, in, progress);
}

} // namespace dotlane
