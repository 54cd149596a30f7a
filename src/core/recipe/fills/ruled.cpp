#include "core/project/fills/ruled.h"

#include "core/recipe/pattern.h"

namespace dotlane {

FillLines fill(const RuledFill& style, const FillInput& in, Progress& progress) {
    const Frame frame = frame_of(in);
    // Margins are taken off what is filled, as it lies along the lines.
    const double left = frame.box.x0 + in_mm(style.left), right = frame.box.x1 - in_mm(style.right),
                 top = frame.box.y0 + in_mm(style.top), bottom = frame.box.y1 - in_mm(style.bottom);
    if (right <= left || bottom < top) return {};
    Ring sheet{{left, frame.box.y0 - 1},
               {right, frame.box.y0 - 1},
               {right, frame.box.y1 + 1},
               {left, frame.box.y1 + 1}};
    const Region within =
        intersected(in.region, transformed(region_of({{sheet, true}}, FillRule::nonzero), frame.to_part));
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
    return woven(std::move(lines), frame, in.within(within), progress);
}

} // namespace dotlane
