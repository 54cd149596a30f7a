// How a line was drawn, as JSON: in project files and in programs.
#pragma once

#include "core/project/drawing.h"
#include "core/project/json_in.h"

namespace dotlane {

/// A number of a line that nothing can be done with, such as one that is not finite: thrown.
struct LostLine {};

nlohmann::json drawn_json(const Drawn& drawn);
/// Throws Damaged and LostLine.
Drawn drawn_from(const nlohmann::json& j);
/// "#d9822b". Throws Damaged.
Colour colour_from(const nlohmann::json& j, const char* key);

} // namespace dotlane
