#include "core/project/fills/ruled.h"

#include <algorithm>
#include <cmath>

#include "core/recipe/pattern.h"

namespace dotlane {
namespace {

/// What of straight lines along the frame lies between two places on its x axis.
FillLines between(FillLines made, const Frame& frame, double left, double right, Length least) {
    const Point way = frame.to_part({1, 0}) - frame.to_part({0, 0}), from = frame.to_part({0, 0});
    std::erase_if(made.lines, [&](Polyline& line) {
        for (Point& p : line.points) {
            const double x = dot(p - from, way);
            p = p + way * (std::clamp(x, left, right) - x);
        }
        return in_mm(length(line)) < std::max(in_mm(least), 1e-6);
    });
    made.pieces = made.lines.size(), made.rows = 0;
    double last = -HUGE_VAL;
    for (const Polyline& line : made.lines)
        if (const double y = cross(way, line.points.front() - from); std::abs(y - last) > 1e-3)
            last = y, ++made.rows;
    return made;
}

} // namespace

FillLines fill(const RuledFill& style, const FillInput& in, Progress& progress) {
    const Frame frame = frame_of(in);
    // Margins are taken off what is filled, as it lies along the lines.
    const double left = frame.box.x0 + in_mm(style.left), right = frame.box.x1 - in_mm(style.right),
                 top = frame.box.y0 + in_mm(style.top), bottom = frame.box.y1 - in_mm(style.bottom);
    if (right <= left || bottom < top) return {};
    std::vector<PatternLine> lines;
    std::uint32_t row = 0;
    const auto line = [&](double y) {
        lines.push_back({{{{frame.box.x0 - 1, y}, {frame.box.x1 + 1, y}}, false}, row++});
    };
    const double pitch = in_mm(in.spacing);
    for (double y = top; y <= bottom + 1e-9; y += pitch) {
        if (style.helper > 0 && y - pitch * style.helper / 100 > frame.box.y0)
            line(y - pitch * style.helper / 100);
        line(y);
    }
    if (in.ends == FillEnds::apart)
        return between(woven(std::move(lines), frame, in, progress), frame, left, right, in.least);
    // Where ends are joined the margin is an edge to go along.
    Ring sheet{{left, frame.box.y0 - 1},
               {right, frame.box.y0 - 1},
               {right, frame.box.y1 + 1},
               {left, frame.box.y1 + 1}};
    const Region within =
        intersected(in.region, transformed(region_of({{sheet, true}}, FillRule::nonzero), frame.to_part));
    return woven(std::move(lines), frame, in.within(within), progress);
}

} // namespace dotlane
