// A fill with sensible first numbers.
#pragma once

#include "core/catalog/catalog.h"
#include "core/project/edits.h"

namespace dotlane {

/// Adds a fill of whole line sets. Its lane is theirs when that marks (draws, foils, engraves, embosses),
/// else the first marking lane of the project, else a new draw lane. Its spacing is 0.85 of the tip: lines
/// overlap by 15 %, within the 10 to 20 % that is common practice for a solid look.
Result<StepId> fill_sets(Project& project, const Catalog& catalog, PartId part, std::vector<LineSetId> sets);

/// Share of the tip's width that lines of a solid fill are apart.
inline constexpr double solid_spacing = 0.85;

} // namespace dotlane
