// What steps that move lines without changing their shape share.
#pragma once

#include "core/recipe/step.h"

namespace dotlane {

/// Of all sets that the step works on.
Box box_of(const StepInput& in);
void move(FlatLine& line, const Affine& by);
void move(WorkSet& set, const Affine& by);
/// All sets moved as one; their lines still stand for single source lines.
StepOutcome moved(const StepInput& in, const Affine& by);
/// The map with this point as its origin.
Affine about(Point middle, const Affine& by);

} // namespace dotlane
