#include "core/project/steps/lay_apart.h"

#include "core/project/pieces_text.h"
#include "core/recipe/step.h"

namespace dotlane {

StepOutcome run(const ApartStep& step, const StepInput&, Progress&) {
    // Where pieces lie is no matter of the lines: it is seen when all steps are done (arrangements.h).
    const auto groups = piece_groups(step.together);
    if (!groups) return refused(groups.error().message);
    StepOutcome out;
    out.report.apart = {*groups, step.whole};
    return out;
}

} // namespace dotlane
