// The plan: passes in order, tools in slots, stops with what the hands do, routes and times, and one sentence
// for each decision.
#pragma once

#include <map>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/catalog/catalog.h"
#include "core/machine/program.h"
#include "core/machine/simulator.h"

namespace dotlane {

/// The lines of one lane on one sheet.
struct LaneWork {
    Lane lane;
    std::string plate;
    const Tool* tool = nullptr;
    Polylines lines; ///< mm on the sheet
};

struct SheetWork {
    ProgramSheet sheet;
    double price = 0;
    std::string stock_name;
    std::vector<LaneWork> lanes;
};

struct PlanOptions {
    bool cut_first = false;
};

/// Why the planner did what it did.
struct Reason {
    std::string code, sentence;
    bool operator==(const Reason&) const = default;
};

struct PlanTotals {
    Duration machine, hands;
    int stops = 0, sheets = 0, passes = 0;
    double cost = 0; ///< of the stock used
    Length tool_down, travel, travel_as_drawn;
};

struct Plan {
    Program program;
    Timeline timeline;
    PlanTotals totals;
    std::vector<Reason> reasons;
};

/// Errors: "plan.nothing" (no lines to run), "plan.no-tool", "plan.no-slot", "cancelled".
Result<Plan> make_plan(const std::string& project, const Machine& machine, std::vector<SheetWork> sheets,
                       const PlanOptions& options, Progress& progress = no_progress());

} // namespace dotlane
