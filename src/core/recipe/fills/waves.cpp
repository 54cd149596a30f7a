#include "core/project/fills/waves.h"

#include <cmath>
#include <numbers>

#include "core/recipe/pattern.h"

namespace dotlane {

FillLines fill(const WavesFill& style, const FillInput& in, Progress& progress) {
    const Frame frame = frame_of(in);
    const double length = in_mm(style.length), half = in_mm(style.height) / 2, pitch = in_mm(in.spacing);
    // The arc over a step s bulges by s^2/8 times its curvature, which is at most half * (2 pi / length)^2.
    const double turn = 2 * std::numbers::pi / length, bulge = in_mm(default_flatness) / 2;
    const double step = std::min(length / 12, std::sqrt(8 * bulge / std::max(half * turn * turn, 1e-9)));
    const double even = length / std::ceil(length / step);
    const auto steps = static_cast<long>(std::llround(length / even));
    std::vector<double> heights; // of one wave
    for (long i = 0; i < steps; ++i)
        heights.push_back(half * std::sin(static_cast<double>(i) * even * turn));
    double longest = 0, length_of_one = 0;
    for (std::size_t i = 0; i < heights.size(); ++i) {
        const double segment = std::hypot(even, heights[i] - heights[(i + 1) % heights.size()]);
        longest = std::max(longest, segment), length_of_one += segment;
    }
    const Span along = span_of(frame.box.x0, frame.box.x1, even);
    const Span rows = span_of(frame.box.y0 - half, frame.box.y1 + half, pitch);
    Pattern pattern;
    pattern.lines = static_cast<std::size_t>(rows.count());
    pattern.segment = length_of_one / static_cast<double>(steps);
    pattern.make = [&](std::size_t row, PatternLine& line) {
        line = {std::move(line.line), static_cast<std::uint32_t>(row), true, longest};
        line.line.points.clear();
        line.line.points.reserve(static_cast<std::size_t>(along.count()));
        const double y = static_cast<double>(rows.first + static_cast<long>(row)) * pitch;
        auto step_at = static_cast<std::size_t>(((along.first % steps) + steps) % steps);
        for (long i = along.first; i <= along.last; ++i) {
            line.line.points.push_back({static_cast<double>(i) * even, y + heights[step_at]});
            if (++step_at == heights.size()) step_at = 0;
        }
    };
    return woven(pattern, frame, in, progress);
}

} // namespace dotlane
