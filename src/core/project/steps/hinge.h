// Rows of slits by which thick stock bends along a fold line.
#pragma once

#include "core/project/roles.h"
#include "core/project/steps/kind.h"

namespace dotlane {

struct HingeStep {
    Length thickness = mm(2);  ///< of the stock, 0.1..20 mm
    Angle bend = degrees(90);  ///< by which it is bent, 5..360 degrees
    Length radius = mm(15);    ///< of the bend, 1..1000 mm
    Length slit = mm(20);      ///< 2..500 mm
    Length bridge = mm(3);     ///< between two slits of a row, 0.5..100 mm
    Length rows_apart = mm(2); ///< 0.5..50 mm
    double strain = 2;         ///< that the stock bears when it is twisted, %, 0.1..20
    bool operator==(const HingeStep&) const = default;

    const char* role() const { return role::window; }

    static constexpr StepRow row{.key = "hinge",
                                 .name = "Living hinge",
                                 .about = "Rows of slits by which thick stock bends along a fold.",
                                 .wanted = StepRow::Wanted::fold,
                                 .makes = true,
                                 .by_role = true};
    friend void fields(HingeStep& s, Fields& f) {
        f.length({"thickness", "thickness", "Of the stock"}, s.thickness, mm(0.1), mm(20));
        f.angle({"bend", "bent by"}, s.bend);
        f.length({"radius", "radius", "Of the bend"}, s.radius, mm(1), mm(1000));
        f.length({"slit", "slits"}, s.slit, mm(2), mm(500));
        f.length({"bridge", "between slits", "Of the same row"}, s.bridge, mm(0.5), mm(100));
        f.length({"rows-apart", "rows apart"}, s.rows_apart, mm(0.5), mm(50));
        f.percent({"strain", "strain %", "That the stock bears when it is twisted"}, s.strain, 0.1, 20);
    }
    friend StepOutcome run(const HingeStep& step, const StepInput& in, Progress& progress);
    friend bool mend(HingeStep& step, const Finding& finding, const InkReport* ink);
};

} // namespace dotlane
