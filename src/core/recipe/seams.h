// Where strokes lie side by side, and how far a tool is lifted within a surface.
//
// A lifted tool lands a little beside where it should, and the whole stroke lies off by that. Within one
// stroke lines keep their distance; between two strokes they may gape.
#pragma once

#include "core/geometry/region.h"

namespace dotlane {

/// Places where a line of one stroke lies beside a line of another, at about the spacing: each counts once,
/// however long it is. Bent lines count once for each sixty degrees that they turn by.
std::size_t seams(const Polylines& strokes, Length spacing);

/// The longest way from the end of a stroke to the next that does not leave the region; 0 when there is none.
Length widest_gap(const Polylines& strokes, const Region& inner);

/// A bare strip of this width is seen. Common practice: about what a fine pen's line is told from none by.
inline constexpr Length seen_gap = mm(0.05);

/// How many of so many seams are expected to gape by more than `seen_gap`. Both strokes lie off by a normal
/// deviation `scatter`, so that their distance has sqrt(2) times that, and a seam gapes when it exceeds what
/// the tip covers beyond the spacing. 0 for fills that are not solid anyway (spacing > tip) or no scatter.
double visible_gaps(std::size_t seams, Length spacing, Length tip, Length scatter);
/// The spacing at which fewer than `most` are expected on the same surface, at least 0.05 mm.
Length spacing_without_gaps(std::size_t seams, Length spacing, Length tip, Length scatter, double most = 0.5);

} // namespace dotlane
