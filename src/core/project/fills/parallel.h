// Straight lines side by side.
#pragma once

#include "core/project/fills/kind.h"

namespace dotlane {

struct ParallelFill {
    bool alternate = true; ///< every other line runs backwards
    bool operator==(const ParallelFill&) const = default;

    static constexpr FillRow row{.key = "parallel",
                                 .name = "Parallel",
                                 .about = "Straight lines side by side.",
                                 .rows = true,
                                 .toned = true};
    friend void fields(ParallelFill& s, Fields& f) {
        f.flag({"alternate", "to and fro", "Every other line runs backwards"}, s.alternate);
    }
    friend FillLines fill(const ParallelFill& style, const FillInput& in, Progress& progress);
};

} // namespace dotlane
