#include "core/geometry/nearest_edge.h"

#include "core/geometry/edge_tree.h"

namespace dotlane {

struct NearestEdge::Tree {
    EdgeTree edges;
};

NearestEdge::NearestEdge(const Region& region)
    : tree_(std::make_unique<Tree>(Tree{tree_of(edge_rings_of(region))})) {}

NearestEdge::~NearestEdge() = default;

Point NearestEdge::to(Point p) const {
    const auto found = tree_->edges.qbegin(bgi::nearest(to_boost(p), 1));
    return found == tree_->edges.qend() ? p : nearest_on(found->first, p);
}

} // namespace dotlane
