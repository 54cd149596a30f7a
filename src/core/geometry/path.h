// Curves as they are drawn: contours of straight and cubic segments. Quadratics and elliptical arcs are
// turned into cubics on the way in.
#pragma once

#include <cstdint>
#include <vector>

#include "core/geometry/point.h"

namespace dotlane {

enum class FillRule { nonzero, evenodd };

struct Segment {
    Point c1, c2; ///< control points; unused when straight
    Point to;
    bool curved = false;
    bool operator==(const Segment&) const = default;
};

/// One run of the tool: a start point and what follows. A closed contour returns to `start`; its closing
/// edge is implied and never stored.
struct Contour {
    Point start;
    std::vector<Segment> segments;
    bool closed = false;
    bool operator==(const Contour&) const = default;

    void line_to(Point to) { segments.push_back({{}, {}, to, false}); }
    void cubic_to(Point c1, Point c2, Point to) { segments.push_back({c1, c2, to, true}); }
    /// Exact degree elevation.
    void quad_to(Point control, Point to);
    /// On from the end along centre + major cos t + minor sin t, t in radians from `from`, over `sweep`
    /// (negative: the other way): one cubic for each eighth of a turn, within 5 millionths of the radius (a
    /// quarter would be off by 0.03 %, which shows on large arcs; Goldapp 1991). The end of the contour must
    /// stand where the arc begins.
    void arc_about(Point centre, Point major, Point minor, double from, double sweep);
    /// SVG's endpoint arc (SVG 1.1 implementation notes F.6); radii in mm, angle in degrees; ends exactly at
    /// `to`.
    void arc_to(double rx, double ry, double x_axis_degrees, bool large, bool sweep, Point to);
    Point end() const { return segments.empty() ? start : segments.back().to; }
};

/// What belongs together under one fill rule: a letter with its counters, a figure with its holes.
struct Shape {
    std::vector<Contour> contours;
    FillRule rule = FillRule::nonzero;
    bool operator==(const Shape&) const = default;
};

Contour rectangle(const Box& box);
/// Rounded corners, radii in mm clamped to half the side.
Contour rounded_rectangle(const Box& box, double rx, double ry);
Contour ellipse(Point centre, double rx, double ry);

Contour transformed(Contour contour, const Affine& by);
Shape transformed(Shape shape, const Affine& by);
/// Tight for straight segments; for cubics the true extremes, not the control hull.
Box bounds(const Contour& contour);
Box bounds(const Shape& shape);
std::size_t segment_count(const Shape& shape);

} // namespace dotlane
