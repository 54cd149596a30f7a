// What a fill works on, whatever its angle and its style: the surface, inset. Internal to recipe.
#pragma once

#include "core/recipe/fill.h"
#include "core/recipe/surface.h"

namespace dotlane {

struct FillGround {
    Surface surface;
    Region inner; ///< the surface, inset
    Length inset;
    Box anchor;               ///< see FillInput
    std::optional<Tone> tone; ///< of fills that are lighter and darker
    Region inked; ///< of those: what the tip reaches from `inner`, which is to be as dark as wished
};
FillGround ground_of(const FillStep& step, const StepInput& in);

/// For the lines on it; both must outlive what is given.
FillInput input_on(const FillGround& ground, const FillStep& step, Length tip);

/// Segments that the fill would have, about.
double expected_segments(const FillStep& step, const FillGround& ground, Length tip);

} // namespace dotlane
