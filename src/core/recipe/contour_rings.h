// Rings inside one another, at a distance from the edge: what contour and spiral fills run. Internal to
// recipe.
//
// Method: the region is inset again and again by the spacing. Where a part of it vanishes between two insets,
// what no ring's ink reaches becomes a ring too. Rings that lie next to one another form a tree (the shortest
// ways first); its rings are cut open where they meet and joined by two short ways side by side, so that one
// stroke winds through all of them, branches included (compare H. Zhao and others, Connected Fermat Spirals
// for Layered Fabrication, 2016).
#pragma once

#include "core/recipe/fill.h"

namespace dotlane {

struct Contours {
    std::vector<Ring> rings;         ///< of one piece, the edge first
    std::vector<std::size_t> levels; ///< how often each was inset
};
/// `piece`: one piece of a region, inset already. `tip`: ink that rings leave between them is filled up; 0:
/// not.
Contours contours_of(const Region& piece, Length spacing, Length tip, Progress& progress);

/// One stroke through all rings of a piece; more where rings lie too far apart. Nothing leaves the piece.
Polylines wound(const Contours& contours, const Region& piece, Length spacing, Progress& progress);

} // namespace dotlane
