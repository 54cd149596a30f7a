#include "core/recipe/hatch.h"

#include <algorithm>
#include <cmath>

#include "core/recipe/hatch_link.h"
#include "core/recipe/hatch_scan.h"

namespace dotlane {
namespace {

/// Where a ring's edge meets a hatch row.
struct Crossing {
    double x;
    std::uint32_t row;
    std::uint32_t edge; ///< index of the edge's first point in its ring
};

/// A crossing in the order of its row: its x beside its index, so that rows are sorted and read without
/// looking up crossings that lie far apart in memory.
struct InRow {
    double x;
    std::uint32_t crossing;
};

/// Every crossing in ring order and, per row, sorted by x.
class Crossings {
  public:
    explicit Crossings(const HatchScan& scan)
        : rings_(scan.rings)
        , rows_(scan.rows) {
        row_start_.assign(rows_.count + 1, 0);
        crossings_.reserve(scan.expected());
        for (const Ring& ring : rings_) {
            for (std::uint32_t i = 0; i < ring.size(); ++i) {
                const HatchEdge e = scan.edge(ring, i);
                const bool down = e.b.y > e.a.y;
                for (std::uint32_t n = 0; n < e.end - e.begin; ++n) {
                    const std::uint32_t row = down ? e.begin + n : e.end - 1 - n;
                    crossings_.push_back({e.x(rows_.y(row)), row, i});
                    ++row_start_[row + 1];
                }
            }
            ring_start_.push_back(static_cast<std::uint32_t>(crossings_.size()));
        }
        sort_rows();
    }

    const std::vector<Ring>& rings_;
    const HatchRows& rows_;
    std::vector<std::uint32_t> ring_start_{0};
    std::vector<Crossing> crossings_;
    std::vector<std::uint32_t> row_start_;
    std::vector<InRow> by_row_;

  private:
    void sort_rows() {
        for (std::uint32_t k = 0; k < rows_.count; ++k)
            row_start_[k + 1] += row_start_[k];
        by_row_.resize(crossings_.size());
        auto at = row_start_;
        for (std::uint32_t i = 0; i < crossings_.size(); ++i)
            by_row_[at[crossings_[i].row]++] = {crossings_[i].x, i};
        for (std::uint32_t k = 0; k < rows_.count; ++k)
            std::sort(by_row_.begin() + row_start_[k], by_row_.begin() + row_start_[k + 1],
                      [](const InRow& a, const InRow& b) { return a.x < b.x; });
    }
};

/// Links the pieces into runs along the region's edges.
class Joiner {
  public:
    Joiner(const Crossings& scan, Length reach)
        : scan_(scan)
        , reach_(in_mm(reach)) {
        const auto n = scan.crossings_.size();
        mate_.resize(n);
        next_.resize(n);
        previous_.resize(n);
        used_.assign(n, 0);
        for (std::size_t r = 0; r + 1 < scan.ring_start_.size(); ++r)
            for (std::uint32_t i = scan.ring_start_[r]; i < scan.ring_start_[r + 1]; ++i) {
                next_[i] = i + 1 == scan.ring_start_[r + 1] ? scan.ring_start_[r] : i + 1;
                previous_[next_[i]] = i;
            }
        for (std::size_t k = 0; k + 1 < scan.row_start_.size(); ++k)
            for (std::uint32_t j = scan.row_start_[k]; j + 1 < scan.row_start_[k + 1]; j += 2) {
                const std::uint32_t a = scan.by_row_[j].crossing, b = scan.by_row_[j + 1].crossing;
                mate_[a] = b, mate_[b] = a;
            }
    }

    std::vector<FillRun> runs() {
        const auto lengths = ring_lengths(scan_.rings_);
        std::vector<FillRun> out;
        for (std::uint32_t j = 0; j < scan_.by_row_.size(); ++j) {
            const std::uint32_t seed = scan_.by_row_[j].crossing;
            if (used_[seed]) continue;
            // The seed's piece is grown at both ends, so a run never starts in the middle of what one run
            // could do.
            used_[seed] = used_[mate_[seed]] = 1;
            std::vector<Point> forward = {at(seed), at(mate_[seed])};
            const std::uint32_t tail = grow(mate_[seed], forward);
            std::vector<Point> backward = {at(seed)};
            const std::uint32_t head = grow(seed, backward);
            FillRun run{{backward.rbegin(), backward.rend()}, place(head, lengths), place(tail, lengths)};
            run.points.insert(run.points.end(), forward.begin() + 1, forward.end());
            out.push_back(std::move(run));
        }
        return linked(std::move(out), scan_.rings_, lengths, reach_);
    }

  private:
    Point at(std::uint32_t c) const {
        return {scan_.crossings_[c].x, scan_.rows_.y(scan_.crossings_[c].row)};
    }

    std::uint32_t ring_of(std::uint32_t c) const {
        return static_cast<std::uint32_t>(
            std::upper_bound(scan_.ring_start_.begin(), scan_.ring_start_.end(), c) -
            scan_.ring_start_.begin() - 1);
    }

    RunEnd place(std::uint32_t c, const std::vector<std::vector<double>>& lengths) const {
        const std::uint32_t ring = ring_of(c), edge = scan_.crossings_[c].edge;
        return {ring, lengths[ring][edge] + distance(scan_.rings_[ring][edge], at(c))};
    }

    /// From the end `c` of a run: along the edge to a free piece's end, across that piece, and on. Returns
    /// where it ends.
    std::uint32_t grow(std::uint32_t c, std::vector<Point>& points) {
        while (true) {
            const std::uint32_t ahead = next_[c], behind = previous_[c];
            const std::uint32_t to = better(c, ahead, behind);
            if (to == none) return c;
            follow_edge(c, to, to == ahead, points);
            used_[to] = used_[mate_[to]] = 1;
            points.push_back(at(to));
            points.push_back(at(mate_[to]));
            c = mate_[to];
        }
    }

    static constexpr std::uint32_t none = ~0U;

    /// Both neighbours along the edge are possible; a neighbouring row is better than the same row, and the
    /// row with fewer ways on is better, so that dead ends are taken while one is near.
    std::uint32_t better(std::uint32_t c, std::uint32_t ahead, std::uint32_t behind) const {
        const bool a = ahead != c && !used_[ahead], b = behind != c && !used_[behind];
        if (!a || !b || ahead == behind) return a ? ahead : b ? behind : none;
        const auto same = [&](std::uint32_t o) { return scan_.crossings_[o].row == scan_.crossings_[c].row; };
        if (same(ahead) != same(behind)) return same(ahead) ? behind : ahead;
        return ways_on(ahead) <= ways_on(behind) ? ahead : behind;
    }
    int ways_on(std::uint32_t c) const {
        const std::uint32_t far = mate_[c];
        return !used_[next_[far]] + !used_[previous_[far]];
    }

    /// The ring's own points between two neighbouring crossings.
    void follow_edge(std::uint32_t from, std::uint32_t to, bool ahead, std::vector<Point>& points) const {
        const Ring& ring = scan_.rings_[ring_of(from)];
        const auto n = static_cast<std::uint32_t>(ring.size());
        const std::uint32_t a = scan_.crossings_[from].edge, b = scan_.crossings_[to].edge;
        // Two crossings on one edge normally have nothing between them, except when the way leads all round.
        const bool round = a == b && (ahead ? from > to : from < to);
        if (a == b && !round) return;
        if (ahead)
            for (std::uint32_t i = (a + 1) % n;; i = (i + 1) % n) {
                points.push_back(ring[i]);
                if (i == b) break;
            }
        else
            for (std::uint32_t i = a;; i = (i + n - 1) % n) {
                points.push_back(ring[i]);
                if (i == (b + 1) % n) break;
            }
    }

    const Crossings& scan_;
    double reach_;
    std::vector<std::uint32_t> mate_, next_, previous_; ///< along the row; along the ring
    std::vector<char> used_;
};

} // namespace

HatchResult hatch(const Region& region, const HatchOptions& options, Progress& progress) {
    HatchResult out;
    DOTLANE_CHECK(in_mm(options.spacing) > 0);
    const HatchScan scan(region, options);
    if (scan.rows.count == 0) return out;
    const Affine back = Affine::rotation(in_radians(options.angle));
    double filled = 0;
    const auto count = [&](std::size_t row_crossings, const auto& x) {
        ++out.rows;
        for (std::size_t j = 0; j + 1 < row_crossings; j += 2) {
            ++out.pieces;
            filled += x(j + 1) - x(j);
        }
    };
    if (options.joined) {
        const Crossings crossings(scan);
        if (progress.cancelled()) return out;
        for (std::uint32_t k = 0; k < scan.rows.count; ++k)
            if (const std::uint32_t from = crossings.row_start_[k], to = crossings.row_start_[k + 1];
                from != to)
                count(to - from, [&](std::size_t j) { return crossings.by_row_[from + j].x; });
        for (FillRun& run : Joiner(crossings, options.reach).runs()) {
            for (Point& p : run.points)
                p = back(p);
            out.lines.push_back({std::move(run.points), false});
        }
    } else {
        out.lines.reserve(scan.expected() / 2);
        scan.sweep([&](std::uint32_t k, std::span<const double> x) {
            count(x.size(), [&](std::size_t j) { return x[j]; });
            const double y = scan.rows.y(k);
            const bool backwards = options.alternate && k % 2 == 1;
            const std::size_t pieces = x.size() / 2;
            for (std::size_t n = 0; n < pieces; ++n) {
                const std::size_t j = 2 * (backwards ? pieces - 1 - n : n);
                Point a{x[j], y}, b{x[j + 1], y};
                if (backwards) std::swap(a, b);
                out.lines.push_back({{back(a), back(b)}, false});
            }
        });
    }
    out.filled = mm(filled);
    return out;
}

} // namespace dotlane
