// Lanes that lines are sent to: named, found, made.
#pragma once

#include <optional>

#include "core/catalog/catalog.h"
#include "core/commands/command.h"
#include "core/recipe/evaluate.h"

namespace dotlane {

/// Lane name for an action, tool and colour: "rust pen 0.4", "fold stylus".
std::string lane_name(const Catalog& catalog, Action action, const std::string& tool, Colour colour);
/// "C fine blade": its plate and its name; "no lane".
Phrase lane_words(const Project& project, LaneId lane);
/// As what is drawn without a colour is shown.
inline constexpr Colour plain_ink{0x22, 0x28, 0x2c};
/// A lane of the project with this action, tool and (for pens and foil) colour; made when there is none.
/// `tool` empty: the catalog's first that does the action.
LaneId lane_for(Project& project, const Catalog& catalog, Action action, std::string tool, Colour colour);
/// The same in the colour that a line was drawn in: its stroke's, else its fill's, else plain ink.
LaneId lane_for(Project& project, const Catalog& catalog, Action action, std::string tool,
                const EvaluatedPart& part, LineId line);

/// A lane of its own. `tool` empty: the first of the action. Errors: "command.unknown" (tool), those of
/// change_lane.
struct AddLane {
    Action action = Action::draw;
    std::string tool = {};
    Colour colour = {47, 93, 98};
};
Result<Done> apply(const AddLane& command, Project& project, const Catalog& catalog);

/// What is not given stays. A name that the program gave follows the lane; one that a maker gave stays.
/// Another action takes its first tool where the lane's cannot do it. Errors: "command.unknown" (tool), those
/// of change_lane.
struct ChangeLane {
    LaneId lane;
    std::optional<Action> action = {};
    std::optional<std::string> tool = {}, name = {};
    std::optional<Colour> colour = {};
    std::optional<int> repeats = {};
    std::optional<Fold> fold = {};
    std::optional<LineStart> start = {};
    std::optional<Length> overcut = {}, lead_in = {};
    std::optional<Duration> dwell = {};
    std::optional<bool> small_first = {};
};
Result<Done> apply(const ChangeLane& command, Project& project, const Catalog& catalog);

/// Lines and steps that used it have no lane then, which is told.
struct RemoveLane {
    LaneId lane;
};
Result<Done> apply(const RemoveLane& command, Project& project);

} // namespace dotlane
