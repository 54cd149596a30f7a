#include "core/geometry/edge_grid.h"

namespace dotlane {

std::vector<GridEdge> edges_of(const std::vector<const Ring*>& rings) {
    std::vector<GridEdge> out;
    for (std::size_t r = 0; r < rings.size(); ++r)
        for (std::size_t i = 0; i < rings[r]->size(); ++i)
            out.push_back({(*rings[r])[i], (*rings[r])[(i + 1) % rings[r]->size()], r});
    return out;
}

std::vector<GridEdge> edges_of(const Region& region) {
    std::vector<const Ring*> rings;
    for (const Ring& ring : region.rings)
        rings.push_back(&ring);
    return edges_of(rings);
}

EdgeGrid::EdgeGrid(std::vector<GridEdge> edges)
    : edges_(std::move(edges)) {
    Box box;
    for (const GridEdge& e : edges_)
        box.add(e.a), box.add(e.b);
    if (edges_.empty()) return;
    // About as many cells as edges; a box without width has one column.
    constexpr double most = 4096;
    const double count = static_cast<double>(edges_.size()), wide = box.width(), high = box.height();
    cell_ = std::max({std::sqrt(wide * high / count), std::max(wide, high) / std::min(count, most), 1e-6});
    origin_ = {box.x0, box.y0};
    columns_ = static_cast<std::size_t>(wide / cell_) + 1, rows_ = static_cast<std::size_t>(high / cell_) + 1;
    from_.resize(columns_ * rows_ + 1);
    for (const GridEdge& e : edges_)
        each_cell(e.a, e.b, [&](std::size_t cell) { ++from_[cell + 1]; });
    for (std::size_t i = 1; i < from_.size(); ++i)
        from_[i] += from_[i - 1];
    in_cells_.resize(from_.back());
    std::vector<std::uint32_t> next(from_.begin(), from_.end() - 1);
    for (std::uint32_t i = 0; i < edges_.size(); ++i)
        each_cell(edges_[i].a, edges_[i].b, [&](std::size_t cell) { in_cells_[next[cell]++] = i; });
}

} // namespace dotlane
