// Dots that keep their distance (blue noise).
#pragma once

#include "core/project/fills/kind.h"

namespace dotlane {

struct StippleFill {
    int count = 0; ///< of dots; 0: as many as the spacing gives, up to 200,000
    int seed = 1;  ///< another one strews them otherwise, 0..1,000,000
    bool operator==(const StippleFill&) const = default;

    static constexpr FillRow row{.key = "stipple",
                                 .name = "Stipple",
                                 .about = "Dots strewn evenly, without a pattern.",
                                 .open_mm = 1,
                                 .dense = 40,
                                 .toned = true};
    friend void fields(StippleFill& s, Fields& f) {
        f.whole({"count", "how many", "Dots; 0: by the spacing"}, s.count, 0, 200'000);
        f.whole({"seed", "seed", "Another number strews them otherwise"}, s.seed, 0, 1'000'000);
    }
    friend FillLines fill(const StippleFill& style, const FillInput& in, Progress& progress);
};

} // namespace dotlane
