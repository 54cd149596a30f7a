// Which point of a region's edge is nearest, for many points: a tree of its segments (Boost.Geometry's
// R-tree), so that a question does not look at every edge.
#pragma once

#include <memory>

#include "core/geometry/region.h"

namespace dotlane {

class NearestEdge {
  public:
    explicit NearestEdge(const Region& region); ///< not empty
    ~NearestEdge();
    NearestEdge(const NearestEdge&) = delete;
    NearestEdge& operator=(const NearestEdge&) = delete;
    /// On the edge, whichever side of it `p` lies on.
    Point to(Point p) const;

  private:
    struct Tree;
    std::unique_ptr<Tree> tree_;
};

} // namespace dotlane
