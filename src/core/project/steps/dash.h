// Lines become dashes; open lines begin and end on one.
#pragma once

#include "core/project/steps/kind.h"

namespace dotlane {

struct DashStep {
    Length dash = mm(3),
           gap = mm(1.5); ///< wished, 0.2..200 mm; the gap is stretched so that it comes out even
    Length setback;       ///< open lines stop this far before their ends, 0..50 mm
    bool operator==(const DashStep&) const = default;

    static constexpr StepRow row{
        .key = "dash", .name = "Dash", .about = "Turns lines into dashes.", .wanted = StepRow::Wanted::fold};
    friend void fields(DashStep& s, Fields& f) {
        f.length({"dash", "dash"}, s.dash, mm(0.2), mm(200));
        f.length({"gap", "gap", "Stretched a little so that open lines begin and end on a dash"}, s.gap,
                 mm(0.2), mm(200));
        f.length({"setback", "setback", "Open lines stop this far before their ends"}, s.setback, mm(0),
                 mm(50));
    }
    friend StepOutcome run(const DashStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
