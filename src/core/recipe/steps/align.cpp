#include "core/project/steps/align.h"

#include "core/recipe/moves.h"

namespace dotlane {

StepOutcome run(const AlignStep& step, const StepInput& in, Progress&) {
    const Box box = box_of(in);
    if (box.empty()) return refused(say("There are no lines to move."));
    Box target = in.part;
    if (!in.by.empty()) {
        target = {};
        for (const WorkSet* set : in.by)
            target.add(set->box());
    }
    if (target.empty() && (step.across != AlignStep::Across::leave || step.down != AlignStep::Down::leave))
        return refused(say("There is nothing else in the part to align to."));
    const auto shift = [](int way, double lo, double hi, double to_lo, double to_hi) {
        return way == 1 ? to_lo - lo : way == 2 ? (to_lo + to_hi - lo - hi) / 2 : way == 3 ? to_hi - hi : 0.0;
    };
    const Point by{
        shift(static_cast<int>(step.across), box.x0, box.x1, target.x0, target.x1) + in_mm(step.right_by),
        shift(static_cast<int>(step.down), box.y0, box.y1, target.y0, target.y1) + in_mm(step.down_by)};
    return moved(in, Affine::translation(by));
}

} // namespace dotlane
