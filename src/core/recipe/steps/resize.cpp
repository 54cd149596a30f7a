#include "core/project/steps/resize.h"

#include "core/recipe/moves.h"

namespace dotlane {

StepOutcome run(const ResizeStep& step, const StepInput& in, Progress&) {
    const Box box = box_of(in);
    if (box.empty()) return refused(say("There are no lines to resize."));
    const double now = step.by == ResizeStep::By::width ? box.width() : box.height();
    if (step.by != ResizeStep::By::percent && now < 1e-9)
        return refused(say("The lines have no extent that way, so they cannot be given a size."));
    const double factor = step.by == ResizeStep::By::percent ? step.percent / 100 : in_mm(step.size) / now;
    StepOutcome out = moved(in, about(box.centre(), Affine::scaling(factor, factor)));
    out.report.figures = {{"width", "mm", box.width() * factor}, {"height", "mm", box.height() * factor}};
    return out;
}

} // namespace dotlane
