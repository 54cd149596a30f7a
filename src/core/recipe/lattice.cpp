#include "core/recipe/lattice.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <set>
#include <utility>

#include "core/geometry/region_index.h"
#include "core/recipe/hatch_scan.h"

namespace dotlane {
namespace {

constexpr double lattice_hair = 1e-4; // mm: cells are so much smaller when it is asked what runs through them

using LatticeCell = std::pair<long, long>;

/// Cells whose inside the segment runs through, in units of the cell.
void run_through(Point a, Point b, double hair_cells, std::set<LatticeCell>& cut) {
    if (a.y > b.y) std::swap(a, b);
    const auto inner_floor = [&](double v) { return static_cast<long>(std::floor(v)); };
    for (long row = inner_floor(a.y); row <= inner_floor(b.y); ++row) {
        // The part of the segment within the row's inside.
        const double top = static_cast<double>(row) + hair_cells,
                     bottom = static_cast<double>(row + 1) - hair_cells;
        if (b.y < top || a.y > bottom) continue;
        double x0 = a.x, x1 = b.x;
        if (b.y - a.y > 1e-12) {
            const double slope = (b.x - a.x) / (b.y - a.y);
            x0 = a.x + (std::max(a.y, top) - a.y) * slope, x1 = a.x + (std::min(b.y, bottom) - a.y) * slope;
        }
        if (x0 > x1) std::swap(x0, x1);
        for (long column = inner_floor(x0); column <= inner_floor(x1); ++column)
            if (x1 > static_cast<double>(column) + hair_cells &&
                x0 < static_cast<double>(column + 1) - hair_cells)
                cut.emplace(column, row);
    }
}

/// Sides of cells as a graph; a side that two cells share is there once.
class Sides {
  public:
    void add(Point a, Point b) {
        const std::size_t i = node(a), j = node(b);
        if (!known_.insert(std::minmax(i, j)).second) return;
        link(i, j);
    }

    /// Doubles sides until all corners but two have an even number, nearest corners first.
    void even_out() {
        std::vector<std::size_t> odd;
        for (std::size_t i = 0; i < at_.size(); ++i)
            if (ways_[i].size() % 2 == 1) odd.push_back(i);
        std::set<std::size_t> left(odd.begin(), odd.end());
        for (const std::size_t from : odd) {
            if (!left.contains(from)) continue;
            const auto path = way_to_nearest(from, left);
            if (path.empty()) continue;
            left.erase(from), left.erase(path.back());
            for (std::size_t k = 0, a = from; k < path.size(); a = path[k++])
                link(a, path[k]);
        }
    }

    Polylines strokes() {
        used_.assign(sides_.size(), 0);
        Polylines out;
        std::vector<std::size_t> starts;
        for (std::size_t i = 0; i < at_.size(); ++i)
            if (ways_[i].size() % 2 == 1) starts.push_back(i);
        for (std::size_t i = 0; i < at_.size(); ++i)
            starts.push_back(i);
        for (const std::size_t start : starts)
            while (has_way(start))
                out.push_back(stroke(start));
        return out;
    }

    /// Each group of sides that hang together in one stroke; corners must be even (C. Hierholzer 1873).
    Polylines tours() {
        used_.assign(sides_.size(), 0);
        Polylines out;
        for (std::size_t i = 0; i < at_.size(); ++i) {
            if (!has_way(i)) continue;
            std::vector<std::size_t> stack{i}, path;
            while (!stack.empty()) {
                const std::size_t at = stack.back();
                const auto way = std::find_if(ways_[at].begin(), ways_[at].end(),
                                              [this](const Way& w) { return !used_[w.side]; });
                if (way == ways_[at].end()) {
                    path.push_back(at);
                    stack.pop_back();
                } else {
                    used_[way->side] = 1;
                    stack.push_back(way->to);
                }
            }
            Polyline line;
            for (const std::size_t n : path)
                line.points.push_back(at_[n]);
            out.push_back(std::move(line));
        }
        return out;
    }

  private:
    struct Way {
        std::size_t to, side;
    };

    std::size_t node(Point p) {
        const auto key = std::pair{std::llround(p.x / lattice_hair), std::llround(p.y / lattice_hair)};
        const auto [it, fresh] = number_.try_emplace(key, at_.size());
        if (fresh) at_.push_back(p), ways_.emplace_back();
        return it->second;
    }
    void link(std::size_t a, std::size_t b) {
        ways_[a].push_back({b, sides_.size()});
        ways_[b].push_back({a, sides_.size()});
        sides_.emplace_back(a, b);
    }
    bool has_way(std::size_t n) const {
        return std::any_of(ways_[n].begin(), ways_[n].end(), [this](const Way& w) { return !used_[w.side]; });
    }

    std::vector<std::size_t> way_to_nearest(std::size_t from, const std::set<std::size_t>& wanted) const {
        std::map<std::size_t, std::size_t> before{{from, from}};
        std::vector<std::size_t> open{from};
        for (std::size_t next = 0; next < open.size(); ++next) {
            const std::size_t at = open[next];
            if (at != from && wanted.contains(at)) {
                std::vector<std::size_t> path;
                for (std::size_t k = at; k != from; k = before.at(k))
                    path.push_back(k);
                return {path.rbegin(), path.rend()};
            }
            for (const Way& w : ways_[at])
                if (before.try_emplace(w.to, at).second) open.push_back(w.to);
        }
        return {};
    }

    /// Straight on where it can.
    Polyline stroke(std::size_t start) {
        Polyline line{{at_[start]}, false};
        Point heading{};
        for (std::size_t at = start;;) {
            const Way* best = nullptr;
            double straightest = -2;
            for (const Way& w : ways_[at]) {
                if (used_[w.side]) continue;
                const Point d = at_[w.to] - at_[at];
                const double straight = dot(d, heading) / std::max(length(d), 1e-9);
                if (!best || straight > straightest) best = &w, straightest = straight;
            }
            if (!best) break;
            used_[best->side] = 1;
            const Point d = at_[best->to] - at_[at];
            const Point now = d * (1 / std::max(length(d), 1e-9));
            if (line.points.size() > 1 && std::abs(cross(now, heading)) < 1e-9 && dot(now, heading) > 0)
                line.points.back() = at_[best->to];
            else
                line.points.push_back(at_[best->to]);
            heading = now, at = best->to;
        }
        return line;
    }

    std::map<std::pair<long long, long long>, std::size_t> number_;
    std::vector<Point> at_;
    std::vector<std::vector<Way>> ways_;
    std::set<std::pair<std::size_t, std::size_t>> known_;
    std::vector<std::pair<std::size_t, std::size_t>> sides_;
    std::vector<char> used_;
};

} // namespace

CellCount squares_in(const Region& region, const Frame& frame, Length size) {
    const double s = in_mm(size);
    const Affine level = Affine::scaling(1 / s, 1 / s) * frame.to_part.inverse();
    Region cells = transformed(region, level);
    std::set<LatticeCell> cut;
    for (const Ring& ring : cells.rings)
        for (std::size_t i = 0; i < ring.size(); ++i)
            run_through(ring[i], ring[(i + 1) % ring.size()], lattice_hair / s, cut);
    HatchOptions rows;
    rows.spacing = mm(1);
    rows.phase = HatchOptions::Phase::through;
    rows.through = {0, 0.5};
    CellCount out{0, cut.size()};
    const HatchScan scan(cells, rows);
    scan.sweep([&](std::uint32_t k, std::span<const double> x) {
        const auto row = static_cast<long>(std::floor(scan.rows.y(k)));
        for (std::size_t j = 0; j + 1 < x.size(); j += 2) {
            const auto first = static_cast<long>(std::ceil(x[j] - 0.5)),
                       end = static_cast<long>(std::ceil(x[j + 1] - 0.5));
            for (long column = first; column < end; ++column)
                if (!cut.contains({column, row})) ++out.whole;
        }
    });
    return out;
}

FillLines whole_cells(const std::vector<Ring>& cells, const Frame& frame, const FillInput& in,
                      Progress& progress) {
    FillLines out;
    const RegionIndex index(in.region);
    Sides sides;
    for (std::size_t i = 0; i < cells.size(); ++i) {
        if (i % 256 == 0 && progress.cancelled()) return out;
        Polyline cell = transformed(Polyline{cells[i], true}, frame.to_part);
        if (!index.contains(cell)) {
            ++out.edge_cells;
            continue;
        }
        ++out.cells;
        for (std::size_t k = 0; k < cell.points.size(); ++k)
            sides.add(cell.points[k], cell.points[(k + 1) % cell.points.size()]);
    }
    if (in.ends == FillEnds::one_stroke) sides.even_out();
    out.lines = in.ends == FillEnds::one_stroke ? sides.tours() : sides.strokes();
    out.pieces = out.rows = out.lines.size();
    return out;
}

} // namespace dotlane
