// The plan: passes in order, tools in slots, stops with what the hands do, routes and times, and one sentence
// for each decision.
#pragma once

#include <map>

#include "core/base/finding.h"
#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/catalog/catalog.h"
#include "core/machine/program.h"
#include "core/machine/simulator.h"
#include "core/machine/totals.h"
#include "core/plan/work.h"

namespace dotlane {

struct PlanTotals : ProgramTotals {
    int sheets = 0;
    double cost = 0;        ///< of the stock used
    Length travel_as_drawn; ///< as `travel`, with the lines of each pass in the order they were drawn
};

struct Plan {
    Program program;
    Timeline timeline;
    PlanTotals totals;
    std::vector<Reason> reasons;
    Findings findings; ///< what the wished order risks
    /// Where rules are broken: the passes (moves of the program) that run too late for one.
    std::vector<std::pair<std::size_t, Finding>> broken = {};
};

/// `options.wishes.pins` of sheets that do not run count for nothing. Errors: "plan.nothing" (no lines to
/// run), "plan.no-tool", "plan.no-slot", "cancelled".
Result<Plan> make_plan(const std::string& project, const Machine& machine, std::vector<SheetWork> sheets,
                       const PlanOptions& options, Progress& progress = no_progress());

} // namespace dotlane
