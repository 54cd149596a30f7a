#include "core/project/steps/mirror.h"

#include "core/recipe/moves.h"

namespace dotlane {

StepOutcome run(const MirrorStep& step, const StepInput& in, Progress&) {
    const bool across = step.way == MirrorStep::Way::left_right;
    return moved(in, about(box_of(in).centre(), Affine::scaling(across ? -1 : 1, across ? 1 : -1)));
}

} // namespace dotlane
