// What a region is near many places, each at the cost of what lies there, not of the whole.
#pragma once

#include "core/geometry/region.h"

namespace dotlane {

class Crops {
  public:
    explicit Crops(const Region& region); ///< which has to outlive it
    explicit Crops(Region&&) = delete;
    /// The region within a box, for booleans with what lies inside of it: along the box's sides rings may run
    /// there and back and on one another. (I. Sutherland, G. Hodgman, Reentrant polygon clipping, 1974: the
    /// winding within the box stays as it was.)
    Region near(const Box& box) const;

  private:
    const Region& region_;
    std::vector<Box> boxes_; ///< of the rings
};

} // namespace dotlane
