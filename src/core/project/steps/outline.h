// Lines at a distance around (or, when negative, inside) closed lines.
#pragma once

#include "core/project/steps/kind.h"

namespace dotlane {

struct OutlineStep {
    enum class Corners { round, mitred, bevelled };
    Length distance = mm(3); ///< -500..500 mm
    int rings = 1;           ///< 1..50
    Length gap = mm(2);      ///< between rings
    Corners corners = Corners::round;
    double mitre_limit = 4;  ///< times the distance, 1..50
    bool outer_only = true;  ///< holes are filled
    Length fill_holes_under; ///< or only those narrower than this, 0: none
    bool operator==(const OutlineStep&) const = default;

    static constexpr StepRow row{.key = "outline",
                                 .name = "Outline",
                                 .about = "Lines around or inside closed lines.",
                                 .wanted = StepRow::Wanted::edge,
                                 .makes = true,
                                 .behind = true};
    friend void fields(OutlineStep& s, Fields& f) {
        f.length({"distance", "distance", "Outwards; inwards when negative"}, s.distance, mm(-500), mm(500));
        f.whole({"rings", "rings"}, s.rings, 1, 50);
        if (f.when(s.rings > 1)) f.length({"gap", "between rings"}, s.gap, mm(0.05), mm(500));
        f.one_of({"corners", "corners"}, s.corners, {"round", "mitred", "bevelled"});
        if (f.when(s.corners == OutlineStep::Corners::mitred))
            f.number({"mitre-limit", "mitre limit", "Points reach at most this many times the distance"},
                     s.mitre_limit, 1, 50);
        f.flag({"outer-only", "outer edge only", "Holes are filled"}, s.outer_only);
        if (f.when(!s.outer_only))
            f.length({"fill-holes-under", "fill holes under", "Square root of the hole's area"},
                     s.fill_holes_under, mm(0), mm(1000));
    }
    friend StepOutcome run(const OutlineStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
