// What lies under other lines' areas is left out, so that layers lie side by side instead of on one another.
#pragma once

#include "core/project/steps/kind.h"

namespace dotlane {

struct KnockOutStep {
    enum class Mode { full, knock_out, trap };
    enum class Slivers { keep, drop, merge };
    Mode mode = Mode::trap;
    Length underlap = mm(1); ///< of trapped layers, below those above, 0.05..100 mm
    Slivers slivers = Slivers::keep;
    Length under = mm(1.5); ///< what is narrower all over is a sliver, 0.05..50 mm
    bool operator==(const KnockOutStep&) const = default;

    static constexpr StepRow row{.key = "knock-out",
                                 .name = "Knock out",
                                 .about = "What is hidden by lines above is left out, but for an underlap.",
                                 .wanted = StepRow::Wanted::join,
                                 .layers = true};
    friend void fields(KnockOutStep& s, Fields& f) {
        f.one_of({"mode", "hidden parts",
                  "Stay (full shapes), are left out, or are left out but for an underlap that hides gaps"},
                 s.mode, {"full", "knock-out", "trap"});
        if (f.when(s.mode == KnockOutStep::Mode::trap))
            f.length({"underlap", "underlap", "How far layers reach below those above"}, s.underlap, mm(0.05),
                     mm(100));
        f.one_of(
            {"slivers", "slivers", "Stay, fall away, or join the neighbour with the longest shared edge"},
            s.slivers, {"keep", "drop", "merge"});
        f.length({"sliver-under", "slivers under", "What is narrower all over"}, s.under, mm(0.05), mm(50));
    }
    friend StepOutcome run(const KnockOutStep& step, const StepInput& in, Progress& progress);
    friend bool mend(KnockOutStep& step, const Finding& finding, const InkReport* ink);
};

} // namespace dotlane
