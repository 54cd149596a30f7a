// The edges of rings in a tree (Boost.Geometry's R-tree), each with the ring that it is of, so that what is
// near a place, or in a line's way, is found without looking at all. For sources only: it brings Boost along.
#pragma once

#include <algorithm>
#include <boost/geometry.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <boost/geometry/geometries/segment.hpp>
#include <boost/geometry/index/rtree.hpp>
#include <vector>

#include "core/geometry/region.h"

namespace dotlane {

namespace bg = boost::geometry;
namespace bgi = boost::geometry::index;
using BoostPoint = bg::model::d2::point_xy<double>;
using BoostSegment = bg::model::segment<BoostPoint>;
using BoostBox = bg::model::box<BoostPoint>;
using RingEdge = std::pair<BoostSegment, std::size_t>; ///< with the ring it belongs to
using EdgeTree = bgi::rtree<RingEdge, bgi::rstar<8>>;

inline BoostPoint to_boost(Point p) {
    return {p.x, p.y};
}

/// All that is within `reach` of a place, and the corners of the square around.
inline BoostBox around(Point p, double reach) {
    return {{p.x - reach, p.y - reach}, {p.x + reach, p.y + reach}};
}

inline Point nearest_on(const BoostSegment& s, Point p) {
    const Point a{s.first.x(), s.first.y()}, d{s.second.x() - a.x, s.second.y() - a.y};
    const double square = dot(d, d);
    const double t = square > 0 ? std::clamp(dot(p - a, d) / square, 0.0, 1.0) : 0;
    return a + d * t;
}

inline EdgeTree tree_of(const std::vector<const Ring*>& rings) {
    std::vector<RingEdge> edges;
    for (std::size_t r = 0; r < rings.size(); ++r)
        for (std::size_t i = 0; i < rings[r]->size(); ++i)
            edges.emplace_back(
                BoostSegment(to_boost((*rings[r])[i]), to_boost((*rings[r])[(i + 1) % rings[r]->size()])), r);
    return EdgeTree(edges);
}

inline std::vector<const Ring*> edge_rings_of(const Region& region) {
    std::vector<const Ring*> out;
    for (const Ring& ring : region.rings)
        out.push_back(&ring);
    return out;
}

} // namespace dotlane
