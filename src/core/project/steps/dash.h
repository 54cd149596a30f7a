// Lines become dashes; open lines begin and end on one, or on a gap.
#pragma once

#include "core/project/steps/kind.h"

namespace dotlane {

struct DashStep {
    enum class Ends { dash, gap };
    Length dash = mm(3),
           gap = mm(1.5);   ///< wished, 0.2..200 mm; the gap is stretched so that it comes out even
    Length setback;         ///< open lines stop this far before their ends, 0..50 mm
    Ends ends = Ends::dash; ///< of open lines; perforated folds end on a gap, and no edge frays
    bool operator==(const DashStep&) const = default;

    static constexpr StepRow row{
        .key = "dash", .name = "Dash", .about = "Turns lines into dashes.", .wanted = StepRow::Wanted::fold};
    friend void fields(DashStep& s, Fields& f) {
        f.length({"dash", "dash"}, s.dash, mm(0.2), mm(200));
        f.length({"gap", "gap", "Stretched a little so that dashes come out even"}, s.gap, mm(0.2), mm(200));
        f.length({"setback", "setback", "Open lines stop this far before their ends"}, s.setback, mm(0),
                 mm(50));
        f.one_of({"ends",
                  "ends on a",
                  "Of open lines; a perforated fold that ends on a gap frays no edge",
                  {11, R"("dash")"}},
                 s.ends, {"dash", "gap"});
    }
    friend StepOutcome run(const DashStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
