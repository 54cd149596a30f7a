// What a round tool leaves on a straight way: the discs at its ends and the sides between them. Internal to
// recipe.
#pragma once

#include "core/geometry/point.h"

namespace dotlane {

struct Interval {
    double a = 0, b = 0;
};

/// What does not depend on the height is worked out once.
struct Mark {
    Point p, q;
    double lo, hi; ///< heights that it covers, mm
    bool level = false;
    struct Side {
        double lo = 1, hi = 0, x = 0, slope = 0; ///< x at `lo`; mm to the right for each mm down
    } sides[2];

    Mark(Point from, Point to, double r);
    /// What it covers at the height y, for the radius it was made with.
    bool at(double y, double r, Interval& out) const;
};

} // namespace dotlane
