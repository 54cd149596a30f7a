// Two families of straight lines.
#pragma once

#include "core/project/fills/kind.h"

namespace dotlane {

struct CrossFill {
    Angle between = degrees(90); ///< from the first family to the second
    bool operator==(const CrossFill&) const = default;

    static constexpr FillRow row{
        .key = "cross", .name = "Cross", .about = "Two families of straight lines that cross.", .rows = true};
    friend void fields(CrossFill& s, Fields& f) {
        f.angle({"between", "crossing at", "From the first lines to the second"}, s.between);
    }
    friend FillLines fill(const CrossFill& style, const FillInput& in, Progress& progress);
};

} // namespace dotlane
