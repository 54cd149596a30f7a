#include "core/project/fills/sunburst.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/recipe/pattern.h"

namespace dotlane {

FillLines fill(const SunburstFill& style, const FillInput& in, Progress& progress) {
    const auto [centre, far] = around(style.centre, in);
    const double turn = 2 * std::numbers::pi;
    const auto rays = std::max(1L, static_cast<long>(turn * far / in_mm(in.spacing)));
    // In the middle all rays would meet in one point.
    const double hollow = std::max(in_mm(style.hollow), in_mm(in.tip) / 2);
    Ring disc;
    constexpr int sides = 96;
    for (int i = 0; i < sides; ++i)
        disc.push_back(
            {centre.x + hollow * std::cos(turn * i / sides), centre.y + hollow * std::sin(turn * i / sides)});
    const Region hollowed = subtracted(in.region, region_of({{disc, true}}, FillRule::nonzero));
    std::vector<PatternLine> lines;
    for (long i = 0; i < rays; ++i) {
        const double angle = in_radians(in.angle) + turn * static_cast<double>(i) / static_cast<double>(rays);
        const Point d{std::cos(angle), std::sin(angle)};
        lines.push_back(
            {{{centre + d * (hollow * 0.5), centre + d * (far + 1)}, false}, static_cast<std::uint32_t>(i)});
    }
    return woven(std::move(lines), {Affine{}, bounds(hollowed)}, in.within(hollowed), progress);
}

} // namespace dotlane
