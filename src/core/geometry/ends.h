// Ends of lines that nearly meet.
#pragma once

#include "core/geometry/polyline.h"

namespace dotlane {

struct JoinedEnds {
    Polylines lines;               ///< what was joined stands where its first piece stood
    std::vector<std::size_t> from; ///< for each of them, the first of the lines it was made of
    int joined = 0;                ///< pairs of ends that were brought together
};

/// Open ends within `reach` of each other are joined, nearest pairs first, each end once: both move to the
/// middle between them. A line whose own ends are joined closes.
JoinedEnds joined_ends(const Polylines& lines, Length reach);

} // namespace dotlane
