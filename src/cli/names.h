// Parts, sheets, lanes and line sets by what the maker calls them. A name is looked for first, in any case;
// "#4" is a number as `show` gives it, and a bare 4 is one where nothing is called so. A name that several
// bear is refused with the candidates.
#pragma once

#include <string>
#include <vector>

#include "core/project/project.h"

namespace dotlane::cli {

/// The only one when empty. Errors: "cli.none", "cli.which", "cli.unknown", "cli.ambiguous".
Result<PartId> part_named(const Project& project, const std::string& name);
Result<SheetId> sheet_named(const Project& project, const std::string& name);
/// Also by plate ("D2").
Result<LaneId> lane_named(const Project& project, const std::string& name);
/// "D,F,S,C"; "usual" is empty: the planner's own order.
Result<std::vector<LaneId>> lanes_named(const Project& project, const std::string& names);
/// Line sets of a part and the results of its steps: by name (of a result: its step's kind), by number, or
/// all of a lane by its plate.
Result<std::vector<LineSetId>> sets_named(const Project& project, PartId part,
                                          const std::vector<std::string>& names);

} // namespace dotlane::cli
