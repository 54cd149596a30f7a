// Where a region is widest. Internal to recipe.
#pragma once

#include "core/geometry/region.h"

namespace dotlane {

struct WidestPlace {
    Point at;
    Length radius; ///< of the largest disc in the region, to 0.5 %
};
/// Of a region that is not empty.
WidestPlace widest_place(const Region& region);

} // namespace dotlane
