#include "core/project/steps/fill_holes.h"

#include "core/recipe/areas.h"

namespace dotlane {

StepOutcome run(const FillHolesStep& step, const StepInput& in, Progress&) {
    StepOutcome out;
    std::optional<Area> under;
    if (step.under) under = square_mm(in_mm(*step.under) * in_mm(*step.under));
    int before = 0, after = 0;
    for (const WorkSet* set : in.of)
        out.changed.push_back(each_area(*set, [&](const Region& area, const FlatLine&) {
            before += hole_count(area);
            Region filled = without_holes(area, under);
            after += hole_count(filled);
            return filled;
        }));
    out.report.figures = {{"holes_before", "", static_cast<double>(before)},
                          {"holes_after", "", static_cast<double>(after)}};
    return out;
}

} // namespace dotlane
