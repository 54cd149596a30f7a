// Routes of lines some of which are run in an order that was wished. Internal to plan.
#pragma once

#include "core/plan/tool_path.h"

namespace dotlane {

/// `block`: see LaneLines. The other lines are routed as if they were alone; each block lies between two of
/// them, or before or after all, where it takes the least way; its lines begin where the one before ended, or
/// near it.
RouteResult routed_in_blocks(const Beginnings& from, const std::vector<std::uint32_t>& block,
                             const RouteOptions& options, Progress& progress);

} // namespace dotlane
