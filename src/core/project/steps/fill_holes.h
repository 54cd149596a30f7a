// Holes of closed lines vanish.
#pragma once

#include "core/project/steps/kind.h"

namespace dotlane {

struct FillHolesStep {
    std::optional<Length> under; ///< only those whose square root of area is below this; empty: all
    bool operator==(const FillHolesStep&) const = default;

    static constexpr StepRow row{.key = "fill-holes",
                                 .name = "Fill holes",
                                 .about = "Holes of closed lines vanish.",
                                 .wanted = StepRow::Wanted::join};
    friend void fields(FillHolesStep& s, Fields& f) {
        f.maybe_length({"under", "only under", "Square root of the hole's area"}, s.under, mm(0), mm(1000),
                       "all");
    }
    friend StepOutcome run(const FillHolesStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
