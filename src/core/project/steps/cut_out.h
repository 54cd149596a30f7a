// Takes the area of other lines out of the chosen ones, or keeps only what lies in both.
#pragma once

#include "core/project/steps/kind.h"

namespace dotlane {

struct CutOutStep {
    enum class Keep { rest, overlap };
    Keep keep = Keep::rest;
    Length margin; ///< the others are grown by this first, -100..100 mm
    bool operator==(const CutOutStep&) const = default;

    static constexpr StepRow row{.key = "cut-out",
                                 .name = "Cut out",
                                 .about = "Takes other lines' area away, or keeps only what overlaps.",
                                 .wanted = StepRow::Wanted::join,
                                 .second = StepRow::Second::wanted};
    friend void fields(CutOutStep& s, Fields& f) {
        f.one_of({"keep", "keep the"}, s.keep, {"rest", "overlap"});
        f.length({"margin", "margin", "What is cut out is grown by this first"}, s.margin, mm(-100), mm(100));
    }
    friend StepOutcome run(const CutOutStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
