// Straight lines side by side, evenly apart: as fills are drawn.
#pragma once

#include <optional>

#include "core/geometry/polyline.h"

namespace dotlane {

struct Parallels {
    Angle angle;                    ///< of the lines, 0..180 degrees
    Length spacing;                 ///< between neighbours, across: the mean of those that are alike
    std::vector<std::size_t> lines; ///< that mostly run so, by index
};

/// Nothing when fewer than eight neighbours were found, or when they are not evenly apart. Lines that run to
/// and fro count by their long ways.
std::optional<Parallels> parallels_in(const std::vector<const Polyline*>& lines);

} // namespace dotlane
