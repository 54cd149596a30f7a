// Fills that a drawing came with, as lines: they keep their lines when the part is resized, and so change
// their spacing.
#pragma once

#include "core/recipe/evaluate.h"

namespace dotlane {

struct BroughtFill {
    LineSetId set;             ///< of its lines
    std::vector<LineId> lines; ///< the fill's own
    std::vector<LineId>
        outlines; ///< closed lines that it lies in, with what is left out of them; may be empty
    Angle angle;
    Length spacing; ///< at the size that the part has now
    Box box;
    double grown = 1; ///< as a share of the size that it was drawn at; by the part's scale and by its steps
};

/// One for each line set of the drawing that no step has changed. `part`: from a file.
std::vector<BroughtFill> brought_fills(const EvaluatedPart& part, Progress& progress = no_progress());

} // namespace dotlane
