// A restless line, one for each piece.
#pragma once

#include "core/project/fills/kind.h"

namespace dotlane {

struct ScribbleFill {
    double wild = 60; ///< how far it strays, hundredths of the spacing, 0..200
    int seed = 1;     ///< another one strays otherwise, 0..1,000,000
    bool operator==(const ScribbleFill&) const = default;

    static constexpr FillRow row{.key = "scribble",
                                 .name = "Scribble",
                                 .about = "One restless line.",
                                 .open_mm = 1,
                                 .dense = 6,
                                 .toned = true};
    friend void fields(ScribbleFill& s, Fields& f) {
        f.percent({"wild", "strays by", "Share of the spacing"}, s.wild, 0, 200);
        f.whole({"seed", "seed", "Another number strays otherwise"}, s.seed, 0, 1'000'000);
    }
    friend FillLines fill(const ScribbleFill& style, const FillInput& in, Progress& progress);
};

} // namespace dotlane
