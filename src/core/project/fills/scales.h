// Overlapping round scales; the spacing is the width of one.
#pragma once

#include "core/project/fills/kind.h"

namespace dotlane {

struct ScalesFill {

    bool operator==(const ScalesFill&) const = default;

    static constexpr FillRow row{.key = "scales",
                                 .name = "Scales",
                                 .about = "Rows of round scales that overlap.",
                                 .open_mm = 5,
                                 .dense = 60};
    friend void fields(ScalesFill&, Fields&) {}
    friend FillLines fill(const ScalesFill& style, const FillInput& in, Progress& progress);
};

} // namespace dotlane
