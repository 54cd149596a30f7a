#include "core/recipe/hatch.h"

#include <algorithm>
#include <cmath>

#include "core/recipe/hatch_link.h"

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

struct Rows {
    double first = 0; ///< y of row 0
    double spacing = 1;
    std::uint32_t count = 0;
    double y(std::uint32_t row) const { return first + row * spacing; }
};

/// Rings turned level, with every crossing in ring order and, per row, sorted by x.
class Scan {
  public:
    Scan(const Region& region, const HatchOptions& options) {
        const double turn = in_radians(options.angle);
        const Affine level = Affine::rotation(-turn);
        Box box;
        rings_.reserve(region.rings.size());
        for (const Ring& ring : region.rings) {
            Ring turned;
            turned.reserve(ring.size());
            for (const Point p : ring) {
                turned.push_back(level(p));
                box.add(turned.back());
            }
            rings_.push_back(std::move(turned));
        }
        if (!box.empty()) choose_rows(box, in_mm(options.spacing), options.phase);
    }

    void cross() {
        double expected = 0;
        for (const Ring& ring : rings_)
            for (std::size_t i = 0; i < ring.size(); ++i)
                expected += std::abs(ring[i].y - ring[i + 1 == ring.size() ? 0 : i + 1].y);
        row_start_.assign(rows_.count + 1, 0);
        crossings_.reserve(static_cast<std::size_t>(expected / rows_.spacing) + rings_.size());
        for (std::uint32_t r = 0; r < rings_.size(); ++r)
            cross_ring(r);
        sort_rows();
    }

    std::vector<Ring> rings_;
    std::vector<std::uint32_t> ring_start_{0};
    std::vector<Crossing> crossings_;
    std::vector<std::uint32_t> row_start_;
    std::vector<InRow> by_row_;
    Rows rows_;

  private:
    void choose_rows(const Box& box, double spacing, HatchOptions::Phase phase) {
        rows_.spacing = spacing;
        const double extent = box.height();
        if (phase == HatchOptions::Phase::centred) {
            // A hair less than the extent, so that rounding never puts a row on the very edge; a bundle that
            // fits exactly keeps its last line just inside.
            const double room = extent * (1 - 1e-12);
            const auto steps = std::floor(room / spacing);
            rows_.first = box.y0 + (extent - steps * spacing) / 2;
            rows_.count = static_cast<std::uint32_t>(steps) + 1;
        } else {
            const double k = std::ceil(box.y0 / spacing - 0.5);
            rows_.first = (k + 0.5) * spacing;
            rows_.count =
                rows_.first > box.y1 ? 0 : static_cast<std::uint32_t>((box.y1 - rows_.first) / spacing) + 1;
        }
    }

    void cross_ring(std::uint32_t r) {
        const Ring& ring = rings_[r];
        for (std::uint32_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i], b = ring[i + 1 == ring.size() ? 0 : i + 1];
            if (a.y == b.y) continue;
            // Half-open rule: an edge owns its upper end only, so a vertex on a row counts once or twice as
            // it must.
            const double lo = std::min(a.y, b.y), hi = std::max(a.y, b.y);
            auto k0 = static_cast<std::int64_t>(std::ceil((lo - rows_.first) / rows_.spacing));
            k0 = std::max<std::int64_t>(k0, 0);
            while (k0 > 0 && rows_.y(static_cast<std::uint32_t>(k0 - 1)) >= lo)
                --k0;
            while (k0 < rows_.count && rows_.y(static_cast<std::uint32_t>(k0)) < lo)
                ++k0;
            std::int64_t k1 = k0;
            while (k1 < rows_.count && rows_.y(static_cast<std::uint32_t>(k1)) < hi)
                ++k1;
            const double slope = (b.x - a.x) / (b.y - a.y);
            const bool down = b.y > a.y;
            for (std::int64_t n = 0; n < k1 - k0; ++n) {
                const auto row = static_cast<std::uint32_t>(down ? k0 + n : k1 - 1 - n);
                const double x =
                    std::clamp(a.x + (rows_.y(row) - a.y) * slope, std::min(a.x, b.x), std::max(a.x, b.x));
                crossings_.push_back({x, row, i});
                ++row_start_[row + 1];
            }
        }
        ring_start_.push_back(static_cast<std::uint32_t>(crossings_.size()));
    }

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
    Joiner(const Scan& scan, Length reach)
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

    const Scan& scan_;
    double reach_;
    std::vector<std::uint32_t> mate_, next_, previous_; ///< along the row; along the ring
    std::vector<char> used_;
};

} // namespace

HatchResult hatch(const Region& region, const HatchOptions& options, Progress& progress) {
    HatchResult out;
    DOTLANE_CHECK(in_mm(options.spacing) > 0);
    Scan scan(region, options);
    if (scan.rows_.count == 0) return out;
    scan.cross();
    if (progress.cancelled()) return out;
    double filled = 0;
    for (std::size_t k = 0; k + 1 < scan.row_start_.size(); ++k) {
        if (scan.row_start_[k] != scan.row_start_[k + 1]) ++out.rows;
        for (std::uint32_t j = scan.row_start_[k]; j + 1 < scan.row_start_[k + 1]; j += 2) {
            ++out.pieces;
            filled += scan.by_row_[j + 1].x - scan.by_row_[j].x;
        }
    }
    out.filled = mm(filled);
    const Affine back = Affine::rotation(in_radians(options.angle));
    if (options.joined) {
        for (FillRun& run : Joiner(scan, options.reach).runs()) {
            for (Point& p : run.points)
                p = back(p);
            out.lines.push_back({std::move(run.points), false});
        }
        return out;
    }
    out.lines.reserve(out.pieces);
    for (std::uint32_t k = 0; k < scan.rows_.count; ++k) {
        const double y = scan.rows_.y(k);
        const std::size_t first = out.lines.size();
        for (std::uint32_t j = scan.row_start_[k]; j + 1 < scan.row_start_[k + 1]; j += 2) {
            Point a{scan.by_row_[j].x, y}, b{scan.by_row_[j + 1].x, y};
            if (options.alternate && k % 2 == 1) std::swap(a, b);
            out.lines.push_back({{back(a), back(b)}, false});
        }
        if (options.alternate && k % 2 == 1)
            std::reverse(out.lines.begin() + static_cast<std::ptrdiff_t>(first), out.lines.end());
    }
    return out;
}

} // namespace dotlane
