// Lines that follow the edge.
#pragma once

#include "core/project/fills/kind.h"

namespace dotlane {

struct ContourFill {
    bool inwards = true; ///< the edge first
    bool operator==(const ContourFill&) const = default;

    static constexpr FillRow row{.key = "contour",
                                 .name = "Contour",
                                 .about = "Lines that follow the edge, one inside the other.",
                                 .dense = 2,
                                 .toned = true};
    friend void fields(ContourFill& s, Fields& f) {
        f.flag({"inwards", "edge first", "From the edge to the middle"}, s.inwards);
    }
    friend FillLines fill(const ContourFill& style, const FillInput& in, Progress& progress);
};

} // namespace dotlane
