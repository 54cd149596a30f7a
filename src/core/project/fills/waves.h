// Sine waves side by side.
#pragma once

#include "core/project/fills/kind.h"

namespace dotlane {

struct WavesFill {
    Length length = mm(8); ///< from crest to crest, 0.2..500 mm
    Length height = mm(2); ///< from trough to crest, 0..200 mm
    bool operator==(const WavesFill&) const = default;

    static constexpr FillRow row{
        .key = "waves", .name = "Waves", .about = "Rows of waves.", .open_mm = 2, .dense = 8};
    friend void fields(WavesFill& s, Fields& f) {
        f.length({"length", "wave length", "From crest to crest"}, s.length, mm(0.2), mm(500));
        f.length({"height", "wave height", "From trough to crest"}, s.height, mm(0), mm(200));
    }
    friend FillLines fill(const WavesFill& style, const FillInput& in, Progress& progress);
};

} // namespace dotlane
