// DXF reader: bytes of a file to a Drawing, through dxflib.
//
// Taken: lines, arcs, circles, ellipses, polylines old and new with bulges, splines (their own curves, not
// chords), points as dots, blocks and inserts with scale, turn, rows and columns, layers, colours, units
// ($INSUNITS), mirrored extrusions. Ends that meet on one layer are joined to one line, as DXF has no paths.
// Not taken, and told as findings with a count: text, hatches, dimensions, solids, pictures, layers that are
// off.
#pragma once

#include <string>

#include "core/base/finding.h"
#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/project/drawing.h"

namespace dotlane {

struct DxfOptions {
    std::string file_name;             ///< for messages only
    std::size_t max_lines = 1'000'000; ///< after inserts are expanded
};

struct DxfResult {
    Drawing drawing;            ///< mm; drawing units as millimetres when the file has no unit
    bool physical_size = false; ///< $INSUNITS names a unit
    Findings findings;
};

/// Errors: "dxf.not-dxf", "dxf.large", "dxf.deep" (blocks within blocks over 32 levels), "dxf.number" (not
/// finite, or beyond 1e9), "cancelled".
Result<DxfResult> read_dxf(const std::string& bytes, const DxfOptions& options,
                           Progress& progress = no_progress());

/// One piece of a B-spline turned into cubics: exact for degrees up to 3 without weights, otherwise each knot
/// span is cut in eight (the error falls with the fourth power). Knots: control points + degree + 1 of them,
/// not falling. Empty when the counts do not match.
Contour spline_contour(int degree, const std::vector<Point>& controls, const std::vector<double>& weights,
                       const std::vector<double>& knots, bool closed);

} // namespace dotlane
