// How much of an area a fill really inks: the lines seen with the tip's width, against the area to fill.
//
// Method: level sample lines (in the fill's direction) on which both the region and the ink are unions of
// intervals, so each line is measured exactly; between them Gauss-Legendre integration with two points per
// slab, the slabs ending where rows of ink begin and end, because that is where the measure jumps. No union
// of thousands of strokes is ever built.
#pragma once

#include "core/base/progress.h"
#include "core/base/units.h"
#include "core/geometry/region.h"

namespace dotlane {

struct Coverage {
    Area to_fill, inked, inked_inside;
    /// Share of the area to fill that is inked, percent; 0 when there is nothing to fill.
    double covered_percent = 0;
    /// Ink outside the area, as a share of the area to fill, percent.
    double overspill_percent = 0;
};

/// `tip` > 0; `angle` is the direction of most of the lines (only speed and precision depend on it).
/// Error below 0.2 % of the area for fills of this program; tested against GEOS buffers.
Coverage coverage(const Region& to_fill, const Polylines& lines, Length tip, Angle angle,
                  Progress& progress = no_progress());

} // namespace dotlane
