#include "core/commands/lanes.h"

#include <algorithm>

#include "core/base/text.h"
#include "core/commands/ordering.h"
#include "core/project/edits.h"

namespace dotlane {

std::string lane_name(const Catalog& catalog, Action action, const std::string& tool, Colour colour) {
    const Tool* t = catalog.tool(tool);
    const std::string name = t ? t->name : action_name(action);
    return row(action).tool_colour ? colour_word(colour) + " " + name : name;
}

Phrase lane_words(const Project& project, LaneId id) {
    const Lane* lane = find(project, id);
    return lane ? as_is(plate(project, id) + " " + lane->name) : say("no lane");
}

LaneId lane_for(Project& project, const Catalog& catalog, Action action, std::string tool, Colour colour) {
    if (const Tool* first = catalog.first_tool(action); tool.empty() && first) tool = first->id;
    const bool coloured = row(action).tool_colour;
    for (const Lane& lane : project.lanes)
        if (lane.action == action && lane.tool == tool && (!coloured || lane.colour == colour))
            return lane.id;
    return add_lane(project, {{}, action, lane_name(catalog, action, tool, colour), tool, colour, 1});
}

LaneId lane_for(Project& project, const Catalog& catalog, Action action, std::string tool,
                const EvaluatedPart& part, LineId line) {
    const DrawnLine* drawn = find(*part.drawing, line);
    const Colour colour =
        drawn ? drawn->drawn.stroke.value_or(drawn->drawn.fill.value_or(plain_ink)) : plain_ink;
    return lane_for(project, catalog, action, std::move(tool), colour);
}

namespace {

Phrase told(const Project& project, const Lane& lane, const Catalog& catalog) {
    const Tool* tool = catalog.tool(lane.tool);
    return say_n(static_cast<std::size_t>(lane.repeats), "lane %1: %2, %3, run [once|%n times]",
                 lane_words(project, lane.id), word(lane.action), tool ? as_is(tool->id) : say("no tool"));
}

Done done(Phrase said, LaneId lane) {
    Done out{std::move(said)};
    out.lane = lane;
    return out;
}

} // namespace

Result<Done> apply(const AddLane& command, Project& project, const Catalog& catalog) {
    const Tool* tool_of =
        command.tool.empty() ? catalog.first_tool(command.action) : catalog.tool(command.tool);
    if (!command.tool.empty() && !tool_of)
        return tl::make_unexpected(not_in_catalog(say("tool"), command.tool, ids_of(catalog.tools)));
    if (tool_of &&
        std::find(tool_of->actions.begin(), tool_of->actions.end(), command.action) == tool_of->actions.end())
        return fail("lane.tool", say("The %1 does not %2.", word(*tool_of), word(command.action)));
    const std::string tool = tool_of ? tool_of->id : "";
    const LaneId id = add_lane(project, {{},
                                         command.action,
                                         lane_name(catalog, command.action, tool, command.colour),
                                         tool,
                                         command.colour,
                                         1});
    return done(say("Added %1", told(project, *find(project, id), catalog)), id);
}

Result<Done> apply(const ChangeLane& command, Project& project, const Catalog& catalog) {
    const Lane* now = find(project, command.lane);
    if (!now) return fail("edit.missing", say("There is no such lane."));
    if (command.tool && !catalog.tool(*command.tool))
        return tl::make_unexpected(not_in_catalog(say("tool"), *command.tool, ids_of(catalog.tools)));
    Lane next = *now;
    next.action = command.action.value_or(next.action);
    const Tool* tool = catalog.tool(next.tool);
    const bool can =
        tool && std::find(tool->actions.begin(), tool->actions.end(), next.action) != tool->actions.end();
    if (const Tool* first = catalog.first_tool(next.action); command.action && !can)
        next.tool = first ? first->id : "";
    next.tool = command.tool.value_or(next.tool);
    next.colour = command.colour.value_or(next.colour);
    next.repeats = command.repeats.value_or(next.repeats);
    next.fold = command.fold.value_or(next.fold);
    next.run = {command.start.value_or(next.run.start), command.overcut.value_or(next.run.overcut),
                command.lead_in.value_or(next.run.lead_in), command.dwell.value_or(next.run.dwell),
                command.small_first.value_or(next.run.small_first)};
    if (command.name)
        next.name = *command.name;
    else if (now->name == lane_name(catalog, now->action, now->tool, now->colour))
        next.name = lane_name(catalog, next.action, next.tool, next.colour);
    if (const auto ok = change_lane(project, next); !ok) return tl::make_unexpected(ok.error());
    return done(told(project, *find(project, command.lane), catalog), command.lane);
}

Result<Done> apply(const RemoveLane& command, Project& project) {
    if (!find(project, command.lane)) return fail("edit.missing", say("There is no such lane."));
    Done out{say("Removed lane %1.", lane_words(project, command.lane))};
    out.lost = rules_lost_with(project, command.lane);
    for (const Part& part : project.parts) {
        const auto uses = [&](const auto& one) { return one.lane == command.lane; };
        const auto count = std::count_if(part.sets.begin(), part.sets.end(), uses) +
                           std::count_if(part.steps.begin(), part.steps.end(), uses);
        if (count > 0)
            out.lost.push_back(say_n(static_cast<std::size_t>(count),
                                     "%n line [set|sets] of \"%1\" [has|have] no lane now.", part.name));
    }
    if (const auto ok = remove_lane(project, command.lane); !ok) return tl::make_unexpected(ok.error());
    return out;
}

} // namespace dotlane
