// Two plans of one job side by side, and why a stop or a pass stands where it does.
#pragma once

#include "core/plan/plan.h"

namespace dotlane {

/// One figure of both.
struct Compared {
    std::string key; ///< "hands_s": for scripts
    Phrase what;
    double first = 0, second = 0;
    Phrase first_said, second_said;
    /// Below 0: the first is better, above 0: the second; less is better in all.
    int better() const { return first < second - 1e-6 ? -1 : second < first - 1e-6 ? 1 : 0; }
};
std::vector<Compared> compared(const Plan& first, const Plan& second);

/// In words: what brings a stop about and what it costs; what a pass must follow. Where the order could be
/// another one, what the next best costs of the hands' time more: those are planned again, which can take as
/// long as the plan itself did, some ten times. `works`: of the plan.
Result<std::vector<Phrase>> why_move(const Plan& plan, const std::vector<SheetWork>& works,
                                     const Machine& machine, const PlanOptions& options, std::size_t move,
                                     Progress& progress = no_progress());

} // namespace dotlane
