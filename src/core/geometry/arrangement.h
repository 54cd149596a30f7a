// Rings on the grid laid over one another: cut wherever they cross, touch or lie on one another, and told
// apart by how often they wind around each face between them. Takes time in proportion to points and
// crossings where a sweep looks at every edge at the height of every point. For the sources of this folder
// only.
//
// Cut by snap rounding: a crossing goes to the nearest point of the grid, and whatever passes through the
// square around a corner or a crossing is led through its middle; after that edges meet in ends only (Hobby,
// Practical segment intersection with finite precision output, 1999; Guibas, Marimont, Rounding arrangements
// dynamically, 1998). No edge moves by more than 0.71 steps of the grid.
#pragma once

#include <array>
#include <functional>
#include <optional>

#include "core/geometry/grid.h"

namespace dotlane {

/// Two lists of rings, as booleans take them; either may be empty.
using RingLists = std::array<ClipperLib::Paths, 2>;
/// How often the rings of each list wind around a place, positive for rings of positive area.
using Windings = std::array<int, 2>;

/// The outline of where `filled` says so: outer rings of positive area, holes of negative, none crossing;
/// they may touch in points. `around`: what winds around all of it. Each ring begins at its least point (by
/// X, then Y), and they are in the order of those. Coordinates below 2^31. None when there are too many
/// crossings (some millions), or when windings do not agree, which would be a fault of the cutting: then
/// another way has to be taken.
std::optional<ClipperLib::Paths> outlined(const RingLists& rings, const Windings& around,
                                          const std::function<bool(const Windings&)>& filled);

/// From how many points on this is taken rather than a sweep: below, outlines of old projects stay where they
/// begin.
inline constexpr std::size_t arranged_from = 4000;

} // namespace dotlane
