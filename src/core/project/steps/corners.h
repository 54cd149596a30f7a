// Sharp corners of lines become arcs or straight cuts.
#pragma once

#include "core/project/steps/kind.h"

namespace dotlane {

struct CornersStep {
    enum class Kind { round, chamfer };
    Kind kind = Kind::round;
    Length radius = mm(3);            ///< of the arc, or along each side, 0.05..500 mm
    Angle sharper_than = degrees(30); ///< only where the line turns by more
    bool operator==(const CornersStep&) const = default;

    static constexpr StepRow row{.key = "corners",
                                 .name = "Corners",
                                 .about = "Rounds or chamfers sharp corners.",
                                 .wanted = StepRow::Wanted::edge};
    friend void fields(CornersStep& s, Fields& f) {
        f.one_of({"kind", "corners"}, s.kind, {"round", "chamfer"});
        f.length({"radius", "radius"}, s.radius, mm(0.05), mm(500));
        f.angle({"sharper-than", "where it turns by", "Gentler corners are left alone"}, s.sharper_than);
    }
    friend StepOutcome run(const CornersStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
