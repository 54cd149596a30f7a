// How lines are run and what is wished of the order, in a project file. Members stand there only where they
// say something.
#pragma once

#include <nlohmann/json.hpp>

#include "core/project/running.h"

namespace dotlane {

inline constexpr int newest_edition_of_running = 13;
/// That it cannot be read without; 1: nothing is written.
int edition_of(const LineRun& run);
int edition_of(const PlanWishes& wishes);

/// Empty objects for what is as it is by itself.
nlohmann::json to_json(const LineRun& run);
nlohmann::json to_json(const PlanWishes& wishes);
/// Throw Damaged.
LineRun line_run_from(const nlohmann::json& j);
PlanWishes plan_wishes_from(const nlohmann::json& j);

} // namespace dotlane
