#include "core/project/steps/turn.h"

#include "core/recipe/moves.h"

namespace dotlane {

StepOutcome run(const TurnStep& step, const StepInput& in, Progress&) {
    return moved(in, about(box_of(in).centre(), Affine::rotation(in_radians(step.by))));
}

} // namespace dotlane
