// What can be done to a project as a whole.
#pragma once

#include <optional>

#include "core/commands/command.h"

namespace dotlane {

/// What is not given stays. `pass_order` empty: the planner's usual one. Errors: "project.name" (empty),
/// "command.unknown" (machine), those of set_pass_order.
struct ChangeProject {
    std::optional<std::string> name;
    std::optional<LengthUnit> unit; ///< shown and typed; nothing changes its size
    std::optional<std::string> machine;
    std::optional<std::vector<LaneId>> pass_order;
};
Result<Done> apply(const ChangeProject& command, Project& project, const Catalog& catalog);

/// In this order; empty: the planner's usual one.
inline ChangeProject in_order(std::vector<LaneId> lanes) {
    ChangeProject out;
    out.pass_order = std::move(lanes);
    return out;
}

/// Lanes that no line set and no step uses.
struct RemoveEmptyLanes {};
Result<Done> apply(const RemoveEmptyLanes& command, Project& project);

} // namespace dotlane
