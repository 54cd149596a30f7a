// A step that inks, with sensible first numbers.
#pragma once

#include "core/catalog/catalog.h"
#include "core/project/edits.h"

namespace dotlane {

/// Adds one that works on whole line sets. Its lane is theirs when that marks (draws, foils, engraves,
/// embosses), else the first marking lane of the project, else a new draw lane. Its numbers suit the tip of
/// that lane.
Result<StepId> fill_sets(Project& project, const Catalog& catalog, PartId part, StepWhat fill,
                         std::vector<LineSetId> sets);

} // namespace dotlane
