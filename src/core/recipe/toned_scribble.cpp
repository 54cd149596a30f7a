#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

#include "core/geometry/region_index.h"
#include "core/recipe/nearby.h"
#include "core/recipe/strewn.h"
#include "core/recipe/tone_windows.h"
#include "core/recipe/toned_lines.h"

namespace dotlane {
namespace {

/// From place to place, along the edge where the straight way leaves the piece: there it comes back through
/// the same ring that it left by.
class Walk {
  public:
    explicit Walk(const Region& piece)
        : piece_(piece)
        , index_(piece) {}

    Polyline through(const std::vector<Point>& places) const {
        Polyline out;
        for (const Point p : places) {
            if (!out.points.empty() && index_.crosses(out.points.back(), p)) detour(out.points, p);
            out.points.push_back(p);
        }
        return out;
    }

  private:
    struct Crossing {
        double share; ///< of the way
        std::size_t ring, edge;
        Point at;
    };
    void detour(std::vector<Point>& points, Point to) const {
        const Point from = points.back();
        std::vector<Crossing> met;
        for (std::size_t r = 0; r < piece_.rings.size(); ++r) {
            const Ring& ring = piece_.rings[r];
            for (std::size_t e = 0; e < ring.size(); ++e) {
                const Point a = ring[e], b = ring[(e + 1) % ring.size()], way = to - from, side = b - a;
                const double turn = cross(way, side);
                if (std::abs(turn) < 1e-15) continue;
                const double share = cross(a - from, side) / turn, on = cross(a - from, way) / turn;
                if (share > 0 && share < 1 && on >= 0 && on < 1) met.push_back({share, r, e, mix(a, b, on)});
            }
        }
        std::sort(met.begin(), met.end(),
                  [](const Crossing& a, const Crossing& b) { return a.share < b.share; });
        for (std::size_t k = 0; k + 1 < met.size(); k += 2)
            if (met[k].ring == met[k + 1].ring) along(points, met[k], met[k + 1]);
    }
    /// The shorter way around the ring.
    void along(std::vector<Point>& points, const Crossing& a, const Crossing& b) const {
        const Ring& ring = piece_.rings[a.ring];
        const std::size_t n = ring.size();
        std::vector<Point> on{a.at}, back{a.at};
        for (std::size_t e = a.edge; e != b.edge; e = (e + 1) % n)
            on.push_back(ring[(e + 1) % n]);
        on.push_back(b.at);
        for (std::size_t e = a.edge; e != b.edge; e = (e + n - 1) % n)
            back.push_back(ring[e]);
        back.push_back(b.at);
        const bool forwards = length(Polyline{on, false}) <= length(Polyline{back, false});
        points.insert(points.end(), (forwards ? on : back).begin(), (forwards ? on : back).end());
    }
    const Region& piece_;
    RegionIndex index_;
};

/// Stretches of the way are turned around where that makes it shorter (2-opt: G. Croes 1958), those of up to
/// this many places, so that a long way takes no longer for its length.
constexpr std::size_t longest_turned = 1000;

void shorten(std::vector<Point>& way, double reach, double least, const Progress& progress) {
    const std::size_t n = way.size();
    if (n < 4) return;
    std::vector<Candidate> places;
    for (const Point p : way)
        places.push_back({{p, p}, 0});
    const Nearby nearby(places, reach);
    std::vector<std::uint32_t> at(n), which(n); // where each place stands in the way, and which stands there
    for (std::uint32_t i = 0; i < n; ++i)
        at[i] = which[i] = i;
    const auto place = [&](std::size_t k) { return places[which[k]].a; };
    for (int round = 0; round < 12; ++round) {
        bool shorter = false;
        for (std::size_t i = 0; i + 1 < n; ++i) {
            if (i % 1024 == 0 && progress.cancelled()) return;
            const double gone = distance(place(i), place(i + 1));
            if (gone < least) continue;
            double best = 1e-9;
            std::size_t to = 0;
            nearby.around(which[i], [&](std::uint32_t o, double d2) {
                const std::size_t j = at[o];
                if (j < i + 2 || j + 1 >= n || j - i > longest_turned || d2 >= gone * gone) return;
                const double saved = gone + distance(place(j), place(j + 1)) - std::sqrt(d2) -
                                     distance(place(i + 1), place(j + 1));
                if (saved > best) best = saved, to = j;
            });
            if (to == 0) continue;
            std::reverse(which.begin() + static_cast<std::ptrdiff_t>(i) + 1,
                         which.begin() + static_cast<std::ptrdiff_t>(to) + 1);
            for (std::size_t k = i + 1; k <= to; ++k)
                at[which[k]] = static_cast<std::uint32_t>(k);
            shorter = true;
        }
        if (!shorter) break;
    }
    for (std::size_t k = 0; k < n; ++k)
        way[k] = place(k);
}

/// The share of the places of a lattice 0.6 tips apart that a short way goes through to be so dark: measured
/// on even tones. A way through n places is as long as the root of n (J. Beardwood, J. Halton and J.
/// Hammersley, The shortest path through many points, 1959), until its stretches cover one another.
double share_for(double dark) {
    constexpr std::pair<double, double> measured[] = {
        {0.063, 0.002}, {0.108, 0.005}, {0.153, 0.01}, {0.226, 0.02}, {0.333, 0.04},
        {0.444, 0.07},  {0.529, 0.1},   {0.656, 0.15}, {0.749, 0.2},  {0.862, 0.3},
        {0.919, 0.4},   {0.956, 0.5},   {0.977, 0.6},  {0.988, 0.7},  {1, 1}};
    if (dark <= measured[0].first) return measured[0].second * dark * dark / (0.063 * 0.063);
    for (std::size_t k = 1; k < std::size(measured); ++k)
        if (const auto [d, share] = measured[k]; dark <= d)
            return std::lerp(measured[k - 1].second, share,
                             (dark - measured[k - 1].first) / (d - measured[k - 1].first));
    return 1;
}

/// A change of the way that brings less, in squares of what windows are off by, is not made.
constexpr double least_gain = 1e-4;

/// A way through some of the places of a lattice, which takes in more of them where it is too light, and
/// leaves some out where it is too dark.
class Scribble {
  public:
    Scribble(const Region& piece, const FillInput& in, double wild, std::uint32_t seed, Progress& progress)
        : tip_(in_mm(in.tip))
        , pitch_(0.6 * tip_)
        , index_(piece)
        , lattice_(lattice_of(piece, pitch_, wild, seed, progress))
        , progress_(progress) {
        if (lattice_.empty() || progress.cancelled()) return;
        const std::vector<char> drawn = thinned_evenly(
            lattice_, pitch_, [&](std::size_t i) { return share_for(in.tone->at(lattice_[i].a)); }, progress);
        std::vector<Point> places;
        for (std::size_t i = 0; i < lattice_.size(); ++i)
            if (drawn[i]) places.push_back(lattice_[i].a);
        if (progress.cancelled()) return;
        short_way(places, bounds(piece));
        shorten(places, 4 * pitch_, 0, progress);
        shorten(places, 20 * pitch_, 3 * pitch_, progress);
        if (progress.cancelled()) return;
        take(Walk(piece).through(places), drawn);
        if (nodes_.size() < 2 || progress.cancelled()) return;
        ToneInk ink(in.tip, piece, *in.tone);
        for (std::uint32_t k = 0; nodes_[k].next != none; k = nodes_[k].next)
            ink.draw(way(k, nodes_[k].next));
        mend(ink, bounds(piece));
    }

    Polyline line() const {
        Polyline out;
        for (std::uint32_t k = nodes_.empty() ? none : 0; k != none; k = nodes_[k].next)
            out.points.push_back(nodes_[k].at);
        return out;
    }

  private:
    static constexpr std::uint32_t none = ~0U;
    /// A corner of the way. The first one stays the first.
    struct Node {
        Point at;
        std::uint32_t before, next;
        std::uint32_t place; ///< of the lattice; none: along the edge
    };
    InkWay way(std::uint32_t a, std::uint32_t b) const { return {nodes_[a].at, nodes_[b].at}; }

    void take(const Polyline& line, const std::vector<char>& drawn) {
        node_.assign(lattice_.size(), none);
        std::map<std::pair<double, double>, std::uint32_t> place;
        for (std::uint32_t i = 0; i < lattice_.size(); ++i)
            if (drawn[i]) place[{lattice_[i].a.x, lattice_[i].a.y}] = i;
        for (const Point p : line.points) {
            const auto it = place.find({p.x, p.y});
            const auto k = static_cast<std::uint32_t>(nodes_.size());
            nodes_.push_back({p, k == 0 ? none : k - 1, k + 1, it == place.end() ? none : it->second});
            if (it != place.end()) node_[it->second] = k;
        }
        if (!nodes_.empty()) nodes_.back().next = none;
    }

    void mend(ToneInk& ink, const Box& box) {
        ToneWindows windows(box, ink);
        if (!windows.any()) return;
        const Nearby nearby(lattice_, std::max(4 * pitch_, 1.5));
        for (int round = 0; round < 30 && windows.look() > ToneWindows::enough; ++round) {
            if (round == 10) {
                windows.sharpen();
                windows.look();
            }
            // What is far off first: small gains there are many times more of would take all the time.
            double weak = 0;
            for (const Candidate& c : lattice_)
                weak = std::max(weak, std::abs(windows.pull(c.a)) / 10);
            bool moved = false;
            for (std::uint32_t i = 0; i < lattice_.size(); ++i) {
                if (i % 64 == 0 && progress_.cancelled()) return;
                const double pull = windows.pull(lattice_[i].a);
                if (std::abs(pull) < weak) continue;
                if (node_[i] != none ? pull > 0 : pull < 0)
                    moved |= node_[i] != none ? leave_out(node_[i], ink, windows)
                                              : take_in(i, nearby, ink, windows);
                if (node_[i] != none) moved |= shift(node_[i], ink, windows);
            }
            if (!moved && round >= 10) return;
        }
    }

    bool leave_out(std::uint32_t k, ToneInk& ink, ToneWindows& windows) {
        const std::uint32_t a = nodes_[k].before, b = nodes_[k].next;
        if (a == none || b == none || index_.crosses(nodes_[a].at, nodes_[b].at)) return false;
        bits_.clear();
        off(way(a, k), ink, windows);
        off(way(k, b), ink, windows);
        on(way(a, b), ink, windows);
        if (windows.change(bits_) < -least_gain) {
            windows.take(bits_);
            nodes_[a].next = b, nodes_[b].before = a;
            node_[nodes_[k].place] = none;
            return true;
        }
        ink.erase(way(a, b)), ink.draw(way(a, k)), ink.draw(way(k, b));
        return false;
    }

    /// A little to any side, where that is better: the ways to it become longer or shorter, or lie more on
    /// what is inked already.
    bool shift(std::uint32_t k, ToneInk& ink, ToneWindows& windows) {
        const std::uint32_t a = nodes_[k].before, b = nodes_[k].next;
        if (a == none || b == none) return false;
        const Point from = nodes_[k].at;
        bits_.clear();
        off(way(a, k), ink, windows);
        off(way(k, b), ink, windows);
        const InkBits gone = bits_;
        double best = -least_gain;
        Point to = from;
        InkBits taken;
        for (const double far : {0.4, 0.9, 1.8})
            for (int turn = 0; turn < 6; ++turn) {
                const double angle = (turn + far) * std::numbers::pi / 3;
                const Point p = from + Point{std::cos(angle), std::sin(angle)} * (far * tip_);
                if (!index_.contains(p) || index_.crosses(nodes_[a].at, p) || index_.crosses(p, nodes_[b].at))
                    continue;
                bits_ = gone;
                on({nodes_[a].at, p}, ink, windows);
                on({p, nodes_[b].at}, ink, windows);
                if (const double change = windows.change(bits_); change < best)
                    best = change, to = p, taken = bits_;
                ink.erase({nodes_[a].at, p}), ink.erase({p, nodes_[b].at});
            }
        nodes_[k].at = to;
        ink.draw(way(a, k)), ink.draw(way(k, b));
        if (to == from) return false;
        windows.take(taken);
        return true;
    }

    /// Between the two corners that it lies best between, of those nearby.
    bool take_in(std::uint32_t i, const Nearby& nearby, ToneInk& ink, ToneWindows& windows) {
        const Point p = lattice_[i].a;
        double least = 1e300;
        std::uint32_t a = none;
        nearby.around(i, [&](std::uint32_t o, double) {
            if (node_[o] == none) return;
            for (const std::uint32_t k : {nodes_[node_[o]].before, node_[o]}) {
                if (k == none || nodes_[k].next == none) continue;
                const Point from = nodes_[k].at, to = nodes_[nodes_[k].next].at;
                const double more = distance(from, p) + distance(p, to) - distance(from, to);
                if (more < least) least = more, a = k;
            }
        });
        if (a == none) return false;
        const std::uint32_t b = nodes_[a].next;
        if (index_.crosses(nodes_[a].at, p) || index_.crosses(p, nodes_[b].at)) return false;
        bits_.clear();
        off(way(a, b), ink, windows);
        on({nodes_[a].at, p}, ink, windows);
        on({p, nodes_[b].at}, ink, windows);
        if (windows.change(bits_) < -least_gain) {
            windows.take(bits_);
            const auto k = static_cast<std::uint32_t>(nodes_.size());
            nodes_.push_back({p, a, b, i});
            nodes_[a].next = nodes_[b].before = node_[i] = k;
            return true;
        }
        ink.erase({nodes_[a].at, p}), ink.erase({p, nodes_[b].at}), ink.draw(way(a, b));
        return false;
    }

    void off(InkWay way, ToneInk& ink, ToneWindows& windows) {
        ink.covered(way, 1, [&](Point at) { windows.add(bits_, at, -ink.square()); });
        ink.erase(way);
    }
    void on(InkWay way, ToneInk& ink, ToneWindows& windows) {
        ink.covered(way, 0, [&](Point at) { windows.add(bits_, at, ink.square()); });
        ink.draw(way);
    }

    double tip_, pitch_;
    RegionIndex index_;
    std::vector<Candidate> lattice_;
    std::vector<std::uint32_t> node_; ///< of each place, or none
    std::vector<Node> nodes_;
    InkBits bits_;
    Progress& progress_;
};

} // namespace

FillLines toned_scribble(const FillInput& in, double wild, std::uint32_t seed, Progress& progress) {
    FillLines out;
    for (const Region& piece : pieces(in.region)) {
        if (progress.cancelled()) break;
        Polyline line = Scribble(piece, in, wild, seed, progress).line();
        if (line.points.size() > 1) out.lines.push_back(std::move(line));
    }
    out.rows = out.pieces = out.lines.size();
    return out;
}

} // namespace dotlane
