// What can be done to the steps of a recipe.
#pragma once

#include <optional>

#include "core/commands/command.h"
#include "core/recipe/evaluate.h"

namespace dotlane {

/// One more, at the end. With neither `of` nor `lines` it works on all that it can; `lines`: chosen ones,
/// taken as whole line sets. A step that works with a second choice (what is cut out) takes the chosen lines
/// as that. Lines that it makes go to a lane that is proposed. Errors: "step.no-lines", "step.range",
/// "part.circle", "source.part".
struct AddStep {
    PartId part;
    StepWhat what;
    std::vector<LineSetId> of = {}, by = {};
    std::vector<LineId> lines = {};
};
Result<Done> apply(const AddStep& command, Project& project, const Catalog& catalog,
                   const EvaluatedPart& evaluated);

/// What AddStep answers of a step as it stands now: for one that has been given more numbers since.
Done added_step(const Project& project, PartId part, StepId step);

/// What is not given stays. Lines that it makes now and did not before, in another role, go to a lane that is
/// proposed. Errors: those of change_step.
struct ChangeStep {
    PartId part;
    StepId step;
    std::optional<StepWhat> what = {};
    std::optional<bool> on = {};
    std::optional<bool> aside = {}; ///< the lines it makes are only for later steps
    std::optional<LaneId> lane = {};
    std::optional<std::vector<LineSetId>> of = {}, by = {};
};
Result<Done> apply(const ChangeStep& command, Project& project, const Catalog& catalog);

/// A press at a place of the part, as `StepRow::press` says. Error "step.no-place" when there is nothing
/// there.
struct PressStep {
    PartId part;
    StepId step;
    Point at;
};
Result<Done> apply(const PressStep& command, Project& project, const Catalog& catalog,
                   const EvaluatedPart& evaluated);

/// Line sets that were set aside for it alone are run again. Error "step.used" while a later step works on
/// its lines.
struct RemoveStep {
    PartId part;
    StepId step;
};
Result<Done> apply(const RemoveStep& command, Project& project);

/// To this place of the recipe, 0 the first. Error "step.order".
struct MoveStep {
    PartId part;
    StepId step;
    int to = 0;
};
Result<Done> apply(const MoveStep& command, Project& project);

/// What becomes of the line sets that a step works on: sent to a lane, set aside, or run again.
struct TreatSources {
    PartId part;
    StepId step;
    std::optional<LaneId> lane = {};
    std::optional<bool> aside = {};
};
Result<Done> apply(const TreatSources& command, Project& project);

} // namespace dotlane
