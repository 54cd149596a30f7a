#include "core/geometry/nearest_edge.h"

#include <algorithm>
#include <boost/geometry.hpp>
#include <boost/geometry/geometries/point_xy.hpp>
#include <boost/geometry/geometries/segment.hpp>
#include <boost/geometry/index/rtree.hpp>
#include <vector>

namespace dotlane {
namespace {

namespace bg = boost::geometry;
using BoostPoint = bg::model::d2::point_xy<double>;
using BoostSegment = bg::model::segment<BoostPoint>;
using SegmentTree = bg::index::rtree<BoostSegment, bg::index::rstar<16>>;

std::vector<BoostSegment> segments_of(const Region& region) {
    std::vector<BoostSegment> out;
    for (const Ring& ring : region.rings)
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i], b = ring[(i + 1) % ring.size()];
            out.push_back({{a.x, a.y}, {b.x, b.y}});
        }
    return out;
}

} // namespace

struct NearestEdge::Tree {
    SegmentTree segments;
};

NearestEdge::NearestEdge(const Region& region)
    : tree_(std::make_unique<Tree>(Tree{SegmentTree(segments_of(region))})) {}

NearestEdge::~NearestEdge() = default;

Point NearestEdge::to(Point p) const {
    const auto found = tree_->segments.qbegin(bg::index::nearest(BoostPoint{p.x, p.y}, 1));
    if (found == tree_->segments.qend()) return p;
    const Point a{found->first.x(), found->first.y()}, b{found->second.x(), found->second.y()};
    const double l2 = distance2(a, b), t = l2 > 0 ? std::clamp(dot(p - a, b - a) / l2, 0.0, 1.0) : 0;
    return mix(a, b, t);
}

} // namespace dotlane
