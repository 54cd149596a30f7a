#include "core/recipe/one_stroke.h"

#include <algorithm>
#include <array>
#include <bit>
#include <boost/sort/spreadsort/integer_sort.hpp>
#include <cmath>
#include <unordered_map>
#include <utility>

#include "core/base/parallel.h"
#include "core/base/sets.h"

namespace dotlane {
namespace {

using Index = std::uint32_t;
constexpr Index none = ~0U;

/// Units around a ring, from unit `from` up to, not including, `to`; both count on past the last one.
struct Interval {
    Index ring = none, from = 0, to = 0;
    double gain = 0;
};

class Postman {
  public:
    Postman(const LineNet& net, Progress& progress)
        : net_(net)
        , progress_(progress)
        , way_(net.ways())
        , n_(static_cast<Index>(net.ends.size()))
        , begins_(net.ends.size() + 1, 0)
        , ring_(net.ends.size())
        , once_(net.ends.size(), 0)
        , even_(net.ends.size(), 0)
        , twice_(net.ends.size(), 0)
        , sets_(net.ends.size()) {
        for (Index r = 0; r + 1 < net.ring_start.size(); ++r)
            std::fill(ring_.begin() + net.ring_start[r], ring_.begin() + net.ring_start[r + 1], r);
        for (const Index begin : net.ring_start)
            begins_[begin] = 1;
    }

    Polylines strokes() {
        const auto components = rings_of_components();
        std::vector<std::vector<Index>> ended; // of each component: rings with an end of the stroke
        for (const auto& rings : components) {
            if (progress_.cancelled()) return {};
            ended.push_back(tie_odd_rings(rings));
            for (const Index ring : rings)
                alternate(ring);
        }
        find_units();
        in_parallel(components.size(), n_, [&](std::size_t k) {
            if (!progress_.cancelled()) choose(components[k], ended[k]);
        });
        for (const Unit& unit : units_)
            for (Index a = unit.first; unit.turned && unit.across != none && a < unit.first + unit.count; ++a)
                once_[a] ^= 1;
        if (progress_.cancelled()) return {};
        connect();
        if (progress_.cancelled()) return {};
        return walk();
    }

  private:
    /// Arcs that are turned as one. Between two lines that are neighbours on both sides lie two arcs across
    /// from one another; a run of such, up a limb of the region, is a unit on each side. Every other arc is a
    /// unit of its own.
    struct Unit {
        Index first, count;
        Index across =
            none; ///< the unit on the other side; none: a single arc, whose face has more or fewer lines
        Index costs = 0;    ///< of the two, in `costs_`
        bool lower = false; ///< of the two, the one whose turn `Costs` counts first
        bool turned = false;
    };
    using Costs = std::array<double, 4>; ///< by whether the lower one (2) and the other (1) are turned

    Index count(Index ring) const { return net_.ring_start[ring + 1] - net_.ring_start[ring]; }
    Index units(Index ring) const { return unit_start_[ring + 1] - unit_start_[ring]; }
    Index next(Index end) const { return begins_[end + 1] ? net_.ring_start[ring_[end]] : end + 1; }
    Index previous(Index end) const { return begins_[end] ? net_.ring_start[ring_[end] + 1] - 1 : end - 1; }
    Index line(Index end) const { return std::min(end, net_.mate[end]); }

    /// The arc across; none where there are not two lines and two arcs.
    Index across(Index a) const {
        const Index other = net_.mate[next(a)];
        return other != a && next(other) == net_.mate[a] ? other : none;
    }

    void find_units() {
        unit_of_.assign(n_, none);
        for (Index r = 0; r + 1 < net_.ring_start.size(); ++r) {
            unit_start_.push_back(static_cast<Index>(units_.size()));
            Index last = none; // across from the arc before
            for (Index a = net_.ring_start[r]; a < net_.ring_start[r + 1]; ++a) {
                const Index other = across(a);
                // Where the other side's ring begins anew a run ends too, so that runs are the same on both
                // sides.
                if (other != none && last != none && other + 1 == last)
                    ++units_.back().count;
                else
                    units_.push_back({a, 1});
                unit_of_[a] = static_cast<Index>(units_.size() - 1);
                last = other;
            }
        }
        unit_start_.push_back(static_cast<Index>(units_.size()));
        for (Index u = 0; u < units_.size(); ++u) {
            Unit& unit = units_[u];
            Index other = across(unit.first);
            if (other == none) continue;
            unit.across = unit_of_[other];
            unit.lower = u < unit.across;
            if (!unit.lower) {
                unit.costs = units_[unit.across].costs;
                continue;
            }
            unit.costs = static_cast<Index>(costs_.size());
            Costs& costs = costs_.emplace_back();
            for (Index a = unit.first; a < unit.first + unit.count; ++a, other = previous(other))
                add_costs(costs, 2 * once_[a] + once_[other], way_[a], way_[other]);
        }
    }

    /// Of two lines' arcs, `once` of them gone once before they are turned (2: a, 1: b): one or both gone
    /// once, or the shorter to and fro.
    static void add_costs(Costs& costs, int once, double way_a, double way_b) {
        const Costs between{2 * std::min(way_a, way_b), way_b, way_a, way_a + way_b};
        for (int turned = 0; turned < 4; ++turned)
            costs[static_cast<std::size_t>(turned)] += between[static_cast<std::size_t>(once ^ turned)];
    }

    /// Rings whose lines hang together.
    std::vector<std::vector<Index>> rings_of_components() const {
        Sets sets(net_.rings.size());
        for (Index e = 0; e < net_.ends.size(); ++e)
            if (e < net_.mate[e]) sets.unite(ring_[e], ring_[net_.mate[e]]);
        std::unordered_map<Index, std::size_t> number;
        std::vector<std::vector<Index>> out;
        for (Index r = 0; r < net_.rings.size(); ++r) {
            if (count(r) == 0) continue;
            const auto [it, fresh] = number.try_emplace(sets.of(r), out.size());
            if (fresh) out.emplace_back();
            out[it->second].push_back(r);
        }
        return out;
    }

    /// The way that arcs of a face take: those gone once, and all others but the longest to and fro, which
    /// ties its lines together. Exact where the region has no hole.
    double cost_of_face(Index arc) const {
        double sum = 0, longest = 0;
        Index a = arc;
        do {
            if (once_[a])
                sum += way_[a];
            else
                sum += 2 * way_[a], longest = std::max(longest, way_[a]);
            a = net_.mate[next(a)];
        } while (a != arc);
        return sum - 2 * longest;
    }

    double cost(const Unit& unit) const {
        if (unit.across == none) return cost_of_face(unit.first);
        const bool other = units_[unit.across].turned;
        return costs_[unit.costs][unit.lower ? 2 * unit.turned + other : 2 * other + unit.turned];
    }

    /// Turns a unit's arcs around, and tells what that saves.
    double turn(Index u) {
        Unit& unit = units_[u];
        const double before = cost(unit);
        flip(unit);
        return before - cost(unit);
    }
    void flip(Unit& unit) {
        unit.turned = !unit.turned;
        if (unit.across == none) once_[unit.first] ^= 1;
    }

    double turn_ring(Index ring) {
        double gain = 0;
        for (Index u = unit_start_[ring]; u < unit_start_[ring + 1]; ++u)
            gain += turn(u);
        return gain;
    }

    double turn(const Interval& interval) {
        double gain = 0;
        if (interval.ring == none) return gain;
        const Index n = units(interval.ring), first = unit_start_[interval.ring];
        for (Index k = interval.from; k < interval.to; ++k)
            gain += turn(first + k % n);
        return gain;
    }

    /// Arcs alternate around the ring, but for ends that meet an even number of ways as it is.
    void alternate(Index ring) {
        bool once = true;
        for (Index i = net_.ring_start[ring]; i < net_.ring_start[ring + 1]; ++i) {
            if (i > net_.ring_start[ring] && !even_[i]) once = !once;
            once_[i] = once;
        }
    }

    /// Lines that begin or end within the region's box may leave an odd number of ends on a ring. Two such
    /// rings have an end of the stroke each; lines between the others are gone twice. Returns those two, if
    /// any.
    std::vector<Index> tie_odd_rings(const std::vector<Index>& rings) {
        std::vector<Index> odd;
        for (const Index ring : rings)
            if (count(ring) % 2 == 1) odd.push_back(ring);
        if (odd.empty()) return {};
        for (std::size_t k = 2; k + 1 < odd.size(); k += 2)
            for (const Index end : lines_between(odd[k], odd[k + 1])) {
                twice_[line(end)] ^= 1;
                even_[end] ^= 1, even_[net_.mate[end]] ^= 1;
            }
        odd.resize(2);
        for (const Index ring : odd)
            even_[net_.ring_start[ring]] ^= 1;
        return odd;
    }

    /// Ends of lines by which one ring is reached from another over as few rings as can be.
    std::vector<Index> lines_between(Index from, Index to) const {
        std::unordered_map<Index, Index> by{
            {from, none}}; // the end on the ring before, by the ring that it leads to
        std::vector<Index> open{from};
        for (std::size_t k = 0; k < open.size() && !by.contains(to); ++k)
            for (Index e = net_.ring_start[open[k]]; e < net_.ring_start[open[k] + 1]; ++e)
                if (const Index ring = ring_[net_.mate[e]]; by.try_emplace(ring, e).second)
                    open.push_back(ring);
        std::vector<Index> out;
        for (Index at = to; at != from; at = ring_[out.back()])
            out.push_back(by.at(at));
        return out;
    }

    /// Moves the place where a ring's arcs do not alternate around it, to where that saves most.
    void place_break(Index ring) {
        const Index n = units(ring), first = unit_start_[ring];
        double gain = 0, best = 0;
        Index at = 0;
        for (Index k = 0; k < n; ++k) {
            gain += turn(first + k);
            if (gain > best + 1e-9) best = gain, at = k + 1;
        }
        for (Index k = at; k < n; ++k) // all were turned
            flip(units_[first + k]);
    }

    void choose(const std::vector<Index>& rings, const std::vector<Index>& ended) {
        if (!ended.empty()) {
            turn_while_it_saves(rings);
            // Where another ring's arcs do not alternate, a line is gone twice: that has to stay.
            for (const Index ring : ended)
                if (even_[net_.ring_start[ring]]) place_break(ring);
            turn_while_it_saves(rings);
            return;
        }
        std::size_t many = 0;
        for (const Index ring : rings)
            many += units(ring);
        // All choices of bits where that costs little; otherwise each ring in turn, as long as that saves.
        const std::size_t choices = std::size_t{1} << std::min<std::size_t>(rings.size() - 1, 20);
        if (rings.size() > 6 || choices * many > 1200) {
            turn_while_it_saves(rings);
            turn(best_interval(rings, many));
            turn_while_it_saves(rings);
            return;
        }
        double gone = 0, best_gain = -1e300;
        std::size_t best_bits = 0;
        Interval best;
        const auto turn_between = [&](std::size_t a, std::size_t b) {
            double gain = 0;
            for (std::size_t r = 0; r + 1 < rings.size(); ++r)
                if ((a ^ b) >> r & 1) gain += turn_ring(rings[r + 1]);
            return gain;
        };
        const auto gray = [](std::size_t k) {
            return k ^ (k >> 1);
        }; // one ring turns at a time (F. Gray 1947)
        for (std::size_t k = 0; k < choices; ++k) {
            if (k > 0) gone += turn_between(gray(k - 1), gray(k));
            const Interval now = best_interval(rings, many);
            if (gone + now.gain > best_gain) best_gain = gone + now.gain, best_bits = gray(k), best = now;
        }
        turn_between(gray(choices - 1), best_bits);
        turn(best);
    }

    /// Each turn makes the whole shorter, so this ends; a few rounds are enough in practice.
    void turn_while_it_saves(const std::vector<Index>& rings) {
        for (int round = 0; round < 8; ++round) {
            bool turned = false;
            for (const Index ring : rings)
                if (turn_ring(ring) > 1e-9)
                    turned = true;
                else
                    turn_ring(ring);
            if (!turned) break;
        }
    }

    /// The best end of a run of units that begins at unit `from` of the ring (`ahead`) or that ends before
    /// it.
    Interval sweep(Index ring, Index from, bool ahead) {
        const Index n = units(ring), first = unit_start_[ring];
        Interval best{ring, from, from, -1e300};
        double gain = 0;
        Index last = 0;
        const auto at = [&](Index k) { return ahead ? (from + k) % n : (from + n - 1 - k) % n; };
        for (Index k = 0; k + 1 < n;
             ++k, last = k) { // never all round: two ends of the stroke are two places
            gain += turn(first + at(k));
            if (gain <= best.gain) continue;
            best = ahead ? Interval{ring, from, from + k + 1, gain}
                         : Interval{ring, from + n - 1 - k, from + n, gain};
        }
        for (Index k = 0; k < last; ++k)
            flip(units_[first + at(k)]);
        return best;
    }

    Interval best_interval(const std::vector<Index>& rings, std::size_t many) {
        Interval best;
        for (const Index ring : rings) {
            const Index n = units(ring);
            const Index starts = many <= 40 ? n : std::min<Index>(n, 3);
            for (Index k = 0; k < starts; ++k) {
                Interval now = sweep(ring, static_cast<Index>(std::uint64_t{n} * k / starts), true);
                for (int round = 0; round < 3 && starts < n; ++round) {
                    const Interval back = sweep(ring, now.to % n, false);
                    if (back.gain <= now.gain + 1e-9) break;
                    now = back;
                    const Interval forth = sweep(ring, now.from % n, true);
                    if (forth.gain <= now.gain + 1e-9) break;
                    now = forth;
                }
                if (best.ring == none || now.gain > best.gain) best = now;
            }
        }
        return best;
    }

    /// Arcs that are gone to and fro, so that all lines hang together.
    void connect() {
        left_ = once_;
        for (Index a = 0; a < n_; ++a) {
            if (a < net_.mate[a]) sets_.unite(a, net_.mate[a]);
            if (once_[a]) sets_.unite(a, next(a));
        }
        // The shortest first: the bits of a float that is not negative stand in its order.
        std::vector<std::uint64_t> apart;
        for (Index a = 0; a < n_; ++a)
            if (!once_[a] && sets_.of(a) != sets_.of(next(a)))
                apart.push_back(
                    std::uint64_t{std::bit_cast<std::uint32_t>(static_cast<float>(way_[a]))} << 32 | a);
        boost::sort::spreadsort::integer_sort(apart.begin(), apart.end());
        for (const std::uint64_t key : apart)
            if (const auto a = static_cast<Index>(key); sets_.unite(a, next(a))) left_[a] = 2;
    }

    enum class Way : char { start, line, ahead, back };

    struct Step {
        Index at;
        Way by;
    };

    Polylines walk() {
        line_left_.resize(n_);
        for (Index a = 0; a < n_; ++a)
            line_left_[a] = static_cast<char>(1 + twice_[line(a)]);
        // Each stroke from one of its own ends.
        std::vector<Index> start_of(n_, none);
        for (Index a = 0; a < n_; ++a)
            if ((line_left_[a] + left_[a] + left_[previous(a)]) % 2 == 1)
                if (Index& s = start_of[sets_.of(a)]; s == none) s = a;
        Polylines out;
        std::vector<Step> stack;
        stack.reserve(n_ + 1);
        for (const Index seed : net_.order) {
            if (!line_left_[seed]) continue;
            const Index start = start_of[sets_.of(seed)];
            stack.assign(1, {start == none ? seed : start, Way::start});
            out.push_back(walked(stack));
        }
        return out;
    }

    /// Every way as often as it is to be gone, from an end with an odd number of them (C. Hierholzer 1873):
    /// ahead as far as it goes, and drawn on the way back, where what was passed by is gone first.
    Polyline walked(std::vector<Step>& stack) {
        Polyline out;
        Step last{none, Way::start};
        while (!stack.empty()) {
            const Index at = stack.back().at;
            if (line_left_[at]) {
                const Index mate = net_.mate[at];
                --line_left_[at], --line_left_[mate];
                stack.push_back({mate, Way::line});
            } else if (left_[at]) {
                --left_[at];
                stack.push_back({next(at), Way::ahead});
            } else if (const Index before = previous(at); left_[before]) {
                --left_[before];
                stack.push_back({before, Way::back});
            } else {
                if (last.at == none)
                    out.points.reserve(stack.size() + stack.size() / 4);
                else if (last.by == Way::line)
                    net_.walk_line(last.at, out.points);
                else
                    net_.walk_edge(ring_[at], last.at, at, last.by == Way::back, out.points);
                if (last.by != Way::line) out.points.push_back(net_.ends[at].at);
                last = stack.back();
                stack.pop_back();
            }
        }
        return out;
    }

    const LineNet& net_;
    Progress& progress_;
    std::vector<double> way_;  ///< of the arc from each end to the next one
    Index n_;                  ///< ends
    std::vector<char> begins_; ///< whether a ring begins at an end; also behind the last one
    std::vector<Index> ring_;
    std::vector<Unit> units_;
    std::vector<Costs> costs_;
    std::vector<Index> unit_start_, unit_of_; ///< of each ring; of each arc
    std::vector<char> once_;      ///< arcs that are gone once; those of runs before they are turned
    std::vector<char> left_;      ///< how often an arc is still to be gone
    std::vector<char> even_;      ///< ends where arcs do not alternate
    std::vector<char> line_left_; ///< and how often its line is
    std::vector<char> twice_;     ///< lines that are gone twice, by their end with the lower index
    Sets sets_;                   ///< of ends that hang together
};

struct Grain {
    std::int64_t x, y;
    bool operator==(const Grain&) const = default;
};
struct GrainHash {
    std::size_t operator()(const Grain& c) const {
        return static_cast<std::size_t>(c.x * 73856093) ^ static_cast<std::size_t>(c.y * 19349663);
    }
};

/// Goes loose lines to and fro where a stroke passes one of their ends.
void take_loose(Polylines& strokes, const Polylines& loose, const Progress& progress) {
    constexpr double grain = 1e-4; // mm: points that are the same one come from the same numbers
    const auto cell = [](Point p) { return Grain{std::llround(p.x / grain), std::llround(p.y / grain)}; };
    std::unordered_multimap<Grain, Index, GrainHash> at;
    std::vector<char> done(loose.size(), 0);
    for (Index i = 0; i < loose.size() && !progress.cancelled(); ++i)
        for (const Point p : {loose[i].points.front(), loose[i].points.back()})
            at.emplace(cell(p), i);
    for (Polyline& stroke : strokes) {
        std::vector<Point> points;
        points.reserve(stroke.points.size());
        for (const Point p : stroke.points) {
            points.push_back(p);
            if (points.size() % 4096 == 0 && progress.cancelled()) return;
            const auto [from, to] = at.equal_range(cell(p));
            for (auto it = from; it != to; ++it) {
                if (std::exchange(done[it->second], 1)) continue;
                const Polyline& line = loose[it->second];
                const bool ahead = cell(line.points.front()) == cell(p);
                const std::vector<Point> there =
                    ahead ? std::vector(line.points.begin() + 1, line.points.end())
                          : std::vector(line.points.rbegin() + 1, line.points.rend());
                points.insert(points.end(), there.begin(), there.end());
                points.insert(points.end(), there.rbegin() + 1, there.rend());
                points.push_back(p);
            }
        }
        stroke.points = std::move(points);
    }
    for (Index i = 0; i < loose.size(); ++i)
        if (!done[i]) strokes.push_back(loose[i]);
}

} // namespace

Polylines one_stroke(const LineNet& net, Progress& progress) {
    Polylines out = Postman(net, progress).strokes();
    if (!net.loose.empty()) take_loose(out, net.loose, progress);
    return out;
}

} // namespace dotlane
