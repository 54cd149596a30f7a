// The strips of material between openings, and to the sheet's edge. Internal to recipe.
#pragma once

#include "core/base/progress.h"
#include "core/geometry/region.h"

namespace dotlane {

struct Web {
    Point a, b; ///< where two openings, or an opening and the sheet's edge, come nearest
    Length width;
};
/// Between different openings, and to the edge of `sheet` (when it is valid): all places narrower than
/// `least`, of each pair of edges the narrowest, and in front the narrowest of all, however wide.
std::vector<Web> webs(const Region& openings, const Box& sheet, Length least, Progress& progress);

/// The openings, smaller just where a strip of material between them or to the sheet's edge is narrower. An
/// empty sheet: strips between openings alone.
Region widened(const Region& openings, const Box& sheet, Length least, Progress& progress);

} // namespace dotlane
