// The first state of a recipe: the source's lines, flattened at finished size and sorted into their line
// sets.
#pragma once

#include "core/recipe/state.h"

namespace dotlane {

/// `made`: lines of a computed source go to the set of their role. Those of no set go to one without an id.
std::shared_ptr<const RecipeState> flatten_source(const Part& part, const Drawing& drawing, bool made);

} // namespace dotlane
