// A step that inks, with sensible first numbers.
#pragma once

#include "core/catalog/catalog.h"
#include "core/project/edits.h"
#include "core/recipe/evaluate.h"

namespace dotlane {

/// Adds one that works on whole line sets. Its lane is theirs when that marks (draws, foils, engraves,
/// embosses), else the first marking lane of the project, else a new draw lane. Its numbers suit the tip of
/// that lane.
Result<StepId> fill_sets(Project& project, const Catalog& catalog, PartId part, StepWhat fill,
                         std::vector<LineSetId> sets);

/// The finding's fill, which the drawing came with as lines, is set aside, and the outlines that it lies in
/// are filled in its lane, at its angle, as wide apart as it was drawn. The outlines are run as before.
Result<void> fill_anew(Project& project, const Catalog& catalog, const EvaluatedPart& evaluated,
                       const Finding& finding);

} // namespace dotlane
