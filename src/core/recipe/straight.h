// Straight open lines: folds. Internal to recipe.
#pragma once

#include "core/recipe/step.h"

namespace dotlane {

/// A straight open line and where it stands.
struct StraightLine {
    const WorkSet* set = nullptr;
    std::size_t line = 0, contour = 0;
    Point a, b;
};
/// Of lines that are straight within 0.01 mm and have a length, in their order.
std::vector<StraightLine> straight_lines(const std::vector<const WorkSet*>& sets);

} // namespace dotlane
