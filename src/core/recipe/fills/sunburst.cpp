#include "core/project/fills/sunburst.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/recipe/pattern.h"

namespace dotlane {

FillLines fill(const SunburstFill& style, const FillInput& in, Progress& progress) {
    const Point centre{in.anchor.x0 + in.anchor.width() * style.centre.x / 100,
                       in.anchor.y0 + in.anchor.height() * style.centre.y / 100};
    double far = 0;
    for (const Ring& ring : in.region.rings)
        for (const Point p : ring)
            far = std::max(far, distance(p, centre));
    const double turn = 2 * std::numbers::pi;
    const auto rays = std::max(1L, static_cast<long>(turn * far / in_mm(in.spacing)));
    // In the middle all rays would meet in one point.
    const double hollow = std::max(in_mm(style.hollow), in_mm(in.tip) / 2);
    Ring disc;
    constexpr int sides = 96;
    for (int i = 0; i < sides; ++i)
        disc.push_back(
            {centre.x + hollow * std::cos(turn * i / sides), centre.y + hollow * std::sin(turn * i / sides)});
    const Region around = subtracted(in.region, region_of({{disc, true}}, FillRule::nonzero));
    std::vector<PatternLine> lines;
    for (long i = 0; i < rays; ++i) {
        const double angle = in_radians(in.angle) + turn * static_cast<double>(i) / static_cast<double>(rays);
        const Point d{std::cos(angle), std::sin(angle)};
        lines.push_back(
            {{{centre + d * (hollow * 0.5), centre + d * (far + 1)}, false}, static_cast<std::uint32_t>(i)});
    }
    const FillInput hollowed{around,   in.spacing, in.angle,   in.ends, in.tip,
                             in.phase, in.anchor,  in.outline, in.least};
    return woven(std::move(lines), {Affine{}, bounds(around)}, hollowed, progress);
}

} // namespace dotlane
