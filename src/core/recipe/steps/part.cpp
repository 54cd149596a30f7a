#include "core/project/steps/part.h"

#include "core/recipe/brought.h"

namespace dotlane {

StepOutcome run(const PartStep& step, const StepInput& in, Progress&) {
    if (!in.inserted) return refused(say("The other part has not been made."));
    if (!*in.inserted) return refused(in.inserted->error().message);
    return put(in, step.turn, step.place, false);
}

} // namespace dotlane
