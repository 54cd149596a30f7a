#include "core/commands/lanes.h"

#include "core/project/edits.h"

namespace dotlane {

std::string lane_name(const Catalog& catalog, Action action, const std::string& tool, Colour colour) {
    const Tool* t = catalog.tool(tool);
    const std::string name = t ? t->name : action_name(action);
    return row(action).tool_colour ? colour_word(colour) + " " + name : name;
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

} // namespace dotlane
