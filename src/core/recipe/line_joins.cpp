#include "core/recipe/line_joins.h"

#include "core/recipe/hatch_link.h"

namespace dotlane {
namespace {

/// Links the pieces into runs along the region's edges.
class Joiner {
  public:
    Joiner(const LineNet& net, Length reach)
        : net_(net)
        , reach_(in_mm(reach)) {
        const auto n = net.ends.size();
        next_.resize(n);
        previous_.resize(n);
        used_.assign(n, 0);
        for (std::size_t r = 0; r + 1 < net.ring_start.size(); ++r)
            for (std::uint32_t i = net.ring_start[r]; i < net.ring_start[r + 1]; ++i) {
                next_[i] = i + 1 == net.ring_start[r + 1] ? net.ring_start[r] : i + 1;
                previous_[next_[i]] = i;
            }
    }

    std::vector<FillRun> runs() {
        const auto lengths = ring_lengths(net_.rings);
        std::vector<FillRun> out;
        for (const std::uint32_t seed : net_.order) {
            if (used_[seed]) continue;
            // The seed's piece is grown at both ends, so a run never starts in the middle of what one run
            // could do.
            used_[seed] = used_[net_.mate[seed]] = 1;
            std::vector<Point> forward = {at(seed)};
            net_.walk_line(seed, forward);
            const std::uint32_t tail = grow(net_.mate[seed], forward);
            std::vector<Point> backward = {at(seed)};
            const std::uint32_t head = grow(seed, backward);
            FillRun run{{backward.rbegin(), backward.rend()}, place(head, lengths), place(tail, lengths)};
            run.points.insert(run.points.end(), forward.begin() + 1, forward.end());
            out.push_back(std::move(run));
        }
        return linked(std::move(out), net_.rings, lengths, reach_);
    }

  private:
    Point at(std::uint32_t c) const { return net_.ends[c].at; }

    RunEnd place(std::uint32_t c, const std::vector<std::vector<double>>& lengths) const {
        const std::uint32_t ring = net_.ring_of(c), edge = net_.ends[c].edge;
        return {ring, lengths[ring][edge] + distance(net_.rings[ring][edge], at(c))};
    }

    /// From the end `c` of a run: along the edge to a free piece's end, across that piece, and on. Returns
    /// where it ends.
    std::uint32_t grow(std::uint32_t c, std::vector<Point>& points) {
        while (true) {
            const std::uint32_t ahead = next_[c], behind = previous_[c];
            const std::uint32_t to = better(c, ahead, behind);
            if (to == none) return c;
            net_.walk_edge(net_.ring_of(c), c, to, to == ahead, points);
            used_[to] = used_[net_.mate[to]] = 1;
            points.push_back(at(to));
            net_.walk_line(to, points);
            c = net_.mate[to];
        }
    }

    static constexpr std::uint32_t none = ~0U;

    /// Both neighbours along the edge are possible; a neighbouring row is better than the same row, and the
    /// row with fewer ways on is better, so that dead ends are taken while one is near.
    std::uint32_t better(std::uint32_t c, std::uint32_t ahead, std::uint32_t behind) const {
        const bool a = ahead != c && !used_[ahead], b = behind != c && !used_[behind];
        if (!a || !b || ahead == behind) return a ? ahead : b ? behind : none;
        const auto same = [&](std::uint32_t o) { return net_.ends[o].row == net_.ends[c].row; };
        if (same(ahead) != same(behind)) return same(ahead) ? behind : ahead;
        return ways_on(ahead) <= ways_on(behind) ? ahead : behind;
    }
    int ways_on(std::uint32_t c) const {
        const std::uint32_t far = net_.mate[c];
        return !used_[next_[far]] + !used_[previous_[far]];
    }

    const LineNet& net_;
    double reach_;
    std::vector<std::uint32_t> next_, previous_; ///< along the ring
    std::vector<char> used_;
};

} // namespace

Polylines joined(const LineNet& net, Length reach) {
    Polylines out = net.loose;
    for (FillRun& run : Joiner(net, reach).runs())
        out.push_back({std::move(run.points), false});
    return out;
}

} // namespace dotlane
