// What lies under other areas. Internal to recipe.
#pragma once

#include "core/base/progress.h"
#include "core/geometry/region.h"

namespace dotlane {

/// A flat area in a pile; those with the same layer are of one colour and do not hide each other's stock.
struct Piled {
    Region area;
    std::size_t layer = 0;
};

/// Of each layer what is seen of it, of a pile with the hindmost first. Ends early when cancelled.
std::vector<Region> seen_of(const std::vector<Piled>& pile, std::size_t layers, Progress& progress);

} // namespace dotlane
