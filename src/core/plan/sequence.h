// In which order the sheets of a job, and the passes on each, take the least of the hands' time, and which
// tool sits in which slot meanwhile.
//
// Every sheet is run whole; its passes keep the rules between them. Between two stops runs a *stretch*:
// passes over one sheet whose tools are seated together. What is weighed: the hands' time, then stops, then
// how far the order is from the usual one. A tool is put in no earlier than it is needed: stretches begin
// with a stop in any case, so that costs nothing (Tang and Denardo 1988, whose rule for what leaves a slot is
// not used: all that may leave is tried).
//
// Method: on a sheet, dynamic programming over the passes that have run and what the slots hold; over the
// job, the same over the sheets that have run. Exact, and said to be (`proven`), for up to `exact_sheets`
// sheets with up to `exact_passes` passes each. Beyond, the most promising states of as many sheets go on,
// and of more passes those in the usual order; `least` bounds from below what any order takes
// (order_walks.h), and what takes no more than that is proven too.
#pragma once

#include <cstdint>
#include <functional>
#include <vector>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/plan/effort.h"

namespace dotlane {

inline constexpr std::size_t exact_sheets = 12, exact_passes = 8;

struct JobPass {
    int tool = 0;            ///< 0..246, index into `Job::fits`
    int lane = 0;            ///< 0..31: the same on all sheets on which it runs
    std::uint32_t after = 0; ///< passes of its sheet that must have run before, a bit each; earlier ones only
};

struct JobSheet {
    std::vector<JobPass> passes; ///< in the usual order, 1..32
    /// Seconds of hands around a stretch of these passes, a bit each, tools put in not counted; below 0:
    /// they cannot be run in one go.
    std::function<double(std::uint32_t)> hands;
    int place = 0; ///< it runs as the so-manieth, from 1; 0: as is best
};

struct Job {
    std::vector<JobSheet> sheets;
    std::vector<std::vector<bool>> fits; ///< each tool into each of 1..4 slots
    double swap = 0;                     ///< seconds for a tool put in
    double reload = 0;                   ///< seconds for a sheet that goes out and in once more
};

struct Stretch {
    std::size_t sheet = 0;
    std::vector<std::size_t> passes; ///< in running order
    std::vector<int> holds;          ///< tool in each slot, -1: none
};

struct Sequence {
    std::vector<Stretch> stretches;
    double hands = 0;    ///< seconds: of all stretches, and of all tools put in
    double least = 0;    ///< no order takes fewer seconds
    int stops = 0;       ///< one before each stretch
    bool proven = false; ///< no order takes fewer seconds than this one
};

/// Errors: "plan.no-slot" (a tool fits nowhere), "plan.places" (two sheets in one place), "cancelled".
Result<Sequence> least_hands(const Job& job, Progress& progress, Effort effort = Effort::best);

/// The other school: lanes are run over all their sheets before those that follow; which together, and in
/// which order, by the same method with the job as one sheet. Sheets go out and in, the last of a seating
/// first in the next one where it runs in both. `JobPass::lane` must number all lanes so that earlier ones
/// have lower numbers where one must run before another. Never `proven`. Errors as above.
Result<Sequence> tools_through(const Job& job, Progress& progress);

} // namespace dotlane
