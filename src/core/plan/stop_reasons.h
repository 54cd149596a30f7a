// Why hands are needed at a stop, and what leaving it out would cost. Internal to plan.
#pragma once

#include "core/plan/plan.h"

namespace dotlane {

/// What brings the stop about: "here hands are needed because ..."; empty where nothing does.
Phrase cause_of_stop(const Program& program, std::size_t move);

/// What could not be run without it, tool by tool: the passes on the sheet that is loaded there, those of the
/// tools that are put in there until they are taken out, and for all else those up to the next stop. Empty
/// where that is nothing.
Phrase loss_without_stop(const Program& program, const Timeline& timeline, std::size_t move);

/// Adds both of every stop to the plan's reasons, with the code `stop_reason`.
void explain_each_stop(Plan& plan);

} // namespace dotlane
