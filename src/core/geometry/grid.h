// The integer grid that areas are computed on. For the sources of this folder only.
#pragma once

#include <clipper.hpp>

#include "core/geometry/region.h"

namespace dotlane {

inline constexpr double grid_per_mm = 1e5; ///< 10 m is 1e9, below Clipper's limit for plain 64-bit products

/// Clipper sweeps downwards and looks at every edge at the height of every point: what is wider than high is
/// laid on its side for it (x and y change places, and rings run backwards so that they wind as they did).
enum class Lay { upright, sideways };
inline Lay lay_for(const Box& box) {
    return box.width() > box.height() ? Lay::sideways : Lay::upright;
}

/// Without points that fall on the one before.
ClipperLib::Path to_grid(const std::vector<Point>& points, Lay lay = Lay::upright);
std::vector<Point> from_grid(const ClipperLib::Path& path, Lay lay = Lay::upright);
/// Without points and tails that are no wider than 0.0001 mm: a tail is what a ring runs out and back along,
/// as roundings of booleans leave it; the blade would follow it. (Clipper's own CleanPolygons takes points
/// off fine curves as well, one after another, each within the hair of the last two.)
ClipperLib::Path without_tails(const ClipperLib::Path& ring);
/// Adds the rings without their tails; one that reaches out of a box, if the box is not empty, is left out: a
/// frame.
void add_from_grid(const ClipperLib::Paths& paths, Lay lay, Region& to, const Box& frame = {});
ClipperLib::Paths paths_of(const Region& region, Lay lay = Lay::upright);
/// A ring of positive area, `room` mm around a box.
Ring frame_around(const Box& box, double room);
/// The area around which rings wind more often forwards than backwards.
Region wound(const std::vector<Ring>& rings);

} // namespace dotlane
