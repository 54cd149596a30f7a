#include "core/recipe/allowance.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <optional>

#include "core/geometry/nearest_edge.h"

namespace dotlane {
namespace {

constexpr double pi = std::numbers::pi;
constexpr double corner_turn = pi / 6; ///< of less, a line is a curve
constexpr double sagitta = 0.3;        ///< mm
constexpr double gives = 0.05;         ///< by which woven cloth stretches or gathers on its edge
constexpr double window = 1.5,
                 at_each = 0.25; ///< mm: curvature is looked at over the window, at each such step

Point unit(Point from, Point to) {
    const double l = distance(from, to);
    return l > 0 ? (to - from) * (1 / l) : Point{};
}

/// To the right of the way, which is outside: the area lies on the left of all rings, seen with y up.
Point outwards(Point along) {
    return {along.y, -along.x};
}

Region triangle(Point a, Point b, Point c) {
    Polyline ring{{a, b, c}, true};
    if (signed_area_mm2(ring.points) < 0) std::reverse(ring.points.begin(), ring.points.end());
    return region_of({ring}, FillRule::nonzero);
}

struct Vertex {
    Point at, in, out; ///< `in`, `out`: directions of the edges before and behind it
    double turn;       ///< positive where the area is full
};

std::vector<Vertex> vertices(const Ring& ring) {
    std::vector<Vertex> out;
    for (std::size_t i = 0, n = ring.size(); i < n; ++i) {
        const Point in = unit(ring[(i + n - 1) % n], ring[i]), on = unit(ring[i], ring[(i + 1) % n]);
        out.push_back({ring[i], in, on, std::atan2(cross(in, on), dot(in, on))});
    }
    return out;
}

/// A run of the ring without corners, by its length.
struct SmoothRun {
    std::vector<Point> points;
    std::vector<double> at, turned; ///< along it to each point; turned before the middle of each edge
    bool closed = false;

    double whole() const { return at.back(); }
    /// How far the line has turned at a distance, spread over the edges that the turns lie between.
    double turned_at(double s) const {
        if (closed) {
            const double rounds = std::floor(s / whole());
            return rounds * turned.back() + inside(s - rounds * whole());
        }
        return inside(std::clamp(s, 0.0, whole()));
    }
    std::pair<Point, Point> place(double s) const {
        if (closed) s -= std::floor(s / whole()) * whole();
        auto it = std::upper_bound(at.begin(), at.end(), s);
        const std::size_t i =
            std::clamp<std::size_t>(static_cast<std::size_t>(it - at.begin()), 1, at.size() - 1);
        const Point along = unit(points[i - 1], points[i]);
        return {points[i - 1] + along * (s - at[i - 1]), along};
    }
    double curvature(double s) const {
        double from = s - window, to = s + window;
        if (!closed) from = std::max(from, 0.0), to = std::min(to, whole());
        return to > from ? (turned_at(to) - turned_at(from)) / (to - from) : 0;
    }

  private:
    double inside(double s) const {
        auto it = std::upper_bound(at.begin(), at.end(), s);
        const std::size_t i =
            std::clamp<std::size_t>(static_cast<std::size_t>(it - at.begin()), 1, at.size() - 1);
        const double edge = at[i] - at[i - 1], share = edge > 0 ? (s - at[i - 1]) / edge : 0;
        return turned[i - 1] + (turned[i] - turned[i - 1]) * share;
    }
};

/// Half of each point's turn lies on either edge.
SmoothRun run_of(const std::vector<Vertex>& v, std::size_t first, std::size_t count, bool closed) {
    SmoothRun out;
    out.closed = closed;
    const std::size_t n = v.size();
    double along = 0, turned = 0;
    for (std::size_t k = 0; k <= count; ++k) {
        const Vertex& here = v[(first + k) % n];
        if (k > 0) along += distance(out.points.back(), here.at);
        const bool end = !closed && (k == 0 || k == count); // corners turn by themselves
        const double half = end ? 0 : here.turn / 2;
        if (k > 0) turned += half;
        out.points.push_back(here.at), out.at.push_back(along), out.turned.push_back(turned);
        if (k < count) turned += half;
    }
    return out;
}

struct Stretch {
    double from, to, need; ///< `need`: how many cuts, not rounded
    bool hollow;
};

std::vector<Stretch> stretches(const SmoothRun& run, double by) {
    std::vector<Stretch> out;
    const auto steps = static_cast<std::size_t>(std::max(1.0, std::ceil(run.whole() / at_each)));
    const double step = run.whole() / static_cast<double>(steps);
    bool open = false;
    for (std::size_t i = 0; i < steps; ++i) {
        const double s = step * (static_cast<double>(i) + 0.5), k = run.curvature(s);
        const bool needs = 2 * by * std::abs(k) >= gives, hollow = k < 0;
        if (!needs || (open && out.back().hollow != hollow)) open = false;
        if (!needs) continue;
        if (!open) out.push_back({s - step / 2, s, 0, hollow});
        open = true;
        out.back().to = s + step / 2;
        out.back().need += step * std::sqrt(std::abs(k) / (8 * sagitta));
    }
    // Too short a bend turns by less than a hand can see.
    std::erase_if(out, [](const Stretch& s) { return s.need < 0.2; });
    return out;
}

void cut_run(const SmoothRun& run, double by, const std::function<bool(Point)>& wanted, CurveCuts& out,
             std::vector<Region>& notches) {
    const double stop = std::min(1.0, by / 4);
    for (const Stretch& s : stretches(run, by)) {
        const double count = std::ceil(s.need - 0.02), each = s.need / std::max(1.0, count);
        double got = 0, next = each / 2, last = -1;
        const auto steps = static_cast<std::size_t>(std::ceil((s.to - s.from) / at_each * 4));
        const double step = (s.to - s.from) / static_cast<double>(steps);
        for (std::size_t i = 0; i < steps; ++i) {
            const double at = s.from + step * (static_cast<double>(i) + 0.5), k = std::abs(run.curvature(at));
            got += step * std::sqrt(k / (8 * sagitta));
            if (got < next) continue;
            next += each;
            const auto [p, along] = run.place(at);
            if (!wanted(p)) continue;
            const Point n = outwards(along);
            if (last >= 0) out.least = std::min(out.least, mm(at - last));
            last = at;
            if (s.hollow) {
                out.clips.push_back({{p + n * (by + 0.01), p + n * stop}, false});
                continue;
            }
            // A hair beyond the edge, so that it is cut through.
            const double spaced = k > 0 ? std::sqrt(8 * sagitta / k) * each : 0, far = by * 1.02;
            const double wide =
                std::min(2 * by * k * spaced, 0.9 * spaced * (1 + by * k)) / 2 * (far - stop) / (by - stop);
            ++out.notches;
            notches.push_back(triangle(p + n * stop, p + n * far + along * wide, p + n * far - along * wide));
        }
    }
}

/// Which run of a ring's edges follows each of its points: runs end at corners, full and hollow ones.
std::vector<std::size_t> runs_of(const std::vector<Vertex>& v) {
    std::vector<std::size_t> out;
    for (std::size_t i = 0, now = 0; i < v.size(); ++i)
        out.push_back(now += std::abs(v[i].turn) >= corner_turn);
    for (std::size_t i = 0; i < v.size() && out[i] == 0; ++i) // goes on from the ring's end
        out[i] = out.back();
    return out;
}

/// What an edge alone adds on its outer side.
struct Strip {
    std::size_t ring, run;
    Polyline area;
    Box box;
};

} // namespace

Region with_allowance(const Region& drawn, Length by, double reach) {
    const double a = in_mm(by);
    const Region seam = without_hairs(drawn);
    const Region out = offset(seam, by, {Corner::mitre, 20});
    std::vector<std::vector<Vertex>> rings;
    std::vector<std::vector<std::size_t>> runs;
    std::vector<Strip> strips; // where less than the whole allowance is kept around all edges in the end
    for (const Ring& ring : seam.rings) {
        const std::vector<Vertex>& v = rings.emplace_back(vertices(ring));
        const std::vector<std::size_t>& run = runs.emplace_back(runs_of(v));
        for (std::size_t i = 0; reach < 1 && i < v.size(); ++i) {
            const Point from = v[i].at, to = v[(i + 1) % v.size()].at, off = outwards(v[i].out) * a;
            const Polyline area{{from, from + off, to + off, to}, true};
            strips.push_back({rings.size() - 1, run[i], area, bounds(area)});
        }
    }
    std::vector<Region> beyond;
    for (std::size_t r = 0; r < rings.size(); ++r)
        for (std::size_t i = 0; i < rings[r].size(); ++i) {
            const Vertex& v = rings[r][i];
            if (v.turn < corner_turn) continue;
            const double half = (pi - v.turn) / 2, tip = a / std::sin(half), cut = reach * a;
            if (cut >= tip) continue;
            const Point n1 = outwards(v.in), n2 = outwards(v.out), middle = unit({}, n1 + n2);
            if (middle == Point{}) continue; // it turns back on itself
            const Point across = outwards(middle);
            // Clipper cuts tips beyond its limit by itself.
            const double far = std::min(tip, 21 * a) + 0.01, wide = (tip - cut) * std::tan(half) + 0.02;
            const Point base = v.at + middle * cut, top = v.at + middle * (far + 0.01);
            const Region all = triangle(base + across * wide, base - across * wide, top);
            // What is beyond one corner may be another edge's.
            const Box box = bounds(all);
            const std::size_t before = runs[r][i > 0 ? i - 1 : runs[r].size() - 1];
            Polylines others;
            for (const Strip& s : strips)
                if (s.box.meets(box) && !(s.ring == r && (s.run == runs[r][i] || s.run == before)))
                    others.push_back(s.area);
            beyond.push_back(others.empty() ? all : subtracted(all, region_of(others, FillRule::nonzero)));
        }
    if (beyond.empty()) return out;
    // The same, as far as the allowance is kept around all edges.
    return united(subtracted(out, united(beyond)), offset(seam, by * std::min(1.0, reach)));
}

CurveCuts curve_cuts(const Region& seam, Length by, const std::function<bool(Point)>& wanted) {
    CurveCuts out;
    std::vector<Region> notches;
    std::optional<NearestEdge> edges; // when there is a corner
    const double a = in_mm(by), stop = std::min(1.0, a / 4);
    for (const Ring& ring : seam.rings) {
        const std::vector<Vertex> v = vertices(ring);
        std::vector<std::size_t> corners;
        for (std::size_t i = 0; i < v.size(); ++i)
            if (std::abs(v[i].turn) >= corner_turn) corners.push_back(i);
        for (const std::size_t i : corners) {
            if (v[i].turn > 0 || !wanted(v[i].at)) continue; // full corners are cut across
            const Point middle = unit({}, outwards(v[i].in) + outwards(v[i].out));
            // As far from all edges as other clips are from theirs: where those at the corner are long that
            // is as far as they slant, where they are short it is nearer.
            const double deep = a / std::cos(v[i].turn / 2), most = stop / std::cos(v[i].turn / 2);
            double end = stop;
            const auto clear = [&](double at) {
                const Point p = v[i].at + middle * at;
                return distance(p, edges->to(p)) >= stop * 0.97;
            };
            if (!edges) edges.emplace(seam);
            while (end < most && !clear(end))
                end = std::min(most, end + stop * 0.05);
            out.clips.push_back({{v[i].at + middle * (deep + 0.01), v[i].at + middle * end}, false});
        }
        if (corners.empty()) {
            cut_run(run_of(v, 0, v.size(), true), a, wanted, out, notches);
            continue;
        }
        for (std::size_t c = 0; c < corners.size(); ++c) {
            const std::size_t from = corners[c], to = corners[(c + 1) % corners.size()];
            const std::size_t count = (to + v.size() - from - 1) % v.size() + 1;
            cut_run(run_of(v, from, count, false), a, wanted, out, notches);
        }
    }
    if (out.clips.empty() && notches.empty()) return out;
    // In a narrow bay they would reach what lies across.
    const Region kept = offset(seam, mm(stop * 0.95));
    out.notched = subtracted(united(notches), kept);
    const Region rest = subtracted(region_of(Shape{{rectangle(bounds(kept).grown(2 * a))}}), kept);
    const Polylines whole = std::move(out.clips);
    out.clips.clear();
    for (const Polyline& left : clipped(whole, rest))
        for (const Polyline& clip : whole) { // of what lies across the bay only the near side is a clip's
            const bool ends = distance(left.points.back(), clip.points.back()) < 1e-3,
                       begins = distance(left.points.front(), clip.points.back()) < 1e-3;
            if (!ends && !begins) continue;
            out.clips.push_back(left);
            if (begins) std::reverse(out.clips.back().points.begin(), out.clips.back().points.end());
            break;
        }
    return out;
}

} // namespace dotlane
