#include "core/geometry/tiles.h"

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>
#include <numeric>
#include <tuple>
#include <utility>

#include "core/base/parallel.h"
#include "core/geometry/far_points.h"

namespace dotlane {
namespace {

namespace cl = ClipperLib;

constexpr std::size_t tile_points = 500; ///< in a tile, about
/// Steps within which ends at a border are one: an edge that is a step off meets a border that it runs along
/// so much farther on.
constexpr cl::cInt near_border = 1000;

/// Steps that a point may lie aside, rounded at both ends of an edge and between.
constexpr double near_tiles = 4;

struct TileEdge {
    cl::IntPoint a, b;
    bool cut_a = false, cut_b = false; ///< at a tile's border
};
using TileEdges = std::vector<TileEdge>; ///< in the order of where they start

bool before(const cl::IntPoint& a, const cl::IntPoint& b) {
    return std::tie(a.X, a.Y) < std::tie(b.X, b.Y);
}
bool starts_before(const TileEdge& a, const TileEdge& b) {
    return before(a.a, b.a);
}

cl::IntPoint along(const cl::IntPoint& a, const cl::IntPoint& b, double share) {
    return {a.X + static_cast<cl::cInt>(std::llround(share * static_cast<double>(b.X - a.X))),
            a.Y + static_cast<cl::cInt>(std::llround(share * static_cast<double>(b.Y - a.Y)))};
}

/// What of an edge lies in a tile, if any. Borders cut it in places that follow from the edge alone, so that
/// both sides agree; what runs along a border is the upper or the right tile's.
std::optional<TileEdge> within(const cl::IntPoint& a, const cl::IntPoint& b, const GridBox& tile) {
    double from = 0, to = 1;
    const auto keep = [&](cl::cInt at, cl::cInt way, cl::cInt low, cl::cInt high) {
        if (way == 0) return low <= at && at < high;
        const double first = static_cast<double>((way > 0 ? low : high) - at) / static_cast<double>(way),
                     last = static_cast<double>((way > 0 ? high : low) - at) / static_cast<double>(way);
        from = std::max(from, first), to = std::min(to, last);
        return from < to;
    };
    if (!keep(a.X, b.X - a.X, tile.x0, tile.x1) || !keep(a.Y, b.Y - a.Y, tile.y0, tile.y1)) return {};
    TileEdge out{a, b, from > 0, to < 1};
    if (out.cut_a) out.a = along(a, b, from);
    if (out.cut_b) out.b = along(a, b, to);
    if (out.a == out.b) return {};
    return out;
}

class Tiling {
  public:
    Tiling(cl::cInt reach, const TileWork& work)
        : reach_(reach + 1000)
        , work_(work) {}

    TileEdges edges(const TileRings& rings, const GridBox& box) const {
        const cl::cInt wide = box.x1 - box.x0, high = box.y1 - box.y0;
        std::vector<cl::cInt> across; // of the points inside, along the longer side
        std::size_t points = 0;
        for (const cl::Paths& paths : rings)
            for (const cl::Path& path : paths)
                for (const cl::IntPoint& p : path) {
                    ++points;
                    if (p.X >= box.x0 && p.X < box.x1 && p.Y >= box.y0 && p.Y < box.y1)
                        across.push_back(wide > high ? p.X : p.Y);
                }
        if (across.size() <= tile_points || std::max(wide, high) < 4 * reach_) return in_tile(rings, box);
        const auto middle = across.begin() + std::ssize(across) / 2;
        std::nth_element(across.begin(), middle, across.end());
        const cl::cInt low = wide > high ? box.x0 : box.y0, side = std::max(wide, high);
        const cl::cInt at = std::clamp(*middle, low + side / 8, low + side - side / 8);
        GridBox halves[2] = {box, box};
        (wide > high ? halves[0].x1 : halves[0].y1) = at;
        (wide > high ? halves[1].x0 : halves[1].y0) = at;
        TileEdges out[2];
        in_parallel(2, points, [&](std::size_t i) { out[i] = edges(near(rings, halves[i]), halves[i]); });
        TileEdges both(out[0].size() + out[1].size());
        std::merge(out[0].begin(), out[0].end(), out[1].begin(), out[1].end(), both.begin(), starts_before);
        return both;
    }

  private:
    TileRings near(const TileRings& rings, const GridBox& box) const {
        const cl::IntPoint low{box.x0 - reach_, box.y0 - reach_}, high{box.x1 + reach_, box.y1 + reach_};
        TileRings out;
        for (const std::size_t i : {0, 1})
            for (const cl::Path& ring : rings[i]) {
                cl::Path here = without_far(ring, [&](const cl::IntPoint& p) {
                    return sides_behind(p.X, p.Y, low.X, low.Y, high.X, high.Y);
                });
                if (here.size() >= 3) out[i].push_back(std::move(here));
            }
        return out;
    }

    TileEdges in_tile(const TileRings& rings, const GridBox& box) const {
        TileEdges out;
        for (const cl::Path& ring : work_(rings, box))
            for (std::size_t i = 0; i < ring.size(); ++i)
                if (auto edge = within(ring[i], ring[i + 1 < ring.size() ? i + 1 : 0], box))
                    out.push_back(*edge);
        std::sort(out.begin(), out.end(), starts_before);
        return out;
    }

    cl::cInt reach_;
    const TileWork& work_;
};

/// Their numbers in the order of where they end.
std::vector<std::size_t> by_end(const TileEdges& edges) {
    std::vector<std::size_t> out(edges.size());
    std::iota(out.begin(), out.end(), std::size_t{0});
    std::sort(out.begin(), out.end(),
              [&](std::size_t i, std::size_t k) { return before(edges[i].b, edges[k].b); });
    return out;
}

/// Where tiles see an edge a step of the grid apart, its two ends at their border are made one, the nearest
/// first. False when some find no other. Takes and leaves edges in order of their start; `ends`: by their
/// end.
bool meet_at_borders(TileEdges& edges, std::vector<std::size_t>& ends) {
    std::vector<std::size_t> open_ends, open_starts;
    for (std::size_t i = 0, k = 0; i < edges.size() || k < edges.size();) {
        if (k == edges.size() || (i < edges.size() && before(edges[ends[i]].b, edges[k].a)))
            open_ends.push_back(ends[i++]);
        else if (i == edges.size() || before(edges[k].a, edges[ends[i]].b))
            open_starts.push_back(k++);
        else
            ++i, ++k;
    }
    if (open_ends.empty() && open_starts.empty()) return true;
    struct Pair {
        cl::cInt off;
        std::size_t end, start;
    };
    std::vector<Pair> pairs;
    for (const std::size_t i : open_ends) {
        const cl::IntPoint end = edges[i].b;
        for (auto it = std::lower_bound(open_starts.begin(), open_starts.end(), end.X - near_border,
                                        [&](std::size_t k, cl::cInt x) { return edges[k].a.X < x; });
             it != open_starts.end() && edges[*it].a.X <= end.X + near_border; ++it)
            if (const cl::cInt off =
                    std::max(std::abs(edges[*it].a.X - end.X), std::abs(edges[*it].a.Y - end.Y));
                off <= near_border)
                pairs.push_back({off, i, *it});
    }
    std::sort(pairs.begin(), pairs.end(), [](const Pair& a, const Pair& b) {
        return std::tie(a.off, a.end, a.start) < std::tie(b.off, b.end, b.start);
    });
    std::vector<char> ended(edges.size()), started(edges.size());
    std::size_t met = 0;
    for (const Pair& pair : pairs)
        if (!ended[pair.end] && !started[pair.start]) {
            edges[pair.end].b = edges[pair.start].a;
            ended[pair.end] = started[pair.start] = 1;
            ++met;
        }
    std::erase_if(edges, [](const TileEdge& e) { return e.a == e.b; });
    ends = by_end(edges);
    return met == open_ends.size() && met == open_starts.size();
}

/// Whether two edges are one that a border alone has cut: two that it cuts in the same point may have changed
/// places.
bool only_cut(const TileEdge& in, const TileEdge& out) {
    const auto point = [&](const cl::IntPoint& p) {
        return Point{static_cast<double>(p.X - in.b.X), static_cast<double>(p.Y - in.b.Y)};
    };
    return in.cut_b && out.cut_a && distance_to_segment({}, point(in.a), point(out.b)) <= near_tiles;
}

/// In which direction an edge leads from a point, radians.
double angle_of(const cl::IntPoint& from, const cl::IntPoint& to) {
    return std::atan2(static_cast<double>(to.Y - from.Y), static_cast<double>(to.X - from.X));
}

/// Which of the edges that start in a point goes on from which of those that end there. What a border has cut
/// goes on straight. Of the others those belong together between which the area lies: on the left of the one
/// that comes and of the one that goes.
void follow_at(const TileEdges& edges, std::vector<std::size_t> come, std::vector<std::size_t> go,
               std::vector<std::size_t>& next) {
    const cl::IntPoint at = edges[come.front()].b;
    std::erase_if(come, [&](std::size_t in) {
        auto best = go.end();
        double least = std::numbers::pi / 2;
        for (auto out = go.begin(); out != go.end(); ++out)
            if (const double turn = std::abs(std::remainder(
                    angle_of(at, edges[*out].b) - angle_of(edges[in].a, at), 2 * std::numbers::pi));
                turn < least && only_cut(edges[in], edges[*out]))
                least = turn, best = out;
        if (best == go.end()) return false;
        next[in] = *best;
        go.erase(best);
        return true;
    });
    struct Arm {
        double angle;
        bool goes;
        std::size_t edge;
        bool done = false;
    };
    std::vector<Arm> arms;
    for (const std::size_t in : come)
        arms.push_back({angle_of(at, edges[in].a), false, in});
    for (const std::size_t out : go)
        arms.push_back({angle_of(at, edges[out].b), true, out});
    // Clockwise from one that comes lies what is on its left, up to the next that goes.
    std::sort(arms.begin(), arms.end(), [](const Arm& a, const Arm& b) {
        return std::tuple(-a.angle, a.goes, a.edge) < std::tuple(-b.angle, b.goes, b.edge);
    });
    std::vector<std::size_t> open;
    std::size_t left = come.size();
    for (std::size_t k = 0; left > 0; k = (k + 1) % arms.size()) {
        Arm& arm = arms[k];
        if (arm.done || (arm.goes && open.empty())) continue;
        arm.done = true;
        if (arm.goes)
            next[open.back()] = arm.edge, open.pop_back(), --left;
        else
            open.push_back(arm.edge);
    }
}

/// Of each edge the one that goes on from its end.
std::vector<std::size_t> followers(const TileEdges& edges, const std::vector<std::size_t>& ends) {
    std::vector<std::size_t> next(edges.size());
    for (std::size_t i = 0, to = 1; i < ends.size(); i = to++) { // as many end in each point as start there
        while (to < ends.size() && edges[ends[to]].b == edges[ends[i]].b)
            ++to;
        if (to == i + 1) {
            next[ends[i]] = i;
            continue;
        }
        std::vector<std::size_t> go(to - i);
        std::iota(go.begin(), go.end(), i);
        follow_at(
            edges,
            {ends.begin() + static_cast<std::ptrdiff_t>(i), ends.begin() + static_cast<std::ptrdiff_t>(to)},
            std::move(go), next);
    }
    return next;
}

/// A ring that touches itself is several. `shared`: which of its points other edges end in as well.
void add_loops(const cl::Path& path, const std::vector<char>& shared, cl::Paths& out) {
    cl::Path open;
    std::map<std::pair<cl::cInt, cl::cInt>, std::size_t> places; // of shared points
    for (std::size_t i = 0; i < path.size(); ++i) {
        const cl::IntPoint& p = path[i];
        if (!shared[i]) {
            open.push_back(p);
            continue;
        }
        if (const auto known = places.find({p.X, p.Y}); known != places.end()) {
            const auto from = open.begin() + static_cast<std::ptrdiff_t>(known->second);
            if (open.end() - from >= 3) out.emplace_back(from, open.end());
            for (auto it = from; it != open.end(); ++it)
                places.erase({it->X, it->Y});
            open.erase(from, open.end());
        }
        places[{p.X, p.Y}] = open.size();
        open.push_back(p);
    }
    if (open.size() >= 3) out.push_back(std::move(open));
}

/// Edges of a clean area one after another.
cl::Paths rings_of(const TileEdges& edges, const std::vector<std::size_t>& ends) {
    const std::vector<std::size_t> next = followers(edges, ends);
    const auto same_end = [&](std::size_t i, std::size_t k) { return edges[ends[i]].b == edges[ends[k]].b; };
    std::vector<char> met(edges.size()); // by others at its end
    for (std::size_t i = 1; i < ends.size(); ++i)
        if (same_end(i - 1, i)) met[ends[i - 1]] = met[ends[i]] = 1;
    std::vector<char> used(edges.size());
    cl::Paths out;
    for (std::size_t first = 0; first < edges.size(); ++first) {
        if (used[first]) continue;
        cl::Path path;
        std::vector<char> shared;
        for (std::size_t i = first; !used[i]; i = next[i]) {
            used[i] = 1;
            if (only_cut(edges[i], edges[next[i]])) continue;
            path.push_back(edges[i].b), shared.push_back(met[i]);
        }
        add_loops(path, shared, out);
    }
    return out;
}

} // namespace

GridBox bounds(const cl::Paths& paths) {
    GridBox out{0, 0, 0, 0};
    bool any = false;
    for (const cl::Path& path : paths)
        for (const cl::IntPoint& p : path) {
            out = any ? GridBox{std::min(out.x0, p.X), std::min(out.y0, p.Y), std::max(out.x1, p.X),
                                std::max(out.y1, p.Y)}
                      : GridBox{p.X, p.Y, p.X, p.Y};
            any = true;
        }
    return out;
}

std::optional<cl::Paths> in_tiles(const TileRings& rings, cl::cInt reach, const TileWork& work) {
    const GridBox one = bounds(rings[0]), other = rings[1].empty() ? one : bounds(rings[1]);
    // Nothing of what comes out runs along the outermost borders.
    const cl::cInt room = reach + 1000;
    const GridBox all{std::min(one.x0, other.x0) - room, std::min(one.y0, other.y0) - room,
                      std::max(one.x1, other.x1) + room, std::max(one.y1, other.y1) + room};
    TileEdges edges = Tiling(reach, work).edges(rings, all);
    std::vector<std::size_t> ends = by_end(edges);
    if (!meet_at_borders(edges, ends)) return {};
    // Whatever way edges follow one another, they enclose as much.
    double enclosed = 0, way = 0;
    for (const TileEdge& e : edges) {
        const Point a{static_cast<double>(e.a.X - all.x0), static_cast<double>(e.a.Y - all.y0)},
            b{static_cast<double>(e.b.X - all.x0), static_cast<double>(e.b.Y - all.y0)};
        enclosed += cross(a, b) / 2, way += distance(a, b);
    }
    cl::Paths out = rings_of(edges, ends);
    for (const cl::Path& ring : out)
        enclosed -= cl::Area(ring);
    if (std::abs(enclosed) > near_tiles * (way + near_tiles)) return {};
    return out;
}

} // namespace dotlane
