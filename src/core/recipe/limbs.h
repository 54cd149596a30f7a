// Limbs of a surface that are too narrow for the tip to stay inside. Internal to recipe.
#pragma once

#include "core/recipe/fill_ground.h"

namespace dotlane {

/// Lines that make them solid, along their middle.
Polylines limb_lines(const FillGround& ground, Length tip);

} // namespace dotlane
