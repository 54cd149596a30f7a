// Where bridges go across one opening. Internal to recipe.
#pragma once

#include "core/base/progress.h"
#include "core/geometry/region_index.h"
#include "core/recipe/bridges.h"

namespace dotlane {

/// Bridges that hold all islands of one connected opening (ring 0 bounds it, the others are the islands'
/// edges) as far as there is a way; those that hang loose all the same are told. `index`: of the opening.
/// `by_hand`: where the maker has put some.
std::vector<Bridge> bridges_across(const Region& opening, const RegionIndex& index,
                                   const BridgeWishes& wishes, const std::vector<Point>& by_hand,
                                   std::vector<Box>& loose, Progress& progress);

} // namespace dotlane
