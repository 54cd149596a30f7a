// Clockwise about the middle of the chosen lines.
#pragma once

#include "core/project/steps/kind.h"

namespace dotlane {

struct TurnStep {
    Angle by = degrees(90);
    bool operator==(const TurnStep&) const = default;

    static constexpr StepRow row{.key = "turn",
                                 .name = "Turn",
                                 .about = "By an angle, about the middle.",
                                 .wanted = StepRow::Wanted::place};
    friend void fields(TurnStep& s, Fields& f) { f.angle({"angle", "clockwise"}, s.by); }
    friend StepOutcome run(const TurnStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
