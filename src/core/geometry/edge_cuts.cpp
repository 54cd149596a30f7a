#include "core/geometry/edge_cuts.h"

#include <algorithm>
#include <cmath>
#include <span>
#include <tuple>

#include "core/base/parallel.h"

namespace dotlane {
namespace {

namespace cl = ClipperLib;
using cl::cInt;
using cl::IntPoint;

using Index = std::uint32_t;
__extension__ using Wide = __int128;

Wide exact_cross(IntPoint u, IntPoint v) {
    return Wide{u.X} * v.Y - Wide{u.Y} * v.X;
}
IntPoint from_to(IntPoint a, IntPoint b) {
    return {b.X - a.X, b.Y - a.Y};
}
/// What rounding may do to a product of doubles, with room.
constexpr double doubt = 1e-15;

/// Points by place.
class Nodes {
  public:
    explicit Nodes(std::size_t expected) {
        std::size_t size = 16;
        while (size < 2 * expected)
            size *= 2;
        table_.assign(size, none);
        points.reserve(expected);
    }
    Index at(IntPoint p) {
        if (2 * points.size() >= table_.size()) grow();
        Index& slot = find(p);
        if (slot == none) {
            slot = static_cast<Index>(points.size());
            points.push_back(p);
        }
        return slot;
    }
    std::vector<IntPoint> points;

  private:
    static constexpr Index none = ~Index{0};
    Index& find(IntPoint p) {
        auto hash = static_cast<std::uint64_t>(p.X) * 0x9e3779b97f4a7c15 ^
                    static_cast<std::uint64_t>(p.Y) * 0xc2b2ae3d27d4eb4f;
        hash ^= hash >> 29;
        std::size_t i = hash & (table_.size() - 1);
        while (table_[i] != none && points[table_[i]] != p)
            i = (i + 1) & (table_.size() - 1);
        return table_[i];
    }
    void grow() {
        table_.assign(2 * table_.size(), none);
        for (Index k = 0; k < points.size(); ++k)
            find(points[k]) = k;
    }
    std::vector<Index> table_;
};

struct WholeEdge {
    IntPoint a, b;
    Index from, to;
    std::uint8_t kind;
};

/// The plane in parts through which few edges run: a grid, whose crowded cells are halved again and again.
/// Parts overlap by a few steps of the grid of points, so that whatever meets within a step meets in a part.
class Parts {
  public:
    explicit Parts(const std::vector<WholeEdge>& edges)
        : edges_(edges) {
        lay_grid();
        fill_cells();
        for (Index cell = 0; cell + 1 < cells_.size(); ++cell) {
            const std::size_t count = cells_[cell + 1] - cells_[cell];
            if (count <= few)
                parts_.emplace_back(cells_[cell], cells_[cell + 1]);
            else
                halve_cell(cell);
        }
    }
    /// Each with its edges, by their indices.
    std::size_t count() const { return parts_.size() + halves_.size(); }
    std::span<const Index> part(std::size_t i) const {
        const auto [from, to] = i < parts_.size() ? parts_[i] : halves_[i - parts_.size()];
        return {in_parts_.data() + from, to == crowded ? 0 : to - from}; // a crowded one is its halves
    }
    /// Those of the part that a point lies in.
    std::span<const Index> around(IntPoint p) const {
        auto part = parts_[cell_at(column(p.X), row(p.Y))];
        if (part.second == crowded) {
            Index at = part.first;
            while (splits_[at].across != leaf)
                at = (splits_[at].across == 0 ? p.X : p.Y) <= splits_[at].where ? at + 1 : splits_[at].other;
            part = halves_[splits_[at].other];
        }
        return {in_parts_.data() + part.first, part.second - part.first};
    }

  private:
    static constexpr std::size_t few = 16;
    static constexpr cInt overlap = 2;
    static constexpr Index crowded = ~Index{0}, several = ~Index{0};
    static constexpr std::uint8_t leaf = 2;
    struct Box {
        cInt x0, y0, x1, y1;
    };
    struct Item {
        Index edge;
        double from, to; ///< what of the edge may lie in the part, 0 to 1
    };
    struct Split {
        cInt where = 0;
        Index other = 0; ///< the upper half (the lower one is the next), or the number of the part
        std::uint8_t across = leaf;
    };

    // By multiplication: never falling, as the division is, at a fifth of its time.
    cInt column(cInt x) const { return static_cast<cInt>(static_cast<double>(x - all_.x0) * per_cell_); }
    cInt row(cInt y) const { return static_cast<cInt>(static_cast<double>(y - all_.y0) * per_cell_); }
    std::size_t cell_at(cInt column, cInt row) const {
        return static_cast<std::size_t>(row * columns_ + column);
    }

    /// So large that a cell holds a few edges.
    void lay_grid() {
        all_ = {edges_[0].a.X, edges_[0].a.Y, edges_[0].a.X, edges_[0].a.Y};
        for (const WholeEdge& e : edges_) {
            all_.x0 = std::min(all_.x0, e.a.X), all_.y0 = std::min(all_.y0, e.a.Y);
            all_.x1 = std::max(all_.x1, e.a.X), all_.y1 = std::max(all_.y1, e.a.Y);
        }
        const auto wide = static_cast<double>(all_.x1 - all_.x0 + 1),
                   high = static_cast<double>(all_.y1 - all_.y0 + 1);
        const auto count = static_cast<double>(edges_.size()) / 2 + 1;
        cell_ =
            static_cast<cInt>(std::max({std::sqrt(wide * high / count), wide / count, high / count, 64.0})) +
            1;
        per_cell_ = 1 / static_cast<double>(cell_);
        columns_ = column(all_.x1) + 1;
        rows_ = row(all_.y1) + 1;
    }

    /// each(cell) for all cells that an edge runs through or near.
    template<class Each>
    void each_cell(const WholeEdge& e, Each each) const {
        const auto [x0, x1] = std::minmax(e.a.X, e.b.X);
        const auto [y0, y1] = std::minmax(e.a.Y, e.b.Y);
        const cInt left = column(std::max(x0 - overlap, all_.x0)),
                   right = column(std::min(x1 + overlap, all_.x1));
        const cInt first = row(std::max(y0 - overlap, all_.y0)), last = row(std::min(y1 + overlap, all_.y1));
        const bool plain = left == right || first == last || y0 == y1;
        const double slope =
            plain ? 0 : static_cast<double>(e.b.X - e.a.X) / static_cast<double>(e.b.Y - e.a.Y);
        for (cInt r = first; r <= last; ++r) {
            cInt from = left, to = right;
            if (!plain) {
                const auto at = [&](cInt y) {
                    const double x = static_cast<double>(e.a.X) +
                                     slope * static_cast<double>(std::clamp(y, y0, y1) - e.a.Y);
                    return std::clamp(x, static_cast<double>(x0), static_cast<double>(x1));
                };
                const double one = at(all_.y0 + r * cell_ - overlap),
                             two = at(all_.y0 + (r + 1) * cell_ + overlap);
                from = std::max(
                    left, column(std::max(static_cast<cInt>(std::min(one, two)) - overlap - 1, all_.x0)));
                to = std::min(right,
                              column(std::min(static_cast<cInt>(std::max(one, two)) + overlap + 1, all_.x1)));
            }
            for (cInt c = from; c <= to; ++c)
                each(cell_at(c, r));
        }
    }

    void fill_cells() {
        cells_.assign(static_cast<std::size_t>(columns_ * rows_) + 1, 0);
        std::vector<Index> only(edges_.size()); // nearly all lie in one cell: looked for once
        for (Index i = 0; i < edges_.size(); ++i) {
            Index times = 0, last = 0;
            each_cell(edges_[i], [&](std::size_t cell) {
                ++cells_[cell + 1];
                last = static_cast<Index>(cell), ++times;
            });
            only[i] = times == 1 ? last : several;
        }
        for (std::size_t i = 1; i < cells_.size(); ++i)
            cells_[i] += cells_[i - 1];
        in_parts_.resize(cells_.back());
        std::vector<Index> at(cells_.begin(), cells_.end() - 1);
        for (Index i = 0; i < edges_.size(); ++i)
            if (only[i] != several)
                in_parts_[at[only[i]]++] = i;
            else
                each_cell(edges_[i], [&](std::size_t cell) { in_parts_[at[cell]++] = i; });
        parts_.reserve(cells_.size());
    }

    void halve_cell(Index cell) {
        const cInt c = cell % columns_, r = cell / columns_;
        const Box box{all_.x0 + c * cell_, all_.y0 + r * cell_, all_.x0 + (c + 1) * cell_,
                      all_.y0 + (r + 1) * cell_};
        stack_.clear();
        for (Index i = cells_[cell]; i < cells_[cell + 1]; ++i)
            stack_.push_back({in_parts_[i], 0, 1});
        std::size_t from = 0;
        for (const auto& [wide, limit, below] :
             {std::tuple(true, box.x0, false), std::tuple(true, box.x1, true),
              std::tuple(false, box.y0, false), std::tuple(false, box.y1, true)}) {
            const std::size_t to = stack_.size();
            take(wide, static_cast<double>(limit + (below ? overlap : -overlap)), below, from, to);
            from = to;
        }
        parts_.emplace_back(static_cast<Index>(splits_.size()), crowded);
        halve(box, from, stack_.size(), 0);
    }

    void halve(Box box, std::size_t from, std::size_t to, int depth) {
        constexpr int deepest = 60;
        constexpr cInt smallest = 64;
        const bool wide = box.x1 - box.x0 > box.y1 - box.y0;
        const cInt least = wide ? box.x0 : box.y0, most = wide ? box.x1 : box.y1;
        const auto me = static_cast<Index>(splits_.size());
        splits_.emplace_back();
        if (to - from > few && depth < deepest && most - least > smallest) {
            const cInt where = least + (most - least) / 2;
            const std::size_t low = stack_.size();
            take(wide, static_cast<double>(where + overlap), true, from, to);
            const std::size_t high = stack_.size();
            take(wide, static_cast<double>(where - overlap), false, from, to);
            const std::size_t end = stack_.size();
            // Where nearly all run through both halves (through one point, or side by side) halving ends.
            if (10 * (end - low) < 17 * (to - from) || to - from > 20 * few) {
                splits_[me].across = wide ? 0 : 1;
                splits_[me].where = where;
                Box lower = box, upper = box;
                (wide ? lower.x1 : lower.y1) = where;
                (wide ? upper.x0 : upper.y0) = where;
                halve(lower, low, high, depth + 1);
                splits_[me].other = static_cast<Index>(splits_.size());
                halve(upper, high, end, depth + 1);
                stack_.resize(low);
                return;
            }
            stack_.resize(low);
        }
        splits_[me].other = static_cast<Index>(halves_.size());
        const auto begin = static_cast<Index>(in_parts_.size());
        for (std::size_t i = from; i < to; ++i)
            in_parts_.push_back(stack_[i].edge);
        halves_.emplace_back(begin, static_cast<Index>(in_parts_.size()));
    }

    /// Of the items those, and what of them, that lie below a limit, or above it.
    void take(bool wide, double limit, bool below, std::size_t from, std::size_t to) {
        for (std::size_t i = from; i < to; ++i) {
            Item item = stack_[i];
            const WholeEdge& edge = edges_[item.edge];
            const auto a = static_cast<double>(wide ? edge.a.X : edge.a.Y);
            const double run = static_cast<double>(wide ? edge.b.X : edge.b.Y) - a;
            const double begins = a + item.from * run, ends = a + item.to * run;
            const bool first = below ? begins <= limit : begins >= limit,
                       last = below ? ends <= limit : ends >= limit;
            if (!first && !last) continue;
            if (first != last) (first ? item.to : item.from) = (limit - a) / run;
            stack_.push_back(item);
        }
    }

    const std::vector<WholeEdge>& edges_;
    Box all_{};
    cInt cell_ = 1, columns_ = 1, rows_ = 1;
    double per_cell_ = 1;
    std::vector<Index> cells_;                   ///< where each begins in `in_parts_`
    std::vector<Index> in_parts_;                ///< edges
    std::vector<std::pair<Index, Index>> parts_; ///< of cells; of a crowded one its first split
    std::vector<std::pair<Index, Index>> halves_;
    std::vector<Item> stack_;
    std::vector<Split> splits_;
};

bool apart(const WholeEdge& e, const WholeEdge& f) {
    return std::max(e.a.X, e.b.X) < std::min(f.a.X, f.b.X) ||
           std::max(f.a.X, f.b.X) < std::min(e.a.X, e.b.X) ||
           std::max(e.a.Y, e.b.Y) < std::min(f.a.Y, f.b.Y) || std::max(f.a.Y, f.b.Y) < std::min(e.a.Y, e.b.Y);
}

/// In one point inside both.
bool cross(const WholeEdge& e, const WholeEdge& f) {
    return side_of(e.a, e.b, f.a) * side_of(e.a, e.b, f.b) < 0 &&
           side_of(f.a, f.b, e.a) * side_of(f.a, f.b, e.b) < 0;
}

/// Where two edges cross: the point of the grid in whose square that is. Exact: a crossing on the side of a
/// square that goes to the wrong one lets pieces cross that have no end there.
IntPoint crossing(const WholeEdge& e, const WholeEdge& f) {
    const IntPoint u = from_to(e.a, e.b), v = from_to(f.a, f.b), w = from_to(e.a, f.a);
    Wide part = exact_cross(w, v), whole = exact_cross(u, v); // as far along u
    if (whole < 0) part = -part, whole = -whole;
    const long double share = static_cast<long double>(part) / static_cast<long double>(whole);
    const auto steps = [&](cInt run) {
        const long double near = share * static_cast<long double>(run) + 0.5L, down = std::floor(near);
        constexpr long double unsure = 1e-6L; // a share of 64 bits, times up to 2^32
        if (near - down > unsure && near - down < 1 - unsure) return static_cast<cInt>(down);
        const Wide twice = 2 * part * run + whole, less = twice < 0 && twice % (2 * whole) != 0 ? 1 : 0;
        return static_cast<cInt>(twice / (2 * whole) - less);
    };
    return {e.a.X + steps(u.X), e.a.Y + steps(u.Y)};
}

/// Whether an edge runs through the square around a point of the grid: its left and lower sides belong to it.
bool runs_through(const WholeEdge& e, IntPoint p) {
    const auto [x0, x1] = std::minmax(e.a.X, e.b.X);
    const auto [y0, y1] = std::minmax(e.a.Y, e.b.Y);
    if (p.X < x0 || p.X > x1 || p.Y < y0 || p.Y > y1) return false;
    const IntPoint u = from_to(e.a, e.b), w = from_to(e.a, p);
    const double reach = static_cast<double>(std::abs(u.X)) + static_cast<double>(std::abs(u.Y));
    const double one = static_cast<double>(u.X) * static_cast<double>(w.Y),
                 two = static_cast<double>(u.Y) * static_cast<double>(w.X);
    const double room = doubt * (std::abs(one) + std::abs(two));
    if (2 * std::abs(one - two) > reach + 4 * room) return false;
    const Wide twice = 2 * exact_cross(u, w), most = Wide{std::abs(u.X)} + std::abs(u.Y);
    if (twice < most && -twice < most) return true;
    if (twice != most && -twice != most) return false;
    // Through a corner only: of all corners the lower left one belongs to the square, and a line that touches
    // it there alone falls; p then lies above it.
    if (u.X == 0 || u.Y == 0 || (u.X > 0) == (u.Y > 0)) return false;
    return (u.X > 0) == (twice > 0);
}

struct Hit {
    Index edge, node;
};
struct Found {
    std::vector<Hit> hits;           ///< edges through corners
    std::vector<IntPoint> crossings; ///< nothing is said of who crosses there
};

/// In each share of the parts: beyond, what crosses takes more than a gigabyte.
constexpr std::size_t most_crossings = 300'000;

/// What meets within a part.
void meet(const std::vector<WholeEdge>& edges, std::span<const Index> part, Found& out) {
    const auto run = [&](Index i, const WholeEdge& e, Index node, IntPoint p) {
        if (e.from != node && e.to != node && runs_through(e, p)) out.hits.push_back({i, node});
    };
    for (std::size_t m = 0; m < part.size() && out.crossings.size() < most_crossings; ++m) {
        const WholeEdge& e = edges[part[m]];
        for (std::size_t n = m + 1; n < part.size(); ++n) {
            const WholeEdge& f = edges[part[n]];
            if (apart(e, f)) continue;
            run(part[m], e, f.from, f.a),
                run(part[n], f, e.from, e.a); // every corner is where an edge begins
            // What shares an end does not cross.
            if (e.to != f.from && f.to != e.from && e.from != f.from && e.to != f.to && cross(e, f))
                out.crossings.push_back(crossing(e, f));
        }
    }
}

} // namespace

int side_of(IntPoint a, IntPoint b, IntPoint p) {
    const IntPoint u = from_to(a, b), w = from_to(a, p);
    const double one = static_cast<double>(u.X) * static_cast<double>(w.Y),
                 two = static_cast<double>(u.Y) * static_cast<double>(w.X);
    const double cross = one - two;
    if (std::abs(cross) > doubt * (std::abs(one) + std::abs(two))) return cross > 0 ? 1 : -1;
    const Wide exact = exact_cross(u, w);
    return exact > 0 ? 1 : exact < 0 ? -1 : 0;
}

std::optional<CutEdges> cut_edges(const std::array<cl::Paths, 2>& rings) {
    std::size_t count = 0;
    for (const cl::Paths& list : rings)
        for (const cl::Path& ring : list)
            count += ring.size();
    Nodes nodes(count + count / 8);
    std::vector<WholeEdge> edges;
    edges.reserve(count);
    for (std::uint8_t kind = 0; kind < 2; ++kind)
        for (const cl::Path& ring : rings[kind]) {
            if (ring.size() < 3) continue;
            IntPoint last = ring.back();
            Index from = nodes.at(last);
            for (const IntPoint p : ring) {
                if (p == last) continue;
                const Index to = nodes.at(p);
                edges.push_back({last, p, from, to, kind});
                last = p, from = to;
            }
        }
    CutEdges out;
    if (edges.empty()) return out;
    const Parts parts(edges);
    // By shares, whose number does not depend on the machine: neither does the order of the nodes.
    std::vector<Found> found(16);
    in_parallel(found.size(), edges.size(), [&](std::size_t share) {
        const std::size_t end = parts.count() * (share + 1) / found.size();
        for (std::size_t i = parts.count() * share / found.size(); i < end; ++i)
            meet(edges, parts.part(i), found[share]);
    });
    std::vector<Hit> hits;
    const auto corners = static_cast<Index>(nodes.points.size());
    for (const Found& some : found) {
        if (some.crossings.size() >= most_crossings) return std::nullopt;
        hits.insert(hits.end(), some.hits.begin(), some.hits.end());
        for (const IntPoint p : some.crossings)
            nodes.at(p);
    }
    for (Index node = corners; node < nodes.points.size(); ++node)
        for (const Index i : parts.around(nodes.points[node]))
            if (runs_through(edges[i], nodes.points[node])) hits.push_back({i, node});
    std::vector<Index> begin(edges.size() + 1, 0), order(hits.size());
    for (const Hit& hit : hits)
        ++begin[hit.edge + 1];
    for (std::size_t i = 1; i < begin.size(); ++i)
        begin[i] += begin[i - 1];
    std::vector<Index> at(begin.begin(), begin.end() - 1);
    for (const Hit& hit : hits)
        order[at[hit.edge]++] = hit.node;
    out.pieces.reserve(edges.size() + hits.size());
    for (Index k = 0; k < edges.size(); ++k) {
        const WholeEdge& e = edges[k];
        const IntPoint u = from_to(e.a, e.b);
        const auto along = [&](Index node) { // exact in 64 bits
            const IntPoint w = from_to(e.a, nodes.points[node]);
            return static_cast<long double>(u.X) * static_cast<long double>(w.X) +
                   static_cast<long double>(u.Y) * static_cast<long double>(w.Y);
        };
        const auto first = order.begin() + begin[k], end = order.begin() + begin[k + 1];
        if (end - first > 1)
            std::sort(first, end, [&](Index a, Index b) {
                const long double one = along(a), two = along(b);
                return one != two ? one < two : a < b;
            });
        Index last = e.from;
        const auto go = [&](Index node) {
            if (node != last) out.pieces.push_back({last, node, e.kind});
            last = node;
        };
        for (Index i = begin[k]; i < begin[k + 1]; ++i)
            go(order[i]);
        go(e.to);
    }
    out.nodes = std::move(nodes.points);
    return out;
}

} // namespace dotlane
