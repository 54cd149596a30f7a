// Closed lines that overlap become one outline.
#pragma once

#include "core/project/steps/kind.h"

namespace dotlane {

struct JoinStep {
    bool fill_overlaps = true; ///< what two lines both cover is kept
    bool operator==(const JoinStep&) const = default;

    static constexpr StepRow row{.key = "join",
                                 .name = "Join",
                                 .about = "Closed lines that overlap become one.",
                                 .wanted = StepRow::Wanted::join,
                                 .one_lane = true};
    friend void fields(JoinStep& s, Fields& f) {
        f.flag(
            {"fill-overlaps", "keep overlaps filled", "Otherwise what two lines both cover becomes a hole"},
            s.fill_overlaps);
    }
    friend StepOutcome run(const JoinStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
