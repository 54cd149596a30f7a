// Dots or rings in a lattice.
#pragma once

#include "core/project/fills/kind.h"

namespace dotlane {

struct DotsFill {
    Length size;           ///< across a ring; 0: a dot of the tip, 0..50 mm
    bool staggered = true; ///< every other row lies half a spacing aside
    bool operator==(const DotsFill&) const = default;

    static constexpr FillRow row{.key = "dots",
                                 .name = "Dots",
                                 .about = "Dots or small rings in a lattice.",
                                 .open_mm = 3,
                                 .dense = 24};
    friend void fields(DotsFill& s, Fields& f) {
        f.length({"size", "ring size", "Across; 0: a dot of the tip"}, s.size, mm(0), mm(50));
        f.flag({"staggered", "staggered", "Every other row lies half a spacing aside"}, s.staggered);
    }
    friend FillLines fill(const DotsFill& style, const FillInput& in, Progress& progress);
};

} // namespace dotlane
