// A layer below the lines that shows as a rim around them, in one piece where it can be.
#pragma once

#include "core/project/steps/kind.h"

namespace dotlane {

struct BackingStep {
    Length distance = mm(3); ///< of the rim, 0..200 mm
    Length smooth = mm(1);   ///< no bay and no point of the rim is rounder than this, 0: as it is, 0..50 mm
    bool all_holes = true;   ///< filled
    Length holes_under = mm(5); ///< or only those whose area is below this squared, 0..1000 mm
    Length reach = mm(10);      ///< pieces that are nearer than this are tied, 0: none, 0..500 mm
    Length tie = mm(4);         ///< width of what ties them, 0.1..100 mm
    bool operator==(const BackingStep&) const = default;

    static constexpr StepRow row{.key = "backing",
                                 .name = "Backing",
                                 .about = "A layer below that shows as a smooth rim, in one piece.",
                                 .wanted = StepRow::Wanted::edge,
                                 .makes = true,
                                 .behind = true};
    friend void fields(BackingStep& s, Fields& f) {
        f.length({"distance", "rim"}, s.distance, mm(0), mm(200));
        f.length({"smooth", "smoothed to", "Least radius of bays and points; 0: as it is"}, s.smooth, mm(0),
                 mm(50));
        f.flag({"all-holes", "no holes"}, s.all_holes);
        if (f.when(!s.all_holes))
            f.length({"holes-under", "fill holes under", "Square root of the hole's area"}, s.holes_under,
                     mm(0), mm(1000));
        f.length({"reach", "tie up to", "Pieces that are nearer become one; 0: none"}, s.reach, mm(0),
                 mm(500));
        if (f.when(in_mm(s.reach) > 0)) f.length({"tie-width", "width of ties"}, s.tie, mm(0.1), mm(100));
    }
    friend StepOutcome run(const BackingStep& step, const StepInput& in, Progress& progress);
    friend bool mend(BackingStep& step, const Finding& finding, const InkReport* ink);
};

} // namespace dotlane
