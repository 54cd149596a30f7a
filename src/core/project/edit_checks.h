// Shared by the edit functions; private to them.
#pragma once

#include "core/base/result.h"
#include "core/project/project.h"

namespace dotlane {

/// "There is no such part in this project."
tl::unexpected<Error> no_such(const char* what);
Result<void> check_placement(const Project& project, const Placement& placement);

} // namespace dotlane
