#include "core/recipe/fill_ground.h"

namespace dotlane {

FillGround ground_of(const FillStep& step, const StepInput& in) {
    FillGround out;
    out.surface = surface_of(step, in);
    out.inset = step.inset.value_or(in.tip / 2);
    out.inner = offset(out.surface.whole, -out.inset);
    out.anchor = out.surface.box;
    if (step.phase == FillPhase::corner) out.anchor.add(in.part);
    if (step.toned()) {
        out.tone.emplace(step.tone, out.surface.box);
        out.inked = out.inset > in.tip / 2 ? offset(out.inner, in.tip / 2) : out.surface.whole;
    }
    return out;
}

FillInput input_on(const FillGround& ground, const FillStep& step, Length tip) {
    return {ground.inner,  step.spaced(tip),
            step.angle,    step.ends,
            tip,           step.phase,
            ground.anchor, ground.tone ? &ground.inked : &ground.surface.whole,
            step.least,    ground.tone ? &*ground.tone : nullptr};
}

double expected_segments(const FillStep& step, const FillGround& ground, Length tip) {
    const double s = in_mm(step.spaced(tip)), size = in_square_mm(area(ground.inner));
    // Stretches and dots of a tone are about as long and as far apart as the tip is wide.
    if (step.toned()) return step.repeats * size / (in_mm(tip) * std::min(s, in_mm(tip)));
    return step.repeats * (in_mm(perimeter(ground.inner)) / s + kind_of(step.style).dense * size / (s * s));
}

} // namespace dotlane
