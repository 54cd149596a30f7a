// What one part takes of another: its outline, its front, its areas.
#pragma once

#include "core/recipe/evaluate.h"
#include "core/sources/make.h"

namespace dotlane {

/// Of the lines that run in cut lanes; of all that run when none is cut. `scale`: of the part's source.
Borrowed lend(const std::map<LaneId, Action>& actions, double scale, const EvaluatedPart& evaluated);
/// Of the lines of a source alone, as they are before any step: what words on the part itself follow.
Borrowed lend(const SourceLines& source, double scale);

/// Gives a source or step that takes another part's lines, but names none, one: the wished one, or the last
/// that does not take lines of `self`. `of`: what lender_of says. Error "source.part" when there is none.
Result<void> choose_lender(const Project& project, PartId* of, PartId self, PartId wished);

} // namespace dotlane
