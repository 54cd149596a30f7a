// Takes away what cannot be made or is there twice.
#pragma once

#include "core/project/steps/kind.h"

namespace dotlane {

struct CleanStep {
    Length least_size = mm(0.5); ///< pieces that are smaller across are dropped, 0..100 mm
    Length least_width;          ///< necks and slivers narrower than this are opened away, 0..20 mm
    Length simplify = mm(0.02);  ///< points that move the line by less are dropped, 0..5 mm
    Length close;                ///< open ends nearer to each other than this are joined, 0..50 mm
    bool doubled = true;         ///< lines that lie on one another are kept once
    bool operator==(const CleanStep&) const = default;

    static constexpr StepRow row{.key = "clean",
                                 .name = "Clean",
                                 .about = "Drops crumbs, slivers and doubled lines.",
                                 .wanted = StepRow::Wanted::join};
    friend void fields(CleanStep& s, Fields& f) {
        f.length({"least-size", "drop pieces under", "Square root of the piece's area"}, s.least_size, mm(0),
                 mm(100));
        f.length({"least-width", "open necks under", "Slivers and necks narrower than this are taken away"},
                 s.least_width, mm(0), mm(20));
        f.length({"simplify", "simplify by", "Points that move the line by less are dropped"}, s.simplify,
                 mm(0), mm(5));
        f.length({"close", "join ends within", "Open ends that nearly meet", {4, "0"}}, s.close, mm(0),
                 mm(50));
        f.flag({"doubled", "keep doubled lines once"}, s.doubled);
    }
    friend StepOutcome run(const CleanStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
