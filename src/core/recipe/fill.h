// What a style of fill is given and answers; each style computes in a file of its own below fills/.
#pragma once

#include "core/base/progress.h"
#include "core/geometry/region.h"
#include "core/project/fills.h"

namespace dotlane {

struct FillInput {
    const Region& region; ///< to be filled, inset already: lines may touch its edge and never leave it
    Length spacing;       ///< between neighbouring lines, > 0
    Angle angle;          ///< of the lines, or of the pattern
    bool joined = true;   ///< ends joined along the edge, otherwise a lift after each line
    Length tip;           ///< of the tool, > 0
};

struct FillLines {
    Polylines lines;        ///< one for each run of the tool without a lift
    std::size_t rows = 0;   ///< lines of the pattern that met the region
    std::size_t pieces = 0; ///< what they are in the region before ends are joined
};

/// Ends early with what it has when cancelled.
FillLines filled(const FillStyle& style, const FillInput& in, Progress& progress);

} // namespace dotlane
