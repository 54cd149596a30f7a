#include "core/project/fills/dots.h"

#include <cmath>
#include <numbers>

#include "core/geometry/region_index.h"
#include "core/recipe/pattern.h"

namespace dotlane {

FillLines fill(const DotsFill& style, const FillInput& in, Progress& progress) {
    const Frame frame = frame_of(in);
    const RegionIndex index(in.region);
    // Staggered, each dot is as far from the six around it.
    const double pitch = in_mm(in.spacing), down = style.staggered ? pitch * std::sqrt(3.0) / 2 : pitch;
    const double radius = in_mm(style.size) / 2;
    constexpr int sides = 24;
    const Span rows = span_of(frame.box.y0, frame.box.y1, down),
               across = span_of(frame.box.x0, frame.box.x1, pitch);
    FillLines out;
    for (long k = rows.first; k <= rows.last; ++k) {
        if (progress.cancelled()) return out;
        const double shift = style.staggered && k % 2 != 0 ? pitch / 2 : 0;
        const std::size_t before = out.lines.size();
        for (long i = 0; i < across.count(); ++i) {
            const long at = k % 2 == 0 ? across.first + i : across.last - i; // to and fro
            const Point p =
                frame.to_part({static_cast<double>(at) * pitch + shift, static_cast<double>(k) * down});
            if (!index.contains(p)) continue;
            Polyline dot{{p}, false};
            if (radius > 0) {
                dot = {{}, true};
                for (int s = 0; s < sides; ++s) {
                    const double turn = 2 * std::numbers::pi * s / sides;
                    dot.points.push_back({p.x + radius * std::cos(turn), p.y + radius * std::sin(turn)});
                }
                if (!index.contains(dot)) continue;
            }
            out.lines.push_back(std::move(dot));
        }
        if (out.lines.size() > before) ++out.rows;
    }
    out.pieces = out.lines.size();
    return out;
}

} // namespace dotlane
