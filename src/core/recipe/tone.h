// How dark a fill is wished to be from place to place. Internal to recipe.
#pragma once

#include "core/geometry/point.h"
#include "core/project/tone.h"

namespace dotlane {

/// Darkness from 0 (no ink) to 1 (solid) over a box, which a picture covers whole, at its own proportions.
class Tone {
  public:
    /// A picture that cannot be read is white.
    Tone(const FillTone& tone, const Box& box);
    double at(Point p) const;

  private:
    Box box_;
    double from_, to_;
    Point along_{1, 0};
    double start_ = 0, way_ = 1;
    GreyPixels pixels_;
    bool picture_;
};

} // namespace dotlane
