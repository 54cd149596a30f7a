#include "core/recipe/contour_rings.h"

#include <algorithm>
#include <cmath>
#include <memory>

#include "core/base/sets.h"
#include "core/geometry/nearest_edge.h"
#include "core/geometry/region_index.h"
#include "core/geometry/reshape.h"

namespace dotlane {
namespace {

/// A way from one ring to another.
struct Hop {
    std::size_t a, b;
    Point at_a, at_b;
    double way;
};

/// A closed line with the length to each of its points.
class Loop {
  public:
    explicit Loop(const Ring& ring)
        : ring_(ring)
        , along_{0} {
        for (std::size_t i = 0; i < ring.size(); ++i)
            along_.push_back(along_.back() + distance(ring[i], ring[(i + 1) % ring.size()]));
    }
    double round() const { return along_.back(); }

    /// Where on the ring the point lies, which is on it or near it.
    double place(Point p) const {
        double best = 1e300, out = 0;
        for (std::size_t i = 0; i < ring_.size(); ++i) {
            const Point a = ring_[i], d = ring_[(i + 1) % ring_.size()] - a;
            const double l = dot(d, d), t = l > 0 ? std::clamp(dot(p - a, d) / l, 0.0, 1.0) : 0;
            const double away = distance(p, a + d * t);
            if (away < best) best = away, out = along_[i] + t * std::sqrt(l);
        }
        return out;
    }

    Point at(double along) const {
        const double s = wrapped(along);
        const std::size_t i = index(s);
        const double l = along_[i + 1] - along_[i];
        return ring_[i] + (ring_[(i + 1) % ring_.size()] - ring_[i]) * (l > 0 ? (s - along_[i]) / l : 0);
    }

    /// Adds the way from one place to another, `way` mm on, ahead or back, without its first point.
    void walk(double from, double way, bool ahead, std::vector<Point>& out) const {
        const std::size_t n = ring_.size(), edge = index(wrapped(from));
        const double within = wrapped(from) - along_[edge];
        std::size_t next = ahead ? (edge + 1) % n : edge;
        double gone = ahead ? along_[edge + 1] - along_[edge] - within : within; // up to `next`
        while (gone < way - 1e-9) {
            if (gone > 1e-9) out.push_back(ring_[next]);
            const std::size_t passed = ahead ? next : (next + n - 1) % n; // the edge that is gone now
            gone += along_[passed + 1] - along_[passed];
            next = ahead ? (next + 1) % n : passed;
        }
        out.push_back(at(from + (ahead ? way : -way)));
    }

  private:
    double wrapped(double s) const {
        s = std::fmod(s, round());
        return s < 0 ? s + round() : s;
    }
    std::size_t index(double s) const {
        const auto it = std::upper_bound(along_.begin(), along_.end() - 1, s);
        return static_cast<std::size_t>(it - along_.begin()) - 1;
    }

    const Ring& ring_;
    std::vector<double> along_;
};

/// Of each two rings the shortest that is clear.
template<class Clear>
std::vector<Hop> hops_between(const Contours& c, Length spacing, const Progress& progress, Clear clear) {
    const double reach = 2.2 * in_mm(spacing);
    std::vector<std::unique_ptr<NearestEdge>> edges(c.rings.size());
    std::vector<Box> boxes;
    for (const Ring& ring : c.rings)
        boxes.push_back(bounds(Polyline{ring, true}));
    std::vector<Hop> out;
    for (std::size_t b = 0; b < c.rings.size(); ++b) {
        if (progress.cancelled()) return {};
        for (std::size_t a = 0; a < b; ++a) {
            // Rings of the same inset meet where the next one vanishes.
            if (c.levels[b] > c.levels[a] + 1 || !boxes[a].grown(reach).meets(boxes[b])) continue;
            if (!edges[a]) edges[a] = std::make_unique<NearestEdge>(Region{{c.rings[a]}});
            Hop best{a, b, {}, {}, reach};
            // Not every point: one that is a little farther is as good.
            const std::size_t every = std::max<std::size_t>(1, c.rings[b].size() / 60);
            for (std::size_t i = 0; i < c.rings[b].size(); i += every) {
                const Point p = c.rings[b][i], q = edges[a]->to(p);
                if (const double way = distance(p, q); way < best.way - 1e-6 && clear(q, p))
                    best.at_a = q, best.at_b = p, best.way = way;
            }
            if (best.way < reach) out.push_back(best);
        }
    }
    std::stable_sort(out.begin(), out.end(), [](const Hop& x, const Hop& y) { return x.way < y.way; });
    return out;
}

class Winder {
  public:
    Winder(const Contours& c, const Region& piece, Length spacing, const Progress& progress)
        : contours_(c)
        , index_(piece)
        , spacing_(in_mm(spacing)) {
        for (const Ring& ring : c.rings)
            loops_.emplace_back(ring);
        ways_.resize(c.rings.size());
        Sets sets(c.rings.size());
        const auto is_clear = [this](Point a, Point b) { return clear(a, b); };
        for (const Hop& hop : hops_between(c, spacing, progress, is_clear))
            if (sets.unite(static_cast<std::uint32_t>(hop.a), static_cast<std::uint32_t>(hop.b))) {
                ways_[hop.a].push_back({hop.b, loops_[hop.a].place(hop.at_a), loops_[hop.b].place(hop.at_b)});
                ways_[hop.b].push_back({hop.a, loops_[hop.b].place(hop.at_b), loops_[hop.a].place(hop.at_a)});
            }
    }

    Polylines strokes() {
        Polylines out;
        std::vector<char> done(contours_.rings.size(), 0);
        for (std::size_t root = 0; root < contours_.rings.size(); ++root) {
            if (done[root]) continue;
            out.push_back(stroke(root, done));
        }
        return out;
    }

  private:
    struct Way {
        std::size_t to;
        double here, there;
    };
    /// A ring on the way: how far it has been gone, and which ways off it are still to come.
    struct Visit {
        std::size_t ring;
        bool ahead;
        double from, gone, whole;                       ///< `whole`: as far as it is gone
        std::vector<std::pair<double, const Way*>> off; ///< by how far along, the last first
        Point back{};                                   ///< where the ring before it is reached again
        double hop = 0;                                 ///< on that ring, where this one was entered from
        bool opened = false;                            ///< it is left a spacing before where it was entered
    };

    Visit visit(std::size_t ring, bool ahead, double from, double whole,
                const std::vector<char>& done) const {
        Visit out{ring, ahead, from, 0, whole, {}};
        const double round = loops_[ring].round();
        for (const Way& way : ways_[ring]) {
            if (done[way.to]) continue;
            double along = std::fmod((way.here - from) * (ahead ? 1 : -1), round);
            if (along < 0) along += round;
            out.off.emplace_back(std::min(along, whole), &way);
        }
        std::sort(out.off.begin(), out.off.end(),
                  [](const auto& a, const auto& b) { return a.first > b.first; });
        return out;
    }

    Polyline stroke(std::size_t root, std::vector<char>& done) {
        Polyline line{{loops_[root].at(0)}, false};
        done[root] = 1;
        std::vector<Visit> stack;
        stack.push_back(visit(root, true, 0, loops_[root].round(), done));
        while (!stack.empty()) {
            Visit& now = stack.back();
            const Loop& loop = loops_[now.ring];
            if (now.off.empty()) {
                go(now, now.whole, line.points);
                const Visit left = std::move(now);
                stack.pop_back();
                if (stack.empty()) break;
                line.points.push_back(left.back);
                if (!left.opened) walk_to(stack.back(), left.hop, false, line.points);
                continue;
            }
            const auto [along, way] = now.off.back();
            now.off.pop_back();
            if (done[way->to]) continue;
            done[way->to] = 1;
            go(now, std::max(along, now.gone), line.points);
            const double here = place(now);
            const Loop& other = loops_[way->to];
            // The other ring is gone the other way round, so that it ends beside where this one goes on.
            const double gap = std::min({spacing_, other.round() / 4, now.whole - now.gone});
            const double next_off = now.off.empty() ? now.whole : now.off.back().first;
            const double entry = other.place(loop.at(here));
            const double sign = now.ahead ? 1 : -1;
            const Point on = loop.at(here + sign * gap);
            // Which way round ends nearer to where this ring goes on.
            const Point end_ahead = other.at(entry - gap), end_back = other.at(entry + gap);
            const bool ahead = distance(end_ahead, on) < distance(end_back, on);
            const Point end = ahead ? end_ahead : end_back;
            const bool opens = gap > 0.2 * spacing_ && now.gone + gap < next_off && clear(end, on) &&
                               distance(end, on) < 2 * spacing_ && clear(loop.at(here), other.at(entry));
            const double arrive = opens ? entry : way->there;
            if (!opens) walk_to(now, way->here, true, line.points);
            line.points.push_back(other.at(arrive));
            Visit next =
                visit(way->to, opens ? ahead : !now.ahead, arrive, other.round() - (opens ? gap : 0), done);
            next.opened = opens, next.hop = way->here;
            next.back = opens ? on : loop.at(way->here);
            if (opens) now.gone += gap;
            stack.push_back(std::move(next));
        }
        return line;
    }

    /// Whether the way between two rings stays inside. Its ends may lie on the edge, give or take rounding,
    /// also on two sides of a hole.
    bool clear(Point a, Point b) const {
        const Point a_little = (b - a) * 1e-3;
        return distance(a, b) < 1e-4 ||
               (index_.contains((a + b) * 0.5) && !index_.crosses(a + a_little, b - a_little));
    }

    double place(const Visit& v) const { return v.from + (v.ahead ? v.gone : -v.gone); }

    void go(Visit& v, double to, std::vector<Point>& points) const {
        if (to - v.gone <= 1e-9) return;
        loops_[v.ring].walk(place(v), to - v.gone, v.ahead, points);
        v.gone = to;
    }
    /// From where a ring has been gone to along it to the very place of a hop (`out`), or back: they are
    /// apart where the ring was cut open.
    void walk_to(const Visit& v, double hop, bool out, std::vector<Point>& points) const {
        const Loop& loop = loops_[v.ring];
        const double from = out ? place(v) : hop, to = out ? hop : place(v);
        double ahead = std::fmod(to - from, loop.round());
        if (ahead < 0) ahead += loop.round();
        const double behind = loop.round() - ahead;
        if (std::min(ahead, behind) > 1e-9) loop.walk(from, std::min(ahead, behind), ahead < behind, points);
    }

    const Contours& contours_;
    RegionIndex index_;
    double spacing_;
    std::vector<Loop> loops_;
    std::vector<std::vector<Way>> ways_;
};

/// Round corners gain points with every inset; half of the usual flatness needs few of them.
Region eased(Region region) {
    for (Ring& ring : region.rings)
        if (Polyline line = simplified({ring, true}, default_flatness / 2); line.points.size() > 2)
            ring = std::move(line.points);
    return region;
}

} // namespace

Contours contours_of(const Region& piece, Length spacing, Length tip, Progress& progress) {
    Contours out;
    Region now = piece;
    const auto add = [&](const Region& region, std::size_t level) {
        for (const Ring& ring : region.rings)
            out.rings.push_back(ring), out.levels.push_back(level);
    };
    for (std::size_t level = 0; !now.empty() && !progress.cancelled(); ++level) {
        add(now, level);
        Region next = eased(offset(now, -spacing));
        if (in_mm(tip) > 0 && spacing < tip) {
            // What neither these rings nor the next ones ink.
            const Region bare = subtracted(offset(now, -(tip / 2)), offset(next, tip / 2));
            if (!bare.empty()) add(offset(offset(bare, -(tip / 50)), tip / 100), level + 1);
        }
        now = std::move(next);
    }
    return out;
}

Polylines wound(const Contours& contours, const Region& piece, Length spacing, Progress& progress) {
    if (contours.rings.empty()) return {};
    return Winder(contours, piece, spacing, progress).strokes();
}

} // namespace dotlane
