// Shared by the edit functions; private to them.
#pragma once

#include "core/base/result.h"
#include "core/project/project.h"

namespace dotlane {

/// "There is no such part in this project."
tl::unexpected<Error> no_such(const char* what);
/// Whether the numbers of a step are in their ranges, and it works on lines that are there at this position
/// of the recipe. Errors: "step.range", "step.no-lines", "edit.missing".
Result<void> check_step(const Part& part, const Step& step, std::size_t position);
Result<void> check_steps(const Part& part);
/// Whether the parts that it takes lines of exist, and none of them takes lines of it. Errors:
/// "edit.missing", "part.circle".
Result<void> check_borrowing(const Project& project, PartId part);
Result<void> check_run(const LineRun& run);
Result<void> check_wishes(const Project& project, const PlanWishes& wishes);
Result<void> check_placement(const Project& project, const Placement& placement);

} // namespace dotlane
