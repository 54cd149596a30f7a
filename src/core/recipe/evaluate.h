// Evaluates a part's recipe: source lines at finished size, gathered by lane, and what the steps made.
// Pure; `RecipeCache` only saves work.
#pragma once

#include <map>
#include <memory>
#include <mutex>

#include "core/base/finding.h"
#include "core/base/progress.h"
#include "core/geometry/region.h"
#include "core/project/project.h"
#include "core/recipe/coverage.h"

namespace dotlane {

/// A source line at finished size.
struct FlatLine {
    LineId id;
    LineSetId set;
    FillRule rule = FillRule::nonzero;
    bool filled = false; ///< by its file: open contours bound an area too
    Polylines contours;
    Box box;
};

/// Lines that run in one lane, from one line set or one step.
struct RunSet {
    LaneId lane;
    LineSetId set; ///< when it comes from a line set
    StepId step;   ///< when a step made it
    std::string name;
    Polylines lines;
};

/// What a fill did: the figures that stand on its card.
struct FillReport {
    std::size_t rows = 0, runs = 0, pieces = 0, lifts = 0;
    Length length, inset, tip;
    Coverage coverage;
    int open_lines = 0;  ///< lines of its sets that are not closed, left unfilled
    int too_thin = 0;    ///< closed lines nothing could be filled in at this inset
    std::string refused; ///< why the step could not work; empty when it did
};

struct EvaluatedPart {
    PartId part;
    std::vector<FlatLine> lines; ///< in the order they were drawn
    std::vector<RunSet> runs;    ///< sets that are set aside or without a lane are not among them
    std::map<StepId, FillReport> fills;
    Findings findings;
    std::size_t points = 0; ///< of all runs and lines: how heavy the part is to paint
    Box box;                ///< of the source lines that are not set aside and of all runs; finished size
    Box source_box;
};

/// Width of the mark of the tool of each lane.
using LaneTips = std::map<LaneId, Length>;

/// Results of single steps, found again by equal inputs. Thread safe.
class RecipeCache {
  public:
    struct Fill {
        FillStep step;
        std::shared_ptr<const Drawing> drawing;
        double scale = 1;
        std::vector<std::vector<LineId>> lines;
        Length tip;
        FillReport report;
        std::shared_ptr<const Polylines> result;
    };
    std::shared_ptr<const Fill> find(StepId id, const Fill& inputs) const;
    void store(StepId id, std::shared_ptr<const Fill> fill);

  private:
    mutable std::mutex guard_;
    std::map<StepId, std::shared_ptr<const Fill>> fills_;
};

/// Never fails: what cannot be done becomes a finding with its place. Stops early, with what it has, when
/// cancelled.
EvaluatedPart evaluate(const Part& part, const LaneTips& tips, RecipeCache& cache,
                       Progress& progress = no_progress());

} // namespace dotlane
