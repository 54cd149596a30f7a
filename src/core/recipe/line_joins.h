// Ends of a fill's lines joined along the region's edge. Internal to recipe.
//
// General: from each end of a line a run goes on along the edge to a neighbouring line that is still free, as
// long as there is one. Where a run would end, it is linked to the nearest other one along the same ring, if
// that is within `reach`: over ink that is there or along the edge, instead of a lift. Joins follow the
// rings, so they never leave the region or bridge a hole.
#pragma once

#include "core/base/units.h"
#include "core/recipe/line_net.h"

namespace dotlane {

/// One for each run of the tool without a lift. `reach`: longest way along the edge that is gone instead of a
/// lift.
Polylines joined(const LineNet& net, Length reach = mm(10));

} // namespace dotlane
