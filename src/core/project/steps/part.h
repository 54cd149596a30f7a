// Lines of another part, which they follow when it changes: its outline, or all that are cut of it (when none
// are, all that are run). Turned, resized and put like words.
#pragma once

#include "core/project/steps/align.h"
#include "core/project/steps/kind.h"

namespace dotlane {

struct PartStep {
    enum class Take { outline, lines };
    PartId of;
    Take take = Take::outline;
    double percent = 100; ///< 1..10,000
    Angle turn;           ///< clockwise
    AlignStep place{AlignStep::Across::middle, AlignStep::Down::middle, {}, {}};
    bool operator==(const PartStep&) const = default;

    PartId* lender() { return &of; }

    static constexpr StepRow row{.key = "part",
                                 .name = "Another part",
                                 .about = "Its outline or lines, put on this one.",
                                 .wanted = StepRow::Wanted::words,
                                 .makes = true,
                                 .brings = true};
    friend void fields(PartStep& s, Fields& f) {
        f.part({"of", "part"}, s.of);
        f.one_of({"take", "take its"}, s.take, {"outline", "lines"});
        f.percent({"percent", "size %"}, s.percent, 1, 10000);
        f.angle({"turn", "turned by", "Clockwise"}, s.turn);
        fields(s.place, f);
    }
    friend Result<SourceLines> make(const PartStep& step, const MakeInput& in);
    friend StepOutcome run(const PartStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
