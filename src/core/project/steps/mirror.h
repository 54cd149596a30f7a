// About the middle of the chosen lines.
#pragma once

#include "core/project/steps/kind.h"

namespace dotlane {

struct MirrorStep {
    enum class Way { left_right, top_bottom };
    Way way = Way::left_right;
    bool operator==(const MirrorStep&) const = default;

    static constexpr StepRow row{.key = "mirror",
                                 .name = "Mirror",
                                 .about = "Left to right or top to bottom.",
                                 .wanted = StepRow::Wanted::place};
    friend void fields(MirrorStep& s, Fields& f) {
        f.one_of({"way", "mirrored"}, s.way, {"left-right", "top-bottom"});
    }
    friend StepOutcome run(const MirrorStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
