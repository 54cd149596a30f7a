// What the plan says of its time as a whole. Internal to plan.
#pragma once

#include "core/plan/plan.h"
#include "core/plan/sequence.h"

namespace dotlane {

/// Adds to the plan's reasons, whose totals are known: in front what its order takes of the hands' time,
/// whether any takes less, and how much of it is done while the machine runs; behind them what the routes
/// save.
void explain_time(Plan& plan, const Sequence& sequence, const PlanOptions& options);

} // namespace dotlane
