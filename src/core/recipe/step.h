// What each kind of step does to the line sets it works on. Pure.
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
};

struct StepOutcome {
    std::vector<std::shared_ptr<WorkSet>> changed; ///< with the ids of `of`; sets that are not here stay
    std::optional<WorkSet> made;                   ///< for steps that make lines
    StepReport report;
};

/// Ends early with an unfinished outcome when cancelled.
StepOutcome run_step(const StepWhat& what, const StepInput& input, Progress& progress);

// By file: steps_fill.cpp, steps_place.cpp, steps_area.cpp, steps_line.cpp.
StepOutcome run(const FillStep& step, const StepInput& in, Progress& progress);
StepOutcome run(const ResizeStep& step, const StepInput& in, Progress& progress);
StepOutcome run(const MirrorStep& step, const StepInput& in, Progress& progress);
StepOutcome run(const TurnStep& step, const StepInput& in, Progress& progress);
StepOutcome run(const AlignStep& step, const StepInput& in, Progress& progress);
StepOutcome run(const CopiesStep& step, const StepInput& in, Progress& progress);
StepOutcome run(const DistributeStep& step, const StepInput& in, Progress& progress);
StepOutcome run(const WordsStep& step, const StepInput& in, Progress& progress);
StepOutcome run(const PartStep& step, const StepInput& in, Progress& progress);
StepOutcome run(const JoinStep& step, const StepInput& in, Progress& progress);
StepOutcome run(const OutlineStep& step, const StepInput& in, Progress& progress);
StepOutcome run(const CutOutStep& step, const StepInput& in, Progress& progress);
StepOutcome run(const FillHolesStep& step, const StepInput& in, Progress& progress);
StepOutcome run(const PiecesStep& step, const StepInput& in, Progress& progress);
StepOutcome run(const ApartStep& step, const StepInput& in, Progress& progress);
StepOutcome run(const CleanStep& step, const StepInput& in, Progress& progress);
StepOutcome run(const CornersStep& step, const StepInput& in, Progress& progress);
StepOutcome run(const DashStep& step, const StepInput& in, Progress& progress);

// Shared by the steps.
/// The area that a line bounds; empty when it bounds none.
Region area_of(const FlatLine& line);
/// One line for an area.
FlatLine line_of(const Region& area, const FlatLine& like);
/// A copy to be changed, marked as worked.
std::shared_ptr<WorkSet> copy_of(const WorkSet& set);
StepOutcome refused(std::string why);
/// Caution "pieces.none".
Finding no_piece(std::size_t number, std::size_t count);

} // namespace dotlane
