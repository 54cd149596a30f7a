// What makes film easy to weed: a frame around the lines, and cuts through the waste where it is quietest.
#pragma once

#include "core/project/roles.h"
#include "core/project/steps/kind.h"

namespace dotlane {

struct WeedStep {
    Length margin = mm(5); ///< from the lines to the frame, 0..200 mm
    Length strip =
        mm(80);   ///< waste is cut into strips no wider than about this, 0: it is not cut, 0..1000 mm
    Length small; ///< pieces whose square root of area is below this are not cut, 0: all are, 0..50 mm
    Length clear = mm(0.8); ///< kept between a cut and the lines, 0.05..50 mm
    bool operator==(const WeedStep&) const = default;

    const char* role() const { return role::outline; }

    static constexpr StepRow row{.key = "weed",
                                 .name = "Weeding lines",
                                 .about = "A frame, and cuts through the waste where it is quietest.",
                                 .wanted = StepRow::Wanted::place,
                                 .makes = true,
                                 .by_role = true};
    friend void fields(WeedStep& s, Fields& f) {
        f.length({"margin", "margin", "From the lines to the frame"}, s.margin, mm(0), mm(200));
        f.length({"strip", "strips up to", "Waste is cut into strips about as wide; 0: it is not cut"},
                 s.strip, mm(0), mm(1000));
        f.length({"small",
                  "leave out under",
                  "Pieces whose square root of area is smaller are not cut; 0: all are",
                  {11, "0"}},
                 s.small, mm(0), mm(50));
        f.length({"clear", "kept clear", "Between a cut and the lines"}, s.clear, mm(0.05), mm(50));
    }
    friend StepOutcome run(const WeedStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
