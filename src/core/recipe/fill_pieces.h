// A fill over all pieces of its surface: anchored as wished, none lost silently.
// Internal to recipe.
#pragma once

#include "core/project/steps/fill.h"
#include "core/recipe/fill.h"

namespace dotlane {

struct FillPieces {
    FillLines lines;
    std::vector<Box> missed; ///< pieces of the inset region that no line lies in
};
/// A piece that a solid style's lines pass beside is filled on its own; one that a pattern passes beside is
/// missed.
FillPieces fill_pieces(const FillStep& step, const FillInput& in, Progress& progress);

/// All that is run of a fill of the inset region, in the order that is wished: piece after piece as they
/// lie in it, or by each one's uppermost point.
void put_in_order(Polylines& lines, FillStep::Order order, const Region& region);

} // namespace dotlane
