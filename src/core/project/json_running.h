// How lines are run and what is wished of the order, in a project file. Members stand there only where they
// say something; edition 12.
#pragma once

#include <nlohmann/json.hpp>

#include "core/project/running.h"

namespace dotlane {

inline constexpr int edition_of_running = 12;

/// Empty objects for what is as it is by itself.
nlohmann::json to_json(const LineRun& run);
nlohmann::json to_json(const PlanWishes& wishes);
/// Throw Damaged.
LineRun line_run_from(const nlohmann::json& j);
PlanWishes plan_wishes_from(const nlohmann::json& j);

} // namespace dotlane
