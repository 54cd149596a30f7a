// A sweep costs every vertex a look at every edge at its height, and Clipper walks along a long outline again
// at each of its peaks. What has many thousand points is therefore cut into tiles; each is worked on by
// itself, and the edges that they give are joined again. For the sources of this folder only.
#pragma once

#include <array>
#include <functional>
#include <optional>

#include "core/geometry/grid.h"

namespace dotlane {

/// On the grid; x0 < x1, y0 < y1.
struct GridBox {
    ClipperLib::cInt x0, y0, x1, y1;
};
GridBox bounds(const ClipperLib::Paths& paths);

/// Two lists of rings, as booleans take them; the second may be empty.
using TileRings = std::array<ClipperLib::Paths, 2>;

/// What is done in each tile: clean rings (outer ones of positive area, holes of negative) that are right
/// within the box. What it is given winds within the box, and as far as the reach around it, as the whole
/// does; further out it does not, and it may cross itself there.
using TileWork = std::function<ClipperLib::Paths(const TileRings& near, const GridBox& tile)>;

/// `reach`: how far from a point what decides about it may lie, in steps of the grid. None when the edges of
/// the tiles do not join (they do but for a fault): then the whole has to be worked on at once. Points are
/// where they would be without tiles but for a few steps of the grid near the tiles' borders.
std::optional<ClipperLib::Paths> in_tiles(const TileRings& rings, ClipperLib::cInt reach,
                                          const TileWork& work);

/// From how many points on tiles pay.
inline constexpr std::size_t tiled_from = 4000;

} // namespace dotlane
