// Areas and what can be done with them: booleans, offsets, clipping of lines. All of it runs on an integer
// grid of 1/100,000 mm through Clipper, so results are exact on that grid and never fail on near-misses.
#pragma once

#include <optional>
#include <vector>

#include "core/base/units.h"
#include "core/geometry/polyline.h"

namespace dotlane {

using Ring = std::vector<Point>;

/// A clean area: simple rings, outer ones of positive signed area, holes of negative, none crossing.
/// Only the functions below make one.
struct Region {
    std::vector<Ring> rings;
    bool operator==(const Region&) const = default;
    bool empty() const { return rings.empty(); }
};

/// Coordinates must lie within +-10,000 mm; what lies beyond is clamped there.
inline constexpr double region_limit_mm = 10000;

/// Closed polylines under a fill rule. Open ones are ignored unless `close_open`.
Region region_of(const Polylines& lines, FillRule rule, bool close_open = false);
Region region_of(const Shape& shape, Length flatness = default_flatness);

Region united(const Region& a, const Region& b);
Region united(const std::vector<Region>& all);
Region intersected(const Region& a, const Region& b);
Region subtracted(const Region& from, const Region& what);

/// `bevel`: cut straight across between the two offset edges.
enum class Corner { round, mitre, bevel };

struct OffsetOptions {
    Corner corner = Corner::round;
    double mitre_limit = 10;     ///< times the distance; >= 1
    Length flatness = mm(0.005); ///< of round corners; > 0
};
/// Positive grows, negative shrinks.
Region offset(const Region& region, Length by, const OffsetOptions& options = {});
/// Without points, spikes and tails that are no wider than 0.0001 mm, as offsets see it: whoever asks where
/// corners of an offset lie asks this region for its corners.
Region without_hairs(const Region& region);
/// The area a round tip of this width covers when it follows the lines (round joins, round ends).
Region stroked(const Polylines& lines, Length width, Length flatness = mm(0.005));

/// The parts of the lines inside (or outside) the region. A closed line that is cut becomes open pieces;
/// one wholly inside stays closed.
Polylines clipped(const Polylines& lines, const Region& by);

/// The separate pieces, each an outer ring with its holes, ordered by left edge, then top edge.
std::vector<Region> pieces(const Region& region);
/// Without its holes, or without those whose area is under `less_than`.
Region without_holes(const Region& region, std::optional<Area> less_than = {});
int hole_count(const Region& region);

Area area(const Region& region);
Length perimeter(const Region& region);
std::size_t point_count(const Region& region);
Box bounds(const Region& region);
bool contains(const Region& region, Point p);
Region transformed(const Region& region, const Affine& by);

} // namespace dotlane
