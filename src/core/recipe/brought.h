// What steps that bring lines of their own share.
#pragma once

#include "core/project/steps/align.h"
#include "core/recipe/step.h"

namespace dotlane {

/// The lines that a step brings, turned and put at their place among the others; or where they lie.
StepOutcome put(const StepInput& in, Angle turned, AlignStep place, bool as_they_lie);

} // namespace dotlane
