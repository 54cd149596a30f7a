// Lines for writing on.
#pragma once

#include "core/project/fills/kind.h"

namespace dotlane {

struct RuledFill {
    Length left = mm(5), right = mm(5);  ///< kept free beside the lines, 0..500 mm
    Length top = mm(10), bottom = mm(5); ///< above the first line and below the last one, 0..500 mm
    double helper =
        0; ///< height of a second line over each, share of the spacing in hundredths; 0: none, 0..90
    bool operator==(const RuledFill&) const = default;

    static constexpr FillRow row{
        .key = "ruled", .name = "Ruled", .about = "Lines to write on, within margins.", .open_mm = 8};
    friend void fields(RuledFill& s, Fields& f) {
        f.length({"left", "left margin"}, s.left, mm(0), mm(500));
        f.length({"right", "right margin"}, s.right, mm(0), mm(500));
        f.length({"top", "top margin"}, s.top, mm(0), mm(500));
        f.length({"bottom", "bottom margin"}, s.bottom, mm(0), mm(500));
        f.percent({"helper", "helper line at", "Over each line, as a share of the spacing; 0: none"},
                  s.helper, 0, 90);
    }
    friend FillLines fill(const RuledFill& style, const FillInput& in, Progress& progress);
};

} // namespace dotlane
