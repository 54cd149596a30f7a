// Cells of a pattern: counted, or only the whole ones drawn. Internal to recipe.
#pragma once

#include "core/recipe/pattern.h"

namespace dotlane {

struct CellCount {
    std::size_t whole = 0, cut = 0; ///< cut: those that the edge runs through the inside of
};
/// Square cells of this size, with corners at the frame's origin.
CellCount squares_in(const Region& region, const Frame& frame, Length size);

/// Draws the cells that lie wholly inside, each shared side once. In as few strokes as can be; with one
/// stroke a group of cells where ends are so, which goes some sides twice.
FillLines whole_cells(const std::vector<Ring>& cells, const Frame& frame, const FillInput& in,
                      Progress& progress);

} // namespace dotlane
