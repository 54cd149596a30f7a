// How different two colours look.
#pragma once

#include "core/project/drawing.h"

namespace dotlane {

/// CIE 1976 L*a*b* under D65, two degrees: L* 0..100.
struct Lab {
    double l = 0, a = 0, b = 0;
};
/// Of an sRGB colour (IEC 61966-2-1).
Lab lab_of(Colour colour);

/// CIEDE2000 with all weights 1: below 1 hardly anyone sees a difference, from 5 on everyone does. Source: G.
/// Sharma, W. Wu, E. N. Dalal, The CIEDE2000 color-difference formula: implementation notes, supplementary
/// test data, and mathematical observations, Color Research and Application 30 (2005).
double colour_difference(const Lab& one, const Lab& other);

} // namespace dotlane
