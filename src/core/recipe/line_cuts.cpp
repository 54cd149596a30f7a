#include "core/recipe/line_cuts.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <memory>
#include <numeric>
#include <optional>
#include <span>

#include "core/base/parallel.h"
#include "core/geometry/region_index.h"

namespace dotlane {
namespace {

struct Spot {
    std::int64_t x, y;
};

constexpr double per_mm = 200'000;
constexpr double hair = 1e-4; // mm, more than points move on the grid

/// Of the region: even numbers.
Spot even(Point p) {
    return {2 * std::llround(p.x * per_mm / 2), 2 * std::llround(p.y * per_mm / 2)};
}
/// Of the pattern: odd numbers.
Spot odd(Point p) {
    return {2 * std::llround((p.x * per_mm - 1) / 2) + 1, 2 * std::llround((p.y * per_mm - 1) / 2) + 1};
}

Point at(const Spot& s) {
    return {static_cast<double>(s.x) / per_mm, static_cast<double>(s.y) / per_mm};
}

__extension__ typedef __int128 Wide; // products of differences do not fit in 64 bits

/// Positive or zero: left.
bool lies_left(const Spot& a, const Spot& b, const Spot& p) {
    const double ax = static_cast<double>(b.x - a.x), ay = static_cast<double>(b.y - a.y),
                 px = static_cast<double>(p.x - a.x), py = static_cast<double>(p.y - a.y);
    const double d = ax * py - ay * px;
    // Differences are exact; each product is off by less than 2^14 within the limits.
    if (std::abs(d) > 65536) return d > 0;
    return static_cast<Wide>(b.x - a.x) * (p.y - a.y) - static_cast<Wide>(b.y - a.y) * (p.x - a.x) >= 0;
}

struct CutEdge {
    Spot a, b;
    std::uint32_t ring, index;
    Box box;
    Point from, way;
    double hair; ///< what lies farther to one side, mm2, lies there on the grid too
};

struct Cut {
    std::uint32_t segment;
    double t;
    std::uint32_t edge;
};

/// The region's edges by the cells of a grid.
class EdgeCells {
  public:
    /// `segment`: of the pattern, how long on average. `asked`: whether `contains` will be.
    EdgeCells(const Region& region, double segment, bool asked) {
        if (asked) index_.emplace(region);
        const Box box = bounds(region);
        for (std::uint32_t r = 0; r < region.rings.size(); ++r) {
            const Ring& ring = region.rings[r];
            for (std::uint32_t i = 0; i < ring.size(); ++i)
                add_edge(ring[i], ring[(i + 1) % ring.size()], r, i);
        }
        // Few edges in a cell, few cells on the way of a segment: two cells for each edge, up to 32 of them
        // where segments are short.
        const double width = std::max(box.width(), 1e-3), height = std::max(box.height(), 1e-3);
        const double coarse = std::sqrt(width * height / (2.0 * static_cast<double>(edges_.size())));
        cell_ = std::max(std::clamp(2 * segment, coarse / 4, coarse), std::max(width, height) / 2000);
        x0_ = box.x0, y0_ = box.y0, per_cell_ = 1 / cell_;
        columns_ = static_cast<int>(width / cell_) + 1, rows_ = static_cast<int>(height / cell_) + 1;
        const auto each_edge = [&](auto each) {
            for (std::uint32_t e = static_cast<std::uint32_t>(edges_.size()); e-- > 0;)
                each_cell_of_short(edges_[e].from, edges_[e].from + edges_[e].way,
                                   [&](std::size_t cell) { each(cell, e); });
        };
        start_.assign(static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_) + 1, 0);
        each_edge([&](std::size_t cell, std::uint32_t) { ++start_[cell]; });
        std::partial_sum(start_.begin(), start_.end(), start_.begin());
        held_.resize(start_.back());
        each_edge([&](std::size_t cell, std::uint32_t e) { held_[--start_[cell]] = e; });
        find_clear();
    }

    /// Every cell that the segment may touch.
    template<class Each>
    void each_cell(Point a, Point b, Each each) const {
        if (a.y > b.y) std::swap(a, b);
        const int first = std::max(0, row(a.y - hair)), last = std::min(rows_ - 1, row(b.y + hair));
        const double slope = b.y - a.y > 1e-9 ? (b.x - a.x) / (b.y - a.y) : 0;
        for (int r = first; r <= last; ++r) {
            double from = std::min(a.x, b.x), to = std::max(a.x, b.x);
            if (slope != 0) {
                const double top = std::max(a.y, y0_ + r * cell_ - hair),
                             bottom = std::min(b.y, y0_ + (r + 1) * cell_ + hair);
                double x0 = a.x + (top - a.y) * slope, x1 = a.x + (bottom - a.y) * slope;
                if (x0 > x1) std::swap(x0, x1);
                from = std::max(from, x0), to = std::min(to, x1);
            }
            const int c0 = std::max(0, column(from - hair)), c1 = std::min(columns_ - 1, column(to + hair));
            for (int c = c0; c <= c1; ++c)
                each(static_cast<std::size_t>(r) * static_cast<std::size_t>(columns_) +
                     static_cast<std::size_t>(c));
        }
    }

    /// -1 for all that lies before the first one.
    int column(double x) const {
        const double c = (x - x0_) * per_cell_;
        return c < 0 ? -1 : static_cast<int>(std::min(c, 1e6));
    }
    int row(double y) const {
        const double r = (y - y0_) * per_cell_;
        return r < 0 ? -1 : static_cast<int>(std::min(r, 1e6));
    }

    /// The cell of a point, by column and row; outside the grid: of what surrounds it.
    struct Place {
        int column, row;
        bool operator==(const Place&) const = default;
    };
    Place place(Point p) const { return {column(p.x), row(p.y)}; }
    bool outside(Place p) const {
        return p.column < 0 || p.row < 0 || p.column >= columns_ || p.row >= rows_;
    }
    std::size_t cell(Place p) const {
        return static_cast<std::size_t>(p.row) * static_cast<std::size_t>(columns_) +
               static_cast<std::size_t>(p.column);
    }
    bool empty(Place p) const { return start_[cell(p)] == start_[cell(p) + 1]; }

    /// The first segment from `from`, which begins at `at`, on that may come near an edge: a fine pattern's
    /// lines mostly do not.
    std::uint32_t past_clear(const PatternLine& line, std::uint32_t from, std::uint32_t segments,
                             Place at) const {
        const Point p = line.line.points[from];
        if (outside(at))
            return past(
                line, from, segments,
                std::max({x0_ - p.x, p.x - x0_ - columns_ * cell_, y0_ - p.y, p.y - y0_ - rows_ * cell_}) -
                    2 * hair);
        const int clear =
            clear_[(static_cast<std::size_t>(at.row) + 1) * wide() + static_cast<std::size_t>(at.column) + 1];
        return clear < 2 ? from : past(line, from, segments, (clear - 1) * cell_ - 2 * hair);
    }

    /// The first segment from `from` on that may go farther away than `reach`, mm.
    static std::uint32_t past(const PatternLine& line, std::uint32_t from, std::uint32_t segments,
                              double reach) {
        if (line.longest > 0)
            return from + static_cast<std::uint32_t>(std::clamp(std::floor(reach / line.longest), 0.0,
                                                                static_cast<double>(segments - from)));
        const auto& points = line.line.points;
        const Point p = points[from];
        const auto near = [&](Point q) { return std::abs(q.x - p.x) < reach && std::abs(q.y - p.y) < reach; };
        std::uint32_t to = from;
        while (to < segments && near(points[to + 1 < points.size() ? to + 1 : 0]))
            ++to;
        return to;
    }

    /// Every cell that a short segment may touch: mostly one or two, in a row or a column.
    template<class Each>
    void each_cell_of_short(Point a, Point b, Each each) const {
        const int c0 = std::max(0, column(std::min(a.x, b.x) - hair)),
                  c1 = std::min(columns_ - 1, column(std::max(a.x, b.x) + hair)),
                  r0 = std::max(0, row(std::min(a.y, b.y) - hair)),
                  r1 = std::min(rows_ - 1, row(std::max(a.y, b.y) + hair));
        if (c1 > c0 + 1 && r1 > r0 + 1) return each_cell(a, b, each);
        for (int r = r0; r <= r1; ++r)
            for (int c = c0; c <= c1; ++c)
                each(static_cast<std::size_t>(r) * static_cast<std::size_t>(columns_) +
                     static_cast<std::size_t>(c));
    }

    const CutEdge& edge(std::uint32_t e) const { return edges_[e]; }
    std::size_t edges() const { return edges_.size(); }
    std::span<const std::uint32_t> held(std::size_t cell) const {
        return {held_.data() + start_[cell], held_.data() + start_[cell + 1]};
    }
    double beyond() const { return x0_ + (columns_ + 1) * cell_; } ///< x, to the right of all
    bool contains(Point p) const { return index_->contains(p); }

  private:
    void add_edge(Point a, Point b, std::uint32_t ring, std::uint32_t index) {
        Box box;
        box.add(a), box.add(b);
        edges_.push_back(
            {even(a), even(b), ring, index, box.grown(hair), a, b - a, hair * (distance(a, b) + hair)});
    }

    /// How many cells away the next one that holds an edge is, along rows, columns and diagonals: forth and
    /// back over the grid.
    void find_clear() {
        constexpr std::uint16_t far = 4000;
        // With a rim, so that every cell has eight neighbours.
        const std::size_t w = wide(), high = static_cast<std::size_t>(rows_) + 2;
        clear_.assign(w * high, far);
        for (std::size_t r = 0, cell = 0; r + 2 < high; ++r)
            for (std::size_t c = 0; c + 2 < w; ++c, ++cell)
                if (start_[cell] != start_[cell + 1]) clear_[(r + 1) * w + c + 1] = 0;
        const auto least = [](std::uint16_t a, std::uint16_t b) { return a < b ? a : b; };
        // From the three of the row before all at once, then along the row.
        const auto from_row = [&](std::uint16_t* own, const std::uint16_t* before) {
            for (std::size_t k = 1; k + 1 < w; ++k) {
                const std::uint16_t near = least(least(before[k - 1], before[k]), before[k + 1]);
                own[k] = least(own[k], static_cast<std::uint16_t>(near + 1));
            }
        };
        for (std::size_t r = 1; r + 1 < high; ++r) {
            std::uint16_t* own = &clear_[r * w];
            from_row(own, own - w);
            for (std::size_t k = 1; k + 1 < w; ++k)
                own[k] = least(own[k], static_cast<std::uint16_t>(own[k - 1] + 1));
        }
        for (std::size_t r = high - 2; r > 0; --r) {
            std::uint16_t* own = &clear_[r * w];
            from_row(own, own + w);
            for (std::size_t k = w - 2; k > 0; --k)
                own[k] = least(own[k], static_cast<std::uint16_t>(own[k + 1] + 1));
        }
    }
    std::size_t wide() const { return static_cast<std::size_t>(columns_) + 2; } ///< of `clear_`

    std::optional<RegionIndex> index_;
    double cell_ = 1, per_cell_ = 1, x0_ = 0, y0_ = 0;
    int columns_ = 1, rows_ = 1;
    std::vector<CutEdge> edges_;
    std::vector<std::uint32_t> start_, held_;
    std::vector<std::uint16_t> clear_;
};

/// What some lines of the pattern leave inside the region.
struct Pieces {
    struct Piece {
        NetMaker::Place from, to;
        std::uint32_t row;
        Ring bends;
    };
    std::vector<Piece> pieces;
    Polylines loose;
};

class Cutter {
  public:
    Cutter(const EdgeCells& cells, double least)
        : cells_(cells)
        , least_(least)
        , seen_(cells.edges(), 0) {}

    void cut(const PatternLine& given) {
        const auto& points = given.line.points;
        const std::size_t n = points.size(), segments = given.line.closed ? n : n - 1;
        if (n < 2) return;
        cuts_.clear();
        EdgeCells::Place at = cells_.place(points[0]);
        for (std::uint32_t i = 0; i < segments;) {
            std::uint32_t next = cells_.past_clear(given, i, static_cast<std::uint32_t>(segments), at);
            const bool passed = next > i;
            if (!passed) next = i + 1;
            const Point to = points[next < n ? next : 0];
            const EdgeCells::Place then = cells_.place(to);
            if (!passed) find(points[i], to, i, at, then);
            at = then, i = next;
        }
        std::sort(cuts_.begin(), cuts_.end(), [](const Cut& a, const Cut& b) {
            return a.segment != b.segment ? a.segment < b.segment : a.t < b.t;
        });
        if (cuts_.empty()) {
            if (!given.reaches_out || given.line.closed)
                if (inside(points.front())) out_.loose.push_back(given.line);
            return;
        }
        const bool in = (!given.reaches_out || given.line.closed) && inside(points.front());
        if (given.line.closed) {
            // From the first way in all round.
            for (std::size_t k = in ? 1 : 0; k < cuts_.size(); k += 2)
                piece(given, cuts_[k], cuts_[(k + 1) % cuts_.size()]);
            return;
        }
        std::size_t k = 0;
        if (in) {
            loose(given, {0, 0, 0}, cuts_[0]);
            k = 1;
        }
        for (; k + 1 < cuts_.size(); k += 2)
            piece(given, cuts_[k], cuts_[k + 1]);
        if (k < cuts_.size() && !given.reaches_out)
            loose(given, cuts_[k], {static_cast<std::uint32_t>(segments - 1), 1, 0});
    }
    Pieces take() { return std::move(out_); }

  private:
    /// Of a segment from one cell to another: mostly of few, in which there is mostly nothing.
    void find(Point from, Point to, std::uint32_t segment, EdgeCells::Place at, EdgeCells::Place then) {
        // Edges lie in all cells that they come near, so that a segment need not look beyond its own.
        if (cells_.outside(at) || cells_.outside(then) ||
            std::abs(at.column - then.column) + std::abs(at.row - then.row) > 1)
            return find(from, to, segment);
        if (at == then) {
            if (!cells_.empty(at)) {
                const Segment one(from, to, segment);
                for (const std::uint32_t e : cells_.held(cells_.cell(at)))
                    one.meet(cells_.edge(e), e, cuts_);
            }
        } else if (!cells_.empty(at) || !cells_.empty(then)) {
            find(from, to, segment,
                 [&](const auto& each) { each(cells_.cell(at)), each(cells_.cell(then)); });
        }
    }
    void find(Point from, Point to, std::uint32_t segment) {
        find(from, to, segment, [&](const auto& each) { cells_.each_cell_of_short(from, to, each); });
    }
    template<class Cells>
    void find(Point from, Point to, std::uint32_t segment, Cells each_cell) {
        const Segment one(from, to, segment);
        ++stamp_;
        each_cell([&](std::size_t cell) {
            for (const std::uint32_t e : cells_.held(cell)) {
                if (seen_[e] == stamp_) continue;
                seen_[e] = stamp_;
                one.meet(cells_.edge(e), e, cuts_);
            }
        });
    }

    /// One of the pattern.
    struct Segment {
        Point from, to;
        std::uint32_t index;
        Box box;
        Segment(Point a, Point b, std::uint32_t i)
            : from(a)
            , to(b)
            , index(i) {
            box.add(a), box.add(b);
        }
        /// Adds where it crosses the edge number `e`.
        void meet(const CutEdge& edge, std::uint32_t e, std::vector<Cut>& cuts) const {
            if (!edge.box.meets(box)) return;
            const double side = cross(edge.way, from - edge.from), then = cross(edge.way, to - edge.from);
            if (std::min(side, then) > edge.hair || std::max(side, then) < -edge.hair) return;
            const Spot p = odd(from), q = odd(to);
            if ((p.x == q.x && p.y == q.y) || lies_left(p, q, edge.a) == lies_left(p, q, edge.b) ||
                lies_left(edge.a, edge.b, p) == lies_left(edge.a, edge.b, q))
                return;
            const Point a = at(edge.a), d = at(edge.b) - a, from_a = at(p) - a, to_a = at(q) - a;
            const double d0 = cross(d, from_a), d1 = cross(d, to_a);
            cuts.push_back({index, d0 == d1 ? 0.5 : std::clamp(d0 / (d0 - d1), 0.0, 1.0), e});
        }
    };

    /// Of a point on the edge, or nearly, as the cuts have it: by how many edges a line from there crosses.
    bool inside(Point p) {
        const EdgeCells::Place at = cells_.place(p);
        if (cells_.outside(at)) return false;
        bool near = false;
        for (const std::uint32_t e : cells_.held(cells_.cell(at))) {
            const CutEdge& edge = cells_.edge(e);
            near |= distance_to_segment(p, edge.from, edge.from + edge.way) < hair;
        }
        if (!near) return cells_.contains(p);
        const std::size_t before = cuts_.size();
        find(p, {cells_.beyond(), p.y}, 0);
        const std::size_t crossed = cuts_.size() - before;
        cuts_.resize(before);
        return crossed % 2 == 1;
    }

    Point point(const PatternLine& given, const Cut& cut) const {
        const auto& points = given.line.points;
        const Point a = points[cut.segment], b = points[(cut.segment + 1) % points.size()];
        return a + (b - a) * cut.t;
    }

    Ring between(const PatternLine& given, const Cut& from, const Cut& to) const {
        const auto& points = given.line.points;
        const auto n = static_cast<std::uint32_t>(points.size());
        Ring out;
        if (from.segment < to.segment || (!given.line.closed && from.segment == to.segment)) {
            const auto begin = points.begin() + 1;
            out.reserve(to.segment - from.segment + 2); // and its ends, later on
            out.assign(begin + from.segment, begin + to.segment);
            return out;
        }
        const bool round =
            given.line.closed && (to.segment < from.segment || (to.segment == from.segment && to.t < from.t));
        for (std::uint32_t k = from.segment; k != to.segment || (round && out.size() < n); k = (k + 1) % n) {
            out.push_back(points[(k + 1) % n]);
            if (round && (k + 1) % n == to.segment) break;
        }
        return out;
    }

    void piece(const PatternLine& given, const Cut& from, const Cut& to) {
        const Point a = point(given, from), b = point(given, to);
        Ring bends = between(given, from, to);
        const CutEdge &enters = cells_.edge(from.edge), &leaves = cells_.edge(to.edge);
        if (enters.ring == leaves.ring) {
            const double least = std::max(least_, 1e-6);
            double length = distance(bends.empty() ? a : bends.back(), b);
            Point last = a;
            for (auto bend = bends.begin(); bend != bends.end() && length < least; ++bend)
                length += distance(last, *bend), last = *bend;
            if (length < least) return;
        }
        out_.pieces.push_back(
            {{a, enters.ring, enters.index}, {b, leaves.ring, leaves.index}, given.row, std::move(bends)});
    }

    void loose(const PatternLine& given, const Cut& from, const Cut& to) {
        Polyline line{{point(given, from)}, false};
        const Ring bends = between(given, from, to);
        line.points.insert(line.points.end(), bends.begin(), bends.end());
        line.points.push_back(point(given, to));
        if (in_mm(length(line)) >= std::max(least_, 1e-6)) out_.loose.push_back(std::move(line));
    }

    const EdgeCells& cells_;
    double least_;
    std::vector<std::uint32_t> seen_;
    std::uint32_t stamp_ = 0;
    std::vector<Cut> cuts_;
    Pieces out_;
};

} // namespace

Pattern pattern_of(std::vector<PatternLine> lines) {
    Pattern out;
    double length = 0, segments = 1; // of some of the lines
    for (std::size_t i = 0; i < lines.size(); i += 1 + lines.size() / 16)
        length += in_mm(dotlane::length(lines[i].line)),
            segments += static_cast<double>(lines[i].line.points.size());
    out.lines = lines.size(), out.segment = length / segments;
    out.all_reach_out = std::all_of(lines.begin(), lines.end(), [](const PatternLine& line) {
        return line.reaches_out && !line.line.closed;
    });
    out.make = [all = std::make_shared<std::vector<PatternLine>>(std::move(lines))](
                   std::size_t i, PatternLine& line) { line = std::move((*all)[i]); };
    return out;
}

void add_cut(NetMaker& to, const Region& region, const Pattern& pattern, const Affine& lay, double least_mm,
             Progress& progress) {
    if (region.empty() || pattern.lines == 0) return;
    const EdgeCells cells(region, pattern.segment, !pattern.all_reach_out);
    constexpr std::size_t shares = 8; // of the pattern: for each core a few
    std::array<Pieces, shares> parts;
    const Box box = bounds(region);
    const double points =
        static_cast<double>(pattern.lines) * (1 + std::max(box.width(), box.height()) / pattern.segment);
    in_parallel(shares, static_cast<std::size_t>(std::min(points, 1e9)), [&](std::size_t k) {
        Cutter cutter(cells, least_mm);
        PatternLine line;
        const std::size_t end = pattern.lines * (k + 1) / shares;
        for (std::size_t i = pattern.lines * k / shares; i < end; ++i) {
            if (i % 16 == 0 && progress.cancelled()) return;
            pattern.make(i, line);
            for (Point& p : line.line.points)
                p = lay(p);
            cutter.cut(line);
        }
        parts[k] = cutter.take();
    });
    for (Pieces& part : parts) {
        for (Pieces::Piece& piece : part.pieces)
            to.add(piece.from, piece.to, piece.row, std::move(piece.bends));
        for (Polyline& line : part.loose)
            to.add_loose(std::move(line));
    }
}

} // namespace dotlane
