#include "core/commands/project.h"

#include <algorithm>

#include "core/base/text.h"
#include "core/project/edits.h"

namespace dotlane {

Result<Done> apply(const ChangeProject& command, Project& project, const Catalog& catalog) {
    Project changed = project;
    std::vector<Phrase> said;
    if (command.name) {
        if (trimmed(*command.name).empty()) return fail("project.name", say("A project needs a name."));
        changed.name = *command.name;
        said.push_back(say("it is called \"%1\"", changed.name));
    }
    if (command.unit) {
        changed.unit = *command.unit;
        said.push_back(changed.unit == LengthUnit::inch ? say("lengths are shown in inches")
                                                        : say("lengths are shown in millimetres"));
    }
    if (command.machine) {
        const Machine* machine = catalog.machine(*command.machine);
        if (!machine)
            return tl::make_unexpected(
                not_in_catalog(say("machine"), *command.machine, ids_of(catalog.machines)));
        changed.machine = machine->id;
        said.push_back(say("it is made on the %1", word(*machine)));
    }
    if (command.pass_order) {
        if (const auto ok = set_pass_order(changed, *command.pass_order); !ok)
            return tl::make_unexpected(ok.error());
        std::string order;
        for (const LaneId lane : changed.pass_order)
            order += (order.empty() ? "" : ", ") + plate(changed, lane);
        said.push_back(order.empty() ? say("lanes run in the usual order")
                                     : say("lanes run in the order %1", order));
    }
    if (said.empty()) return fail("command.nothing", say("Say what to change."));
    project = std::move(changed);
    return Done{say("The project: %1.", joined(said, "; "))};
}

Result<Done> apply(const RemoveEmptyLanes&, Project& project) {
    std::vector<LaneId> empty;
    for (const Lane& lane : project.lanes)
        if (std::none_of(project.parts.begin(), project.parts.end(), [&](const Part& part) {
                const auto uses = [&](const auto& thing) { return thing.lane == lane.id; };
                return std::any_of(part.sets.begin(), part.sets.end(), uses) ||
                       std::any_of(part.steps.begin(), part.steps.end(), uses);
            }))
            empty.push_back(lane.id);
    Done done;
    for (const LaneId lane : empty)
        done.lost.push_back(say("Lane %1, %2.", plate(project, lane), find(project, lane)->name));
    for (const LaneId lane : empty)
        if (const auto ok = remove_lane(project, lane); !ok) return tl::make_unexpected(ok.error());
    done.said =
        empty.empty() ? say("No lane is empty.") : say_n(empty.size(), "%n empty [lane|lanes] removed.");
    return done;
}

} // namespace dotlane
