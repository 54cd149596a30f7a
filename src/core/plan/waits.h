// What must be run before what: an outline that parts material comes after everything inside it.
#pragma once

#include <vector>

#include "core/geometry/polyline.h"

namespace dotlane {

/// For each line the smallest closed line that must wait for it, or -1. Following these upwards meets every
/// closed line around the line. Where outlines overlap, a line may lie in two that do not lie in one another:
/// then the smaller of them is made to come before the larger as well, so that one chain of waiting holds for
/// all. Waiting always goes from smaller to larger, hence never round in a circle.
std::vector<int> waits_for(const Polylines& lines);

} // namespace dotlane
