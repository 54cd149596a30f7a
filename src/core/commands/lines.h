// What can be done with lines of a part: sent to lanes, set aside.
#pragma once

#include <optional>

#include "core/commands/command.h"
#include "core/recipe/evaluate.h"

namespace dotlane {

/// Lines, taken as whole line sets where a step has changed them; and line sets, of the source or of steps.
struct LinesOfPart {
    PartId part;
    std::vector<LineId> lines = {};
    std::vector<LineSetId> sets = {};
};

/// `lane` none: they have no lane then, which is an error until they have one.
struct SendLines : LinesOfPart {
    LaneId lane;
};
Result<Done> apply(const SendLines& command, Project& project, const Catalog& catalog,
                   const EvaluatedPart& evaluated);

/// To the lane of this action with this tool (empty: the first that does it) and colour (none: that of the
/// first line); made when there is none. Given again it changes nothing.
struct SendToAction : LinesOfPart {
    Action action = Action::cut;
    std::string tool = {};
    std::optional<Colour> colour = {};
    /// As a press on a lane's letter: to the project's first lane of the action, or to the one after the lane
    /// that they are all in already.
    bool letter = false;
};
Result<Done> apply(const SendToAction& command, Project& project, const Catalog& catalog,
                   const EvaluatedPart& evaluated);

/// They are not run, or run again.
struct SetLinesAside : LinesOfPart {
    bool aside = true;
};
Result<Done> apply(const SetLinesAside& command, Project& project, const Catalog& catalog,
                   const EvaluatedPart& evaluated);

} // namespace dotlane
