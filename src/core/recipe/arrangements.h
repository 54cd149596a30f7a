// Pieces of a part that may lie apart on their sheet, and those that keep together. Pure.
#pragma once

#include <string>
#include <vector>

#include "core/base/id.h"
#include "core/base/progress.h"
#include "core/recipe/state.h"

namespace dotlane {

/// Lines that run in one lane, from one line set.
struct RunSet {
    LaneId lane;
    LineSetId set; ///< of the source, or a step's result
    StepId step;   ///< when a step made it
    std::string name;
    Polylines lines;
    /// Of the step that inks with these strokes: they are seen as the ink they will be.
    std::shared_ptr<const InkReport> ink = nullptr;
    struct Line {
        LineId id;
        std::size_t end; ///< where the next one's contours begin among `lines`
    };
    std::vector<Line> of = {}; ///< what it was made of: a letter has several contours; empty for ink
};

/// What lies on the sheet as one: a piece with everything in it and on it, or several that keep together.
struct Arrangement {
    int number = 0; ///< of its first piece, counted from 1
    Box box;
    std::vector<Polylines> runs; ///< for each run of the part its lines in this arrangement
    std::vector<std::vector<std::uint32_t>> which = {}; ///< their indices among the run's lines
};

struct LaidApart {
    std::vector<Arrangement> arrangements; ///< by number; empty when the step was refused
    StepReport report;
};

/// Closed lines of the runs of these sets (none named: of all) bound the pieces: those that overlap, lie in
/// one another, or are crossed by the same line are one piece; and, unless it says otherwise, those of
/// one source line. A line that touches none goes with the nearest. Pieces are numbered by their left edges,
/// then their top edges. Refused without closed lines and beyond `most_pieces`.
inline constexpr std::size_t most_pieces = 2000;
LaidApart lay_apart(const StepReport::Apart& wish, const std::vector<LineSetId>& of,
                    const std::vector<RunSet>& runs, Progress& progress);

} // namespace dotlane
