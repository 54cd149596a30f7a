// Which point of a region's edge is nearest, for many points.
#pragma once

#include "core/geometry/edge_grid.h"

namespace dotlane {

class NearestEdge {
  public:
    explicit NearestEdge(const Region& region) // not empty
        : edges_(edges_of(region)) {}
    /// On the edge, whichever side of it `p` lies on.
    Point to(Point p) const {
        Point out = p;
        edges_.each_nearest(
            p, std::numeric_limits<double>::infinity(), [](const GridEdge&) { return true; },
            [&](const GridEdge&, Point on, double) {
                out = on;
                return true;
            });
        return out;
    }

  private:
    EdgeGrid edges_;
};

} // namespace dotlane
