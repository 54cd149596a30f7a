// Which steps make strokes that are to be run in the order in which they stand.
#pragma once

#include "core/project/steps.h"

namespace dotlane {

/// The strokes of others are run in whatever order takes the least travel.
bool keeps_order(const StepWhat& what);

} // namespace dotlane
