// A book of samples: every style of fill as it is drawn by one tool, its settings written beside it; and
// crosses, one a tool, to measure by where each tip touches.
#pragma once

#include "core/commands/command.h"
#include "core/lettering/outliner.h"

namespace dotlane {

/// A sheet named "fill samples" with a part for each style, written on in single strokes. `lane` none: the
/// first that draws; one is made where there is none. Lines of styles that make areas solid lie three
/// tips apart, so that they can be told from one another. Error "edit.missing" (lane).
struct AddSamples {
    LaneId lane = {};
};
Result<Done> apply(const AddSamples& command, Project& project, const Catalog& catalog, FontShelf& fonts);

/// A sheet named "tool crosses" with a part for each tool of the lanes, but the first that draws: that one
/// (or the first that marks, or the first) runs a large cross, the tool a small one that ought to lie in its
/// middle, and its name is written below. How far to the right and down the middle of the small one lies is
/// what must be added to the tool's offset. Error "crosses.few": lanes of fewer than two tools.
struct AddCrosses {};
Result<Done> apply(const AddCrosses& command, Project& project, const Catalog& catalog);

} // namespace dotlane
