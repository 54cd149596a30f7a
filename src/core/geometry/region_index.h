// Many questions to one region: is a point in it, does a segment cross its boundary. Edges are kept in level
// slabs, so that a question looks at the few edges at its own height.
#pragma once

#include <vector>

#include "core/geometry/region.h"

namespace dotlane {

class RegionIndex {
  public:
    explicit RegionIndex(const Region& region);
    /// Even-odd; points on the boundary may go either way.
    bool contains(Point p) const;
    /// Whether the segment properly crosses an edge (touching is not crossing).
    bool crosses(Point a, Point b) const;
    /// Whether the line lies wholly inside: none of it leaves the region.
    bool contains(const Polyline& line) const;

  private:
    struct Edge {
        Point a, b;
    };
    std::size_t slab(double y) const;
    std::vector<Edge> edges_;
    std::vector<std::vector<std::uint32_t>> slabs_;
    double y0_ = 0, height_ = 1;
};

} // namespace dotlane
