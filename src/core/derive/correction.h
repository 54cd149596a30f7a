// The cut of a printed sheet set right: the machine's own measure of three printed marks says how the print
// lies and how its size differs from what was asked for.
#pragma once

#include "core/base/result.h"
#include "core/base/units.h"
#include "core/geometry/point.h"
#include "core/machine/program.h"

namespace dotlane {

/// Of the print as it lies, against the one that was asked for.
struct Correction {
    Affine map;                ///< from where it was asked for to where it lies, mm on the mat
    Length right, down;        ///< by which the first mark is shifted
    Angle turn;                ///< clockwise, of the way from the first mark to the second
    double wide = 1, high = 1; ///< scale along the first two marks, and across them
    Angle shear;               ///< by which the corner at the first mark is no right angle any more
};
/// The affine map that takes three points to three others, and what it does, taken apart as turn, shear,
/// scale (QR decomposition). Errors: "marks.number", "marks.line" (they lie on one line, or nearly),
/// "marks.far": farther off than 20 mm, which is another mark.
Result<Correction> correction_of(const std::vector<Point>& asked, const std::vector<Point>& found);

/// The middles of the marks on a print: left on top, right on top, left below, right below, those that are
/// there.
std::vector<Point> mark_places(const PrintSheet& print);

} // namespace dotlane
