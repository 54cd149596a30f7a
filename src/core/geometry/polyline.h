// Straight-line geometry: what tools follow and what regions are bounded by.
#pragma once

#include <vector>

#include "core/base/units.h"
#include "core/geometry/path.h"
#include "core/geometry/point.h"

namespace dotlane {

/// A run of points, mm. When closed, the edge from the last point to the first is implied.
struct Polyline {
    std::vector<Point> points;
    bool closed = false;
    bool operator==(const Polyline&) const = default;
};

using Polylines = std::vector<Polyline>;

Length length(const Polyline& line);
Length length(const Polylines& lines);
/// mm from the point to the nearest place of the line; a huge number for a line without points.
double distance_to(const Polyline& line, Point p);
/// Positive when the ring runs clockwise on screen (y down).
double signed_area_mm2(const std::vector<Point>& ring);
Box bounds(const Polyline& line);
Box bounds(const Polylines& lines);
Polyline transformed(const Polyline& line, const Affine& by);
Polylines transformed(const Polylines& lines, const Affine& by);
/// Even-odd test of a point against one ring; points on the boundary may go either way.
bool ring_contains(const std::vector<Point>& ring, Point p);

/// The greatest distance between a curve and the chords that stand for it, used everywhere unless said.
inline constexpr Length default_flatness = mm(0.01);

/// Chords within `flatness` of the curve. Repeated points are dropped; a contour of one point stays (a dot).
Polyline flattened(const Contour& contour, Length flatness = default_flatness);
Polylines flattened(const Shape& shape, Length flatness = default_flatness);
/// About how many points that takes, without making them.
std::size_t flattened_size(const Shape& shape, Length flatness = default_flatness);

} // namespace dotlane
