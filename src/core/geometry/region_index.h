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
    /// How many edges it properly crosses.
    std::size_t crossings(Point a, Point b) const;
    /// Whether the line lies wholly inside: none of it leaves the region.
    bool contains(const Polyline& line) const;

  private:
    struct Edge {
        Point a, b;
    };
    struct Slab {
        const Edge *first, *last;
        const Edge* begin() const { return first; }
        const Edge* end() const { return last; }
    };
    std::size_t at(double y) const;
    Slab slab(std::size_t i) const;
    template<class Met>
    void each_crossed(Point a, Point b, Met met) const;
    std::vector<std::uint32_t> from_; ///< where each slab begins in `edges_`, and where the last one ends
    std::vector<Edge> edges_;         ///< slab after slab: an edge stands in each that it is in
    double y0_ = 0, height_ = 1;
};

} // namespace dotlane
