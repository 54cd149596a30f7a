// Centre lines: the single strokes along the middle of an area, such as a pen or an engraving tip follows to
// write an outlined letter.
#pragma once

#include "core/geometry/region.h"

namespace dotlane {

struct CentreLineOptions {
    /// How far beyond the end of a limb's own width a branch must reach to stay, as a share of that width's
    /// half: 0 keeps a spur into every corner; a square end has two of 0.41. 0..4
    double spurs = 0.5;
    /// Ends of strokes run on towards the edge, to this share of the way. 0..1
    double reach = 0.75;
    Length flatness = mm(0.02); ///< of the strokes; > 0
};

struct CentreLines {
    Polylines lines;      ///< strokes as long as can be: through a crossing each goes on straightest
    Length widest, least; ///< width of the area across the strokes
};

/// The medial axis of the area (H. Blum 1967) from the Voronoi diagram of its edges (Boost.Polygon), without
/// its spurs. Every point of it that is not in an extended end is the middle of a largest circle in the area.
CentreLines centre_lines(const Region& region, const CentreLineOptions& options = {});

} // namespace dotlane
