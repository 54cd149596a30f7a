// Edges of rings cut where they meet, by snap rounding: see arrangement.h. For the sources of this folder
// only.
#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <vector>

#include "core/geometry/grid.h"

namespace dotlane {

/// Of p from the line a to b: 1 on its left (where y is up), -1 on its right, 0 on it. Exact.
int side_of(ClipperLib::IntPoint a, ClipperLib::IntPoint b, ClipperLib::IntPoint p);

struct CutEdges {
    struct Piece {
        std::uint32_t from, to; ///< nodes, never the same
        std::uint8_t kind;      ///< of the list its ring is in
    };
    std::vector<ClipperLib::IntPoint> nodes; ///< all different
    std::vector<Piece> pieces; ///< two of them share ends, or lie on one another, or do not meet
};
/// None when there are millions of crossings.
std::optional<CutEdges> cut_edges(const std::array<ClipperLib::Paths, 2>& rings);

} // namespace dotlane
