// A book of samples: every style of fill as it is drawn by one tool, its settings written beside it.
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

} // namespace dotlane
