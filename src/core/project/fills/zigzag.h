// Slanted lines that meet at the edge.
#pragma once

#include "core/project/fills/kind.h"

namespace dotlane {

struct ZigzagFill {

    bool operator==(const ZigzagFill&) const = default;

    static constexpr FillRow row{.key = "zigzag",
                                 .name = "Zigzag",
                                 .about = "One slanted line after another, from edge to edge without a stop.",
                                 .rows = true};
    friend void fields(ZigzagFill&, Fields&) {}
    friend FillLines fill(const ZigzagFill& style, const FillInput& in, Progress& progress);
};

} // namespace dotlane
