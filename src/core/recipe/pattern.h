// What patterns share: the frame that they are drawn in, and what becomes of their lines. Internal to recipe.
#pragma once

#include "core/recipe/fill.h"
#include "core/recipe/line_cuts.h"

namespace dotlane {

/// Coordinates of a pattern: its origin where it is anchored, x along its lines.
struct Frame {
    Affine to_part;
    Box box; ///< that covers the region
};
Frame frame_of(const FillInput& in);

/// A centre in the anchor's box, and how far the region reaches from it, mm.
struct Around {
    Point centre;
    double far = 0;
};
Around around(const FillCentre& centre, const FillInput& in);

/// Lattice numbers k with from <= k * step <= to, widened by one on both sides.
struct Span {
    long first = 0, last = 0;
    long count() const { return last - first + 1; }
};
Span span_of(double from, double to, double step);

/// Lines of a pattern, in its frame, cut at the region, with their ends as wished.
FillLines woven(const Pattern& pattern, const Frame& frame, const FillInput& in, Progress& progress);
FillLines woven(std::vector<PatternLine> pattern, const Frame& frame, const FillInput& in,
                Progress& progress);
/// The same of a net.
FillLines ended(LineNet net, const FillInput& in, Progress& progress, bool alternate = true);

/// Families of straight lines `spacing` apart, turned by these angles against the pattern.
FillLines families(const std::vector<Angle>& turned, const FillInput& in, Progress& progress);

} // namespace dotlane
