// What a step is given and answers; each kind computes in a file of its own below steps/. Pure.
#pragma once

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/recipe/state.h"

namespace dotlane {

struct StepInput {
    std::vector<const WorkSet*> of, by; ///< `of`: all sets when the step names none
    Box part;   ///< of all sets that the step does not work on; for steps that place lines
    Length tip; ///< of the lane that receives what is made
    const Result<SourceLines>* inserted = nullptr; ///< the lines of words or of another part
    std::vector<const WorkSet*> rest = {};         ///< all other sets, for steps that look around
    bool traced = false; ///< `of` are lines traced from a picture, where they were traced
};

struct MadeLines {
    const char* role; ///< one of the step's `roles`
    std::vector<FlatLine> lines;
};

struct StepOutcome {
    std::vector<std::shared_ptr<WorkSet>> changed; ///< with the ids of `of`; sets that are not here stay
    std::optional<WorkSet> made;                   ///< for steps that make lines
    std::vector<MadeLines> also;                   ///< lines for lanes beside its own
    StepReport report;
};

/// Ends early with an unfinished outcome when cancelled.
StepOutcome run_step(const StepWhat& what, const StepInput& input, Progress& progress);

// Shared by the steps.
/// The area that a line bounds; empty when it bounds none.
Region area_of(const FlatLine& line);
/// One line for an area.
FlatLine line_of(const Region& area, const FlatLine& like);
/// A copy to be changed, marked as worked.
std::shared_ptr<WorkSet> copy_of(const WorkSet& set);
StepOutcome refused(Phrase why);
/// Lines that have nothing left are dropped, boxes are those of the contours again.
void settle(WorkSet& set);
/// Caution "pieces.none".
Finding no_piece(std::size_t number, std::size_t count);

} // namespace dotlane
