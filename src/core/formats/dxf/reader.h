// DXF reader: bytes of a file in text form to a Drawing. Our own, as no library at hand can be trusted with
// files that were not made by a well-meaning program (docs/decisions/0010).
//
// Taken: lines, arcs, circles, ellipses, polylines old and new with bulges, splines (their own curves, not
// chords), points as dots, blocks and inserts with scale, turn, rows and columns, layers, colours by index
// and true ones, units ($INSUNITS), planes of their own. Ends that meet on one layer are joined to one line,
// as DXF has no paths. Not taken, and told as findings with a count: text, hatches, dimensions, solids,
// pictures, layers that are off, layouts on paper, kinds that are not known.
#pragma once

#include <string>

#include "core/base/finding.h"
#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/formats/limits.h"
#include "core/project/drawing.h"

namespace dotlane {

struct DxfOptions {
    std::string file_name;  ///< for messages only
    ReadLimits limits = {}; ///< after inserts are expanded
};

struct DxfResult {
    Drawing drawing;            ///< mm; drawing units as millimetres when the file has no unit
    bool physical_size = false; ///< $INSUNITS names a unit
    Findings findings;
};

/// Errors, with the line where there is one: "dxf.not-dxf", "dxf.binary", "dxf.cut" (it ends within a
/// section), "dxf.large", "dxf.deep" (blocks within blocks over 32 levels), "dxf.number" (no number, not
/// finite, or beyond 1e9), "cancelled".
Result<DxfResult> read_dxf(const std::string& bytes, const DxfOptions& options,
                           Progress& progress = no_progress());

/// A B-spline turned into cubics: exact for degrees up to 3 without weights, otherwise within 2e-6 of the
/// size of its control polygon. Knots: control points + degree + 1 of them, not falling. Empty when the
/// counts do not match, a weight is not above zero or something is not finite.
Contour spline_contour(int degree, const std::vector<Point>& controls, const std::vector<double>& weights,
                       const std::vector<double>& knots, bool closed);

} // namespace dotlane
