#include "core/geometry/tangle.h"

#include <cstdint>
#include <numeric>

namespace dotlane {
namespace {

struct Edge {
    Point a, b;
    std::uint32_t line;
};

std::vector<Edge> edges_of(const Polylines& lines, bool close_open) {
    std::vector<Edge> out;
    for (std::uint32_t l = 0; l < lines.size(); ++l) {
        const Polyline& line = lines[l];
        const std::size_t n = line.points.size();
        for (std::size_t i = 1; i < n; ++i)
            out.push_back({line.points[i - 1], line.points[i], l});
        if (n > 2 && (line.closed || close_open)) out.push_back({line.points[n - 1], line.points[0], l});
    }
    return out;
}

/// Where the edges properly cross; touching ends do not.
bool cross_at(const Edge& e, const Edge& f, Point& at) {
    const Point u = e.b - e.a, v = f.b - f.a, w = f.a - e.a;
    const double d = cross(u, v);
    if (d == 0) return false;
    const double s = cross(w, v) / d, t = cross(w, u) / d;
    constexpr double near = 1e-9;
    if (!(s > near && s < 1 - near && t > near && t < 1 - near)) return false;
    at = e.a + u * s;
    return true;
}

/// A grid of about as many cells as there are edges; an edge is in every cell that it passes.
class Cells {
  public:
    Cells(const std::vector<Edge>& edges, const Box& box)
        : box_(box)
        , side_(
              static_cast<std::size_t>(std::clamp(std::sqrt(static_cast<double>(edges.size())), 1.0, 2000.0)))
        , w_(std::max(box.width(), 1e-9) / static_cast<double>(side_))
        , h_(std::max(box.height(), 1e-9) / static_cast<double>(side_)) {}

    std::size_t at(Point p) const { return row(p.y) * side_ + column(p.x); }
    std::size_t count() const { return side_ * side_; }

    /// Calls `take` with each cell, in steps of a cell along the edge.
    template<class Take>
    void along(const Edge& e, Take take) const {
        const int steps = steps_of(e);
        Point from = e.a;
        for (int i = 1; i <= steps; ++i) {
            const Point to = i == steps ? e.b : mix(e.a, e.b, static_cast<double>(i) / steps);
            const std::size_t c0 = column(std::min(from.x, to.x)), c1 = column(std::max(from.x, to.x)),
                              r0 = row(std::min(from.y, to.y)), r1 = row(std::max(from.y, to.y));
            for (std::size_t r = r0; r <= r1; ++r)
                for (std::size_t c = c0; c <= c1; ++c)
                    take(r * side_ + c);
            from = to;
        }
    }
    int steps_of(const Edge& e) const {
        return 1 + static_cast<int>(std::max(std::abs(e.b.x - e.a.x) / w_, std::abs(e.b.y - e.a.y) / h_));
    }

  private:
    std::size_t column(double x) const { return index((x - box_.x0) / w_); }
    std::size_t row(double y) const { return index((y - box_.y0) / h_); }
    std::size_t index(double v) const {
        return static_cast<std::size_t>(std::clamp(v, 0.0, static_cast<double>(side_ - 1)));
    }
    Box box_;
    std::size_t side_;
    double w_, h_;
};

/// Calls `each(at, e, f)` with every crossing; false when it says so, or when looking would take long.
template<class Each>
bool each_crossing(const Polylines& lines, bool close_open, Each each) {
    const auto edges = edges_of(lines, close_open);
    if (edges.size() < 3) return true;
    const Cells cells(edges, bounds(lines));
    constexpr std::size_t most_entries = 30'000'000, most_tests = 300'000'000;
    std::size_t entries = 0;
    for (const Edge& e : edges)
        if ((entries += static_cast<std::size_t>(cells.steps_of(e))) > most_entries) return false;
    // Entries by cell: counted, then filled in.
    std::vector<std::uint32_t> begin(cells.count() + 1);
    for (const Edge& e : edges)
        cells.along(e, [&](std::size_t c) { ++begin[c + 1]; });
    std::partial_sum(begin.begin(), begin.end(), begin.begin());
    std::vector<std::uint32_t> list(begin.back()), at(begin.begin(), begin.end() - 1);
    for (std::uint32_t i = 0; i < edges.size(); ++i)
        cells.along(edges[i], [&](std::size_t c) {
            if (at[c] == begin[c] || list[at[c] - 1] != i) list[at[c]++] = i; // once in a cell
        });
    std::size_t tests = 0;
    for (std::size_t c = 0; c < cells.count(); ++c)
        for (std::uint32_t i = begin[c]; i < at[c]; ++i)
            for (std::uint32_t k = begin[c]; k < i; ++k) {
                const Edge &e = edges[list[i]], &f = edges[list[k]];
                Point where;
                if (cross_at(e, f, where) && cells.at(where) == c && !each(where, e, f)) return false;
                if (++tests > most_tests) return false;
            }
    return true;
}

} // namespace

std::size_t crossings(const Polylines& lines, bool close_open, std::size_t most) {
    std::size_t found = 0;
    const bool all =
        each_crossing(lines, close_open, [&](Point, const Edge&, const Edge&) { return ++found <= most; });
    return all ? found : most + 1;
}

std::optional<std::vector<Crossing>> crossings_found(const Polylines& lines, bool close_open,
                                                     std::size_t most) {
    std::vector<Crossing> found;
    const bool all = each_crossing(lines, close_open, [&](Point at, const Edge& e, const Edge& f) {
        found.push_back({at, e.line, f.line});
        return found.size() <= most;
    });
    if (!all) return std::nullopt;
    return found;
}

} // namespace dotlane
