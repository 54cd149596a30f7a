// Moves the chosen lines, as one, to an edge or the middle of the second choice; without one, of all the
// others.
#pragma once

#include "core/project/steps/kind.h"

namespace dotlane {

struct AlignStep {
    enum class Across { leave, left, middle, right };
    enum class Down { leave, top, middle, bottom };
    Across across = Across::middle;
    Down down = Down::middle;
    Length right_by, down_by; ///< further moved by, -2000..2000 mm
    bool operator==(const AlignStep&) const = default;

    static constexpr StepRow row{.key = "align",
                                 .name = "Align",
                                 .about = "To an edge or the middle of the rest.",
                                 .wanted = StepRow::Wanted::place,
                                 .second = StepRow::Second::possible,
                                 .places = true};
    friend void fields(AlignStep& s, Fields& f) {
        f.one_of({"across", "across"}, s.across, {"leave", "left", "middle", "right"});
        f.one_of({"down", "down"}, s.down, {"leave", "top", "middle", "bottom"});
        f.length({"right-by", "then right by"}, s.right_by, mm(-2000), mm(2000));
        f.length({"down-by", "then down by"}, s.down_by, mm(-2000), mm(2000));
    }
    friend StepOutcome run(const AlignStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
