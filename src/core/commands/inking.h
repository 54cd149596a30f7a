// What a maker does to a fill beside typing its numbers.
#pragma once

#include "core/commands/command.h"
#include "core/recipe/evaluate.h"
#include "core/recipe/fill_advice.h"

namespace dotlane {

/// The fill is as dark as a picture that is laid over it. `bytes`: of a PNG or JPEG file, kept in the project
/// grey and with at most `most_tone_pixels` along its longer side. Errors: those of read_picture;
/// "edit.missing"; "fill.no-tone" (a style that is the same everywhere).
struct ToneFill {
    PartId part;
    StepId step;
    std::string bytes;
};
Result<Done> apply(const ToneFill& command, Project& project, const Catalog& catalog);

/// The fill is turned to the angle that serves a goal best (core/derive/inking.h); says what that brings and
/// costs. The project stays as it is when no angle is better. Errors "edit.missing", "fill.no-angle" (it has
/// no lines at any).
struct TurnFill {
    PartId part;
    StepId step;
    AngleGoal goal = AngleGoal::fewest_lifts;
};
Result<Done> apply(const TurnFill& command, Project& project, const Catalog& catalog,
                   const EvaluatedPart& evaluated, Progress& progress = no_progress());

/// A press on a piece of what a fill could be given to: it alone, then it beside those pressed before;
/// pressed again, no longer; when none is left, all of them. Errors "edit.missing", "fill.no-piece".
struct PressFill {
    PartId part;
    StepId step;
    Point at; ///< on the part, mm
};
Result<Done> apply(const PressFill& command, Project& project, const Catalog& catalog,
                   const EvaluatedPart& evaluated);

/// "At 62 degrees: 14 lifts instead of 17, ...": what was found, as TurnFill says it.
Phrase said_of(const AngleSearch& search);

} // namespace dotlane
