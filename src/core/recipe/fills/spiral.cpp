#include "core/project/fills/spiral.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/recipe/contour_rings.h"
#include "core/recipe/pattern.h"

namespace dotlane {
namespace {

/// Two arms that wind out of the centre, each in the middle of the other's gaps: one line, whose ends both
/// lie outside.
PatternLine arms(Point centre, double radius, double spacing, Angle angle) {
    const double pitch = 2 * spacing / (2 * std::numbers::pi); // mm of radius for each radian
    PatternLine out;
    std::vector<Point> arm;
    for (double turn = 0; turn * pitch <= radius;) {
        const double r = turn * pitch, a = turn + in_radians(angle);
        arm.push_back({r * std::cos(a), r * std::sin(a)});
        // A chord over an angle t bulges by r t^2 / 8; near the centre the arm itself turns within `pitch`.
        turn += std::min(0.3, std::sqrt(8 * in_mm(default_flatness) / 2 / std::max(r, pitch)));
    }
    for (std::size_t i = arm.size(); i-- > 1;)
        out.line.points.push_back(centre - arm[i]);
    for (const Point p : arm)
        out.line.points.push_back(centre + p);
    return out;
}

} // namespace

FillLines fill(const SpiralFill& style, const FillInput& in, Progress& progress) {
    if (style.course == SpiralFill::Course::round) {
        const auto [centre, far] = around(style.centre, in);
        return woven({arms(centre, far + 2 * in_mm(in.spacing), in_mm(in.spacing), in.angle)},
                     {Affine{}, bounds(in.region)}, in, progress);
    }
    FillLines out;
    for (const Region& piece : pieces(in.region)) {
        const Contours contours = contours_of(piece, in.spacing, in.tip, progress);
        out.rows += contours.rings.size(), out.pieces += contours.rings.size();
        Polylines lines = wound(contours, piece, in.spacing, progress);
        out.lines.insert(out.lines.end(), std::make_move_iterator(lines.begin()),
                         std::make_move_iterator(lines.end()));
    }
    return out;
}

} // namespace dotlane
