#include "core/geometry/arrangement.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/edge_cuts.h"

namespace dotlane {
namespace {

namespace cl = ClipperLib;

using Index = std::uint32_t;
constexpr Index none = ~Index{0};

/// Pieces of edges as pairs of halves, one for each way along it: half 2k goes from its first node to its
/// second, half 2k + 1 back.
Index twin(Index half) {
    return half ^ 1;
}

/// Counter-clockwise from (1, 0) on, by exact numbers.
bool turns_before(cl::IntPoint a, cl::IntPoint b) {
    const auto lower = [](cl::IntPoint v) { return v.Y < 0 || (v.Y == 0 && v.X < 0); };
    if (lower(a) != lower(b)) return lower(b);
    return side_of({0, 0}, a, b) > 0;
}

class Arrangement {
  public:
    explicit Arrangement(const CutEdges& cut)
        : nodes_(cut.nodes) {
        link(cut.pieces);
    }
    bool wind(const Windings& around);
    cl::Paths outline(const std::function<bool(const Windings&)>& filled);

  private:
    cl::IntPoint way(Index half) const {
        const cl::IntPoint from = nodes_[origin(half)], to = nodes_[target(half)];
        return {to.X - from.X, to.Y - from.Y};
    }
    Index origin(Index half) const { return ends_[half]; }
    Index target(Index half) const { return ends_[twin(half)]; }
    /// What the winding on the left of a half is more than on its right.
    Windings step(Index half) const {
        const Windings& w = weight_[half / 2];
        return half % 2 == 0 ? w : Windings{-w[0], -w[1]};
    }
    void link(const std::vector<CutEdges::Piece>& pieces);
    void merge(Index node);
    /// The next half around the face on the left.
    Index next(Index half) const {
        const Index node = target(half), at = place_[twin(half)];
        return out_[at == begin_[node] ? end_[node] - 1 : at - 1];
    }
    Windings below(Index node) const;
    void make_strips();
    Index kept_after(Index half) const;

    const std::vector<cl::IntPoint>& nodes_;
    std::vector<Index> ends_;      ///< of halves: where each begins
    std::vector<Windings> weight_; ///< of pieces
    std::vector<Index> out_, begin_, end_,
        place_;                  ///< halves that leave each node, by direction; where they stand
    std::vector<Windings> left_; ///< of halves
    std::vector<char> kept_;
    std::vector<Index> strip_begin_, strip_;
    cl::cInt strip_x0_ = 0, strip_width_ = 1;
    std::size_t live_ = 0; ///< halves
};

void Arrangement::link(const std::vector<CutEdges::Piece>& pieces) {
    ends_.reserve(2 * pieces.size());
    weight_.reserve(pieces.size());
    begin_.assign(nodes_.size() + 1, 0);
    for (const auto& piece : pieces) {
        ends_.push_back(piece.from), ends_.push_back(piece.to);
        Windings w{};
        w[piece.kind] = 1;
        weight_.push_back(w);
        ++begin_[piece.from + 1], ++begin_[piece.to + 1];
    }
    for (std::size_t n = 1; n < begin_.size(); ++n)
        begin_[n] += begin_[n - 1];
    end_.assign(begin_.begin(), begin_.end() - 1);
    out_.resize(ends_.size());
    place_.assign(ends_.size(), none);
    for (Index half = 0; half < ends_.size(); ++half)
        out_[end_[ends_[half]]++] = half;
    for (Index node = 0; node < nodes_.size(); ++node)
        merge(node);
    for (Index node = 0; node < nodes_.size(); ++node) { // both ends of a piece have seen what it weighs
        Index to = begin_[node];
        for (Index i = begin_[node]; i < end_[node]; ++i)
            if (const Windings& w = weight_[out_[i] / 2]; w[0] != 0 || w[1] != 0) {
                place_[out_[i]] = to;
                out_[to++] = out_[i];
            }
        end_[node] = to;
        live_ += to - begin_[node];
    }
}

/// Sorts what leaves a node by direction, once around; pieces that lie on one another become the first of
/// them.
void Arrangement::merge(Index node) {
    const auto from = out_.begin() + begin_[node], to = out_.begin() + end_[node];
    if (to - from < 2 || (to - from == 2 && target(*from) != target(from[1])))
        return; // two: any order is one
    std::sort(from, to, [&](Index a, Index b) {
        if (target(a) == target(b)) return a / 2 < b / 2;
        const cl::IntPoint u = way(a), v = way(b);
        return turns_before(u, v) || (!turns_before(v, u) && target(a) < target(b));
    });
    auto kept = from;
    for (auto it = from; it != to; ++it) {
        if (it != from && target(*it) == target(*kept)) {
            const int sign = *kept % 2 == *it % 2 ? 1 : -1;
            if (node < target(*it)) // once for both ends
                for (const int kind : {0, 1})
                    weight_[*kept / 2][kind] += sign * weight_[*it / 2][kind];
            continue;
        }
        if (it != from) ++kept;
        *kept = *it;
    }
    end_[node] = static_cast<Index>(kept + 1 - out_.begin());
}

void Arrangement::make_strips() {
    cl::cInt x0 = nodes_.front().X, x1 = x0;
    for (const cl::IntPoint p : nodes_)
        x0 = std::min(x0, p.X), x1 = std::max(x1, p.X);
    const auto count = static_cast<cl::cInt>(std::sqrt(static_cast<double>(weight_.size()))) + 1;
    strip_x0_ = x0, strip_width_ = (x1 - x0) / count + 1;
    const auto each = [&](auto take) {
        for (Index k = 0; k < weight_.size(); ++k) {
            if (place_[2 * k] == none) continue;
            const auto [a, b] = std::minmax(nodes_[ends_[2 * k]].X, nodes_[ends_[2 * k + 1]].X);
            for (cl::cInt s = (a - x0) / strip_width_; s <= (b - x0) / strip_width_; ++s)
                take(static_cast<std::size_t>(s), k);
        }
    };
    strip_begin_.assign(static_cast<std::size_t>(count) + 2, 0);
    each([&](std::size_t s, Index) { ++strip_begin_[s + 1]; });
    for (std::size_t s = 1; s < strip_begin_.size(); ++s)
        strip_begin_[s] += strip_begin_[s - 1];
    strip_.resize(strip_begin_.back());
    std::vector<Index> at = strip_begin_;
    each([&](std::size_t s, Index k) { strip_[at[s]++] = k; });
}

/// What winds around the place just below a node, by all that passes under it.
Windings Arrangement::below(Index node) const {
    const cl::IntPoint p = nodes_[node];
    const auto s = static_cast<std::size_t>((p.X - strip_x0_) / strip_width_);
    Windings out{};
    for (Index i = strip_begin_[s]; i < strip_begin_[s + 1]; ++i) {
        const Index k = strip_[i];
        const cl::IntPoint a = nodes_[ends_[2 * k]], b = nodes_[ends_[2 * k + 1]];
        if ((a.X <= p.X) == (b.X <= p.X)) continue;
        const bool forward = a.X < b.X;
        if ((forward ? side_of(a, b, p) : side_of(b, a, p)) <= 0) continue;
        for (const int kind : {0, 1})
            out[kind] += forward ? weight_[k][kind] : -weight_[k][kind];
    }
    return out;
}

/// Hands windings on from face to face of what hangs together; what lies apart asks what passes below it.
bool Arrangement::wind(const Windings& around) {
    left_.resize(ends_.size());
    std::vector<char> known(ends_.size(), 0);
    std::vector<Index> open, all;
    bool agree = true;
    for (Index first = 0; first < ends_.size(); ++first) {
        if (known[first] || place_[first] == none) continue;
        known[first] = 1, left_[first] = {};
        open.assign(1, first), all.clear();
        Index lowest = origin(first);
        const auto hand_on = [&](Index to, const Windings& w) {
            if (known[to]) {
                agree &= left_[to][0] == w[0] && left_[to][1] == w[1];
                return;
            }
            known[to] = 1, left_[to] = w;
            open.push_back(to);
        };
        while (!open.empty()) {
            const Index half = open.back();
            open.pop_back();
            all.push_back(half);
            const cl::IntPoint p = nodes_[origin(half)], q = nodes_[lowest];
            if (p.Y < q.Y || (p.Y == q.Y && p.X < q.X)) lowest = origin(half);
            const Windings here = left_[half], over = step(half);
            hand_on(next(half), here);
            hand_on(twin(half), {here[0] - over[0], here[1] - over[1]});
        }
        // All that leaves the lowest node goes up: left of the last of it is the place below.
        const Index last = *std::max_element(out_.begin() + begin_[lowest], out_.begin() + end_[lowest],
                                             [&](Index a, Index b) { return turns_before(way(a), way(b)); });
        const Windings given = left_[last];
        Windings more = around;
        if (all.size() < live_) {
            if (strip_.empty()) make_strips();
            const Windings under = below(lowest);
            more[0] += under[0], more[1] += under[1];
        }
        for (const Index half : all)
            left_[half][0] += more[0] - given[0], left_[half][1] += more[1] - given[1];
    }
    return agree;
}

Index Arrangement::kept_after(Index half) const {
    for (Index h = next(half);; h = next(twin(h)))
        if (kept_[h]) return h;
}

cl::Paths Arrangement::outline(const std::function<bool(const Windings&)>& filled) {
    kept_.assign(ends_.size(), 0);
    std::vector<char> inside(ends_.size(), 0);
    for (Index half = 0; half < ends_.size(); ++half)
        if (place_[half] != none) inside[half] = filled(left_[half]);
    for (Index half = 0; half < ends_.size(); ++half)
        kept_[half] = inside[half] && !inside[twin(half)];
    cl::Paths out;
    std::vector<char> done(ends_.size(), 0);
    std::vector<Index> at(nodes_.size(), none), path;
    const auto cut_off =
        [&](std::size_t from) { // what has come back to a node on its way is a ring by itself
            cl::Path ring;
            for (std::size_t i = from; i < path.size(); ++i) {
                at[path[i]] = none;
                ring.push_back(nodes_[path[i]]);
            }
            path.resize(from);
            std::size_t size = 0; // points on a straight line go
            for (std::size_t i = 0; i < ring.size(); ++i) {
                const cl::IntPoint before = size > 0 ? ring[size - 1] : ring.back();
                if (side_of(before, ring[i], ring[i + 1 < ring.size() ? i + 1 : 0]) != 0)
                    ring[size++] = ring[i];
            }
            ring.resize(size);
            if (size >= 3) out.push_back(std::move(ring));
        };
    for (Index first = 0; first < ends_.size(); ++first) {
        if (!kept_[first] || done[first]) continue;
        Index half = first;
        do {
            done[half] = 1;
            const Index node = origin(half);
            if (at[node] != none) cut_off(at[node]);
            at[node] = static_cast<Index>(path.size());
            path.push_back(node);
            half = kept_after(half);
        } while (half != first);
        cut_off(0);
    }
    const auto less = [](cl::IntPoint a, cl::IntPoint b) { return a.X != b.X ? a.X < b.X : a.Y < b.Y; };
    for (cl::Path& ring : out)
        std::rotate(ring.begin(), std::min_element(ring.begin(), ring.end(), less), ring.end());
    std::sort(out.begin(), out.end(), [&](const cl::Path& a, const cl::Path& b) {
        return std::lexicographical_compare(a.begin(), a.end(), b.begin(), b.end(), less);
    });
    return out;
}

} // namespace

std::optional<cl::Paths> outlined(const RingLists& rings, const Windings& around,
                                  const std::function<bool(const Windings&)>& filled) {
    const auto cut = cut_edges(rings);
    if (!cut) return std::nullopt;
    if (cut->pieces.empty()) return cl::Paths{};
    Arrangement arrangement(*cut);
    if (!arrangement.wind(around)) return std::nullopt;
    return arrangement.outline(filled);
}

} // namespace dotlane
