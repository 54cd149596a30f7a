// The edges of rings in the cells of a grid, each with the ring that it is of, so that what is near a place,
// or in a line's way, is found without looking at all. (A tree of boxes answers the same questions in some
// times the time: where an opening has hundreds of islands, what is asked of it is what bridges cost.)
#pragma once

#include <algorithm>
#include <cmath>
#include <limits>
#include <queue>
#include <utility>
#include <vector>

#include "core/geometry/region.h"

namespace dotlane {

struct GridEdge {
    Point a, b;
    std::size_t of = 0; ///< which ring, or whatever the edges are of
    Point nearest_to(Point p) const {
        const Point d = b - a;
        const double square = dot(d, d);
        return a + d * (square > 0 ? std::clamp(dot(p - a, d) / square, 0.0, 1.0) : 0.0);
    }
};

std::vector<GridEdge> edges_of(const std::vector<const Ring*>& rings);
std::vector<GridEdge> edges_of(const Region& region);

class EdgeGrid {
  public:
    EdgeGrid() = default;
    explicit EdgeGrid(std::vector<GridEdge> edges);

    /// Nearest first (of equals, the one that was given first) and no farther than `within`, mm, those that
    /// are `wanted(edge)`, until `met(edge, point on it, distance)` says that it is enough.
    template<class Wanted, class Met>
    void each_nearest(Point p, double within, Wanted wanted, Met met) const;
    /// Every edge that may come near a segment, or meet a box, some more than once.
    template<class Met>
    void each_along(Point a, Point b, Met met) const {
        each_cell(a, b, [&](std::size_t cell) { visit(cell, met); });
    }
    template<class Met>
    void each_near(const Box& box, Met met) const {
        if (edges_.empty()) return;
        for (std::size_t y = row(box.y0); y <= row(box.y1); ++y)
            for (std::size_t x = column(box.x0); x <= column(box.x1); ++x)
                visit(y * columns_ + x, met);
    }
    /// Whether the segment properly crosses an edge.
    bool crosses(Point a, Point b) const {
        bool out = false;
        each_along(a, b, [&](const GridEdge& e) { out = out || properly_cross(e.a, e.b, a, b); });
        return out;
    }

  private:
    std::size_t column(double x) const { return at(x - origin_.x, columns_); }
    std::size_t row(double y) const { return at(y - origin_.y, rows_); }
    std::size_t at(double way, std::size_t count) const {
        const double k = way / cell_;
        return k <= 0 ? 0 : std::min(static_cast<std::size_t>(k), count - 1);
    }
    template<class Met>
    void visit(std::size_t cell, Met& met) const {
        for (std::uint32_t i = from_[cell]; i < from_[cell + 1]; ++i)
            met(edges_[in_cells_[i]]);
    }
    /// The cells that a segment runs through, row by row.
    template<class Met>
    void each_cell(Point a, Point b, Met met) const {
        if (edges_.empty()) return;
        if (a.y > b.y) std::swap(a, b);
        const std::size_t last = row(b.y);
        for (std::size_t y = row(a.y); y <= last; ++y) {
            double x0 = std::min(a.x, b.x), x1 = std::max(a.x, b.x);
            if (b.y > a.y) { // what of it lies in this row; the outermost rows go on for ever
                const double low = origin_.y + static_cast<double>(y) * cell_;
                const auto x_at = [&](double level) {
                    return a.x + (b.x - a.x) * (level - a.y) / (b.y - a.y);
                };
                const double p = y == 0 ? a.x : x_at(std::max(a.y, low)),
                             q = y + 1 == rows_ ? b.x : x_at(std::min(b.y, low + cell_));
                x0 = std::min(p, q), x1 = std::max(p, q);
            }
            for (std::size_t x = column(x0 - rounding); x <= column(x1 + rounding); ++x)
                met(y * columns_ + x);
        }
    }

    static constexpr double rounding = 1e-6; ///< mm by which cells' sides may be off
    std::vector<GridEdge> edges_;
    std::vector<std::uint32_t> from_;     ///< where each cell begins in `in_cells_`, and where the last ends
    std::vector<std::uint32_t> in_cells_; ///< edges, cell after cell
    Point origin_;
    double cell_ = 1;
    std::size_t columns_ = 1, rows_ = 1;
};

template<class Wanted, class Met>
void EdgeGrid::each_nearest(Point p, double within, Wanted wanted, Met met) const {
    if (edges_.empty()) return;
    struct Seen {
        double square;
        std::uint32_t edge;
        bool operator>(const Seen& o) const { return std::pair(square, edge) > std::pair(o.square, o.edge); }
    };
    std::vector<Seen> room;
    room.reserve(64);
    std::priority_queue<Seen, std::vector<Seen>, std::greater<>> seen({}, std::move(room));
    double told = -1;
    const auto look_at = [&](std::size_t x, std::size_t y) {
        const std::size_t cell = y * columns_ + x;
        for (std::uint32_t i = from_[cell]; i < from_[cell + 1]; ++i)
            if (const GridEdge& e = edges_[in_cells_[i]]; wanted(e)) {
                const Point off = e.nearest_to(p) - p;
                // What is nearer than all was known before has been told.
                if (const double square = dot(off, off); square <= within * within && square >= told)
                    seen.push({square, in_cells_[i]});
            }
    };
    const auto cx = static_cast<std::ptrdiff_t>(column(p.x)), cy = static_cast<std::ptrdiff_t>(row(p.y)),
               columns = static_cast<std::ptrdiff_t>(columns_), rows = static_cast<std::ptrdiff_t>(rows_);
    std::uint32_t last = std::numeric_limits<std::uint32_t>::max();
    for (std::ptrdiff_t r = 0;; ++r) {
        const std::ptrdiff_t x0 = cx - r, x1 = cx + r, y0 = cy - r, y1 = cy + r;
        for (std::ptrdiff_t y = std::max<std::ptrdiff_t>(y0, 0); y <= std::min(y1, rows - 1); ++y)
            for (std::ptrdiff_t x = x0; x <= x1; x += y == y0 || y == y1 || r == 0 ? 1 : 2 * r)
                if (x >= 0 && x < columns) look_at(static_cast<std::size_t>(x), static_cast<std::size_t>(y));
        // All that is nearer than the nearest side of what has been looked at is known; what lies on it
        // stands in the cells behind.
        double known = std::numeric_limits<double>::infinity();
        const auto side = [&](bool beyond, double way) {
            if (!beyond) known = std::min(known, std::max(0.0, way - rounding));
        };
        side(x0 <= 0, p.x - (origin_.x + static_cast<double>(x0) * cell_));
        side(y0 <= 0, p.y - (origin_.y + static_cast<double>(y0) * cell_));
        side(x1 + 1 >= columns, origin_.x + static_cast<double>(x1 + 1) * cell_ - p.x);
        side(y1 + 1 >= rows, origin_.y + static_cast<double>(y1 + 1) * cell_ - p.y);
        // Without any side left to look behind, that is all there is.
        const bool all = known > within || known == std::numeric_limits<double>::infinity();
        for (; !seen.empty() && (all || seen.top().square < known * known); seen.pop()) {
            const std::uint32_t i = seen.top().edge;
            if (i == last) continue; // stands in several cells
            last = i;
            const Point on = edges_[i].nearest_to(p);
            if (met(edges_[i], on, distance(p, on))) return;
        }
        if (all) return;
        told = known * known;
    }
}

} // namespace dotlane
