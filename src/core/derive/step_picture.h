// What a step would do, as a small picture: tried with its first numbers on lines of the part, brought to a
// size at which those numbers show.
#pragma once

#include <set>

#include "core/recipe/evaluate.h"
#include "core/sources/make.h"

namespace dotlane {

struct StepPicture {
    Polylines before; ///< mm; closed lines are those that are run as they are
    Polylines after;  ///< of what the step changes and makes
    Box box;          ///< of both
    bool own =
        false; ///< of the part itself; otherwise of a sample, for parts that take too long or cannot bear it
};

/// Of the chosen lines of a part, of all when none is chosen, as far as they have few enough points to take
/// no more than a blink; of a sample without any. Words are lettered with `fonts`. Thread safe.
StepPicture picture_of(const StepKind& kind, const EvaluatedPart* part, const std::set<LineId>& chosen,
                       FontShelf& fonts, Progress& progress = no_progress());

} // namespace dotlane
