// Makes a surface of closed lines out of strokes: the style decides how they run, the rest is the same for
// all.
#pragma once

#include "core/project/fills.h"
#include "core/project/steps/kind.h"

namespace dotlane {

struct FillStep {
    FillStyle style;
    Length spacing = mm(0.4);    ///< between neighbouring lines, 0.05..50 mm
    Angle angle = degrees(35);   ///< of the lines, any
    std::optional<Length> inset; ///< from the edge, 0..100 mm; empty: half the tip of the lane's tool
    bool joined = true;          ///< ends joined along the edge, otherwise a lift after each line
    bool operator==(const FillStep&) const = default;

    /// Lines overlap by 15 %: within the 10 to 20 % that is common practice for a solid look.
    void suit(Length tip) { spacing = std::clamp(tip * 0.85, mm(0.05), mm(50)); }

    static constexpr StepRow row{.key = "fill",
                                 .name = "Fill",
                                 .about = "A surface of closed lines, made out of strokes.",
                                 .wanted = StepRow::Wanted::fill,
                                 .makes = true,
                                 .inks = true};
    friend void fields(FillStep& s, Fields& f) {
        choose(s.style, f);
        f.length({"spacing", "spacing", "Between neighbouring lines"}, s.spacing, mm(0.05), mm(50));
        f.angle({"angle", "angle", "Of the lines"}, s.angle);
        f.maybe_length({"inset", "inset", "From the edge"}, s.inset, mm(0), mm(100), "half tip");
        f.flag({"joined", "join ends", "Ends of neighbouring lines are joined along the edge"}, s.joined);
        fields(s.style, f);
    }
    friend StepOutcome run(const FillStep& step, const StepInput& in, Progress& progress);
    friend bool mend(FillStep& step, const Finding& finding, const InkReport* ink);
};

} // namespace dotlane
