// Private to the project's format.
#pragma once

#include <nlohmann/json.hpp>

namespace dotlane {

/// Takes a document of version `from` (1 or later) to the newest. Throws Damaged.
void migrate(nlohmann::json& document, int from);

} // namespace dotlane
