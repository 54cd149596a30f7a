// Evaluates a part's recipe: source lines at finished size, what each step makes of them, and what runs in
// which lane. Pure.
#pragma once

#include <map>
#include <memory>
#include <set>

#include "core/base/finding.h"
#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/recipe/arrangements.h"
#include "core/recipe/step.h"

namespace dotlane {

/// Where a finding is, on the part; not valid for an empty box.
PlaceBox place_of(const Box& box);

/// What each step of a recipe did and was given: the next evaluation of the part goes on from it, so that a
/// change of a step costs that step and those that work on what it made.
struct RecipeChain {
    /// What a step was given: sets are shared and never changed, so the same pointer is the same set.
    struct Given {
        std::vector<std::shared_ptr<const WorkSet>> of, by, rest;
        Box part;
        Length tip;
        std::shared_ptr<const Drawing> inserted;
        bool traced = false;
        bool operator==(const Given&) const = default;
    };

    struct Link {
        Step step;
        Given given;
        std::vector<std::shared_ptr<const WorkSet>> changed;
        std::shared_ptr<const WorkSet> made; ///< may be null
        /// Lines for other lanes, by role.
        std::vector<std::pair<std::string, std::shared_ptr<const WorkSet>>> also;
        std::shared_ptr<const StepReport> report;
    };
    std::shared_ptr<const Drawing> drawing;
    double scale = 1;
    std::vector<LineSet> sets; ///< only membership counts
    std::shared_ptr<const RecipeState> base;
    std::map<StepId, std::shared_ptr<const Link>> links; ///< of the steps that are on
};

/// What a step was given, to try it with other numbers; what it brings of its own is not among it. `given`
/// must outlive it.
StepInput input_of(const RecipeChain::Given& given);

struct EvaluatedPart {
    PartId part;
    std::shared_ptr<const Drawing> drawing; ///< the source's lines: of its file, or computed
    std::vector<FlatLine>
        lines; ///< after all steps, in the order they were drawn; strokes of ink are not among them
    std::vector<RunSet> runs; ///< sets that are set aside or without a lane are not among them
    std::map<StepId, std::shared_ptr<const StepReport>> reports; ///< of all steps that are on
    std::vector<Figure> figures;                                 ///< of the source
    std::optional<Shape> face;                                   ///< of the source: SourceLines::face
    Findings findings;
    std::size_t points = 0;         ///< of all runs and lines: how heavy the part is to paint
    Box box;                        ///< of the lines that are not set aside and of all runs; finished size
    Box source_box;                 ///< of the source's lines, before any step
    double scale = 1;               ///< of the part when this was made
    std::set<LineSetId> worked;     ///< sets whose lines no longer stand for single source lines
    std::vector<Arrangement> apart; ///< when its pieces may lie apart on the sheet
    std::shared_ptr<const RecipeChain> chain; ///< null when it was cancelled
};

/// The arrangement that a placement names; null for the whole part and for a piece that is not there.
const Arrangement* arrangement(const EvaluatedPart& part, int piece);
/// The strokes of a step that inks; null when it made none that are run.
const RunSet* ink_run(const EvaluatedPart& part, StepId step);
/// What the step was given and did; null when it is off, or not there.
const RecipeChain::Link* link_of(const EvaluatedPart& part, StepId step);
/// What the step did, when it inks and is on; null otherwise.
const InkReport* ink_of(const EvaluatedPart& part, StepId step);
/// Whether there is something to lie there: the whole part, or that arrangement.
bool is_there(const EvaluatedPart& part, int piece);
/// Box of the whole part (0) or of an arrangement; empty when it is not there.
Box box_of(const EvaluatedPart& part, int piece);
/// That box, with what placements hold on to.
Extent extent_of(const EvaluatedPart& part, int piece);
/// The lines of a run in the whole part (0) or an arrangement. `run` indexes `runs`.
const Polylines& lines_of(const EvaluatedPart& part, std::size_t run, int piece);

/// Width of the mark of the tool of each lane.
using LaneTips = std::map<LaneId, Length>;

/// What evaluation needs beside the part itself.
struct RecipeInputs {
    SourceLines source;
    std::map<StepId, Result<SourceLines>> inserted; ///< lines of steps that bring their own: words
    LaneTips tips;
    bool made = false; ///< the source's lines are computed: they go to line sets by their roles
};

/// Never fails: what cannot be done becomes a finding with its place. Stops early, with what it has, when
/// cancelled. `before`: what was evaluated of the part last; null at first. Of the part's source only its
/// notes are read.
EvaluatedPart evaluate(const Part& part, const RecipeInputs& inputs, const EvaluatedPart* before = nullptr,
                       Progress& progress = no_progress());

} // namespace dotlane
