// Fabric beyond a sewing line: how its corners are cut, and where it is clipped or notched so that curves lie
// flat when it is turned under. Internal to recipe.
#pragma once

#include <functional>

#include "core/geometry/region.h"

namespace dotlane {

/// The region and what lies within `by` of it, corners kept: their tips are cut straight across at `reach`
/// times `by` from the corner, so one of 90 degrees is whole from a reach of 1.414 and one of angle a from 1
/// / sin(a / 2). `by` > 0, `reach` > 0.
Region with_allowance(const Region& seam, Length by, double reach);

/// What curves need when an allowance is turned under along them.
struct CurveCuts {
    Polylines clips;         ///< into hollow curves, from the edge of the cloth
    Region notched;          ///< out of full curves
    std::size_t notches = 0; ///< how many that are; those of one bay may touch
    Length least = mm(1e9);  ///< between two clips or notches along the line
};
/// Between two of them the fold runs straight. A chord of length w on a curve of radius R leaves it by w^2 /
/// 8R (the sagitta), which is kept below 0.3 mm: common practice turns this into "every 5 to 12 mm, closer in
/// tight curves". Curves whose edge is stretched or gathered by less than 5 % need none, as woven cloth gives
/// as much on its edge. Each stops short of the line, of its own curve and of
/// what lies across a narrow bay, by 1 mm or a quarter of the allowance, whichever is less. A notch takes out
/// what would lie double: 2 * by * w / R. `wanted`: whether the edge there is turned.
CurveCuts curve_cuts(const Region& seam, Length by, const std::function<bool(Point)>& wanted);

} // namespace dotlane
