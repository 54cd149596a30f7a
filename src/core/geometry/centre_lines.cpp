#include "core/geometry/centre_lines.h"

#include <algorithm>
#include <array>
#include <boost/polygon/segment_data.hpp>
#include <boost/polygon/voronoi.hpp>
#include <cmath>

#include "core/geometry/reshape.h"

namespace dotlane {
namespace {

namespace polygon = boost::polygon;
using Diagram = polygon::voronoi_diagram<double>;

constexpr double grid = 1e5; ///< units a millimetre: that of regions, so that edges do not come to cross

struct Walls {
    std::vector<polygon::segment_data<std::int32_t>> segments;
    std::vector<std::array<Point, 2>> points; ///< of the same segments, mm
};

Walls walls_of(const Region& region) {
    Walls out;
    for (const Ring& ring : region.rings)
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i], b = ring[(i + 1) % ring.size()];
            const auto at = [](double v) { return static_cast<std::int32_t>(std::llround(v * grid)); };
            if (at(a.x) == at(b.x) && at(a.y) == at(b.y)) continue;
            out.segments.push_back({{at(a.x), at(a.y)}, {at(b.x), at(b.y)}});
            out.points.push_back({a, b});
        }
    return out;
}

/// A branch of the axis from one node to another.
struct Branch {
    std::size_t from, to;
    std::vector<Point> points; ///< both nodes among them
    double length = 0;
    bool gone = false;
};

struct Axis {
    std::vector<Point> nodes;
    std::vector<double> radius; ///< of the largest circle about each node
    std::vector<Branch> branches;
};

double length_of(const std::vector<Point>& points) {
    double sum = 0;
    for (std::size_t i = 1; i < points.size(); ++i)
        sum += distance(points[i - 1], points[i]);
    return sum;
}

/// Points of a curved edge: those as far from `focus` as from the line through a and b.
void bend(std::vector<Point>& out, Point from, Point to, Point focus, Point a, Point b, double flatness) {
    const Point along = (b - a) * (1 / distance(a, b)), across{-along.y, along.x};
    const auto local = [&](Point p) {
        const Point d = p - a;
        return Point{d.x * along.x + d.y * along.y, d.x * across.x + d.y * across.y};
    };
    const Point f = local(focus), s = local(from), e = local(to);
    if (std::abs(f.y) < 1e-9) return;
    // Sagitta of a chord of this parabola: (width / 2)^2 / (2 |f.y|).
    const double wide = std::abs(e.x - s.x);
    const int parts =
        std::clamp(static_cast<int>(std::ceil(wide / std::sqrt(8 * std::abs(f.y) * flatness))), 1, 64);
    for (int i = 1; i < parts; ++i) {
        const double x = s.x + (e.x - s.x) * i / parts, y = ((x - f.x) * (x - f.x) + f.y * f.y) / (2 * f.y);
        out.push_back(a + along * x + across * y);
    }
}

Axis axis_of(const Region& region, double flatness) {
    const Walls edges = walls_of(region);
    Axis axis;
    Diagram diagram;
    polygon::construct_voronoi(edges.segments.begin(), edges.segments.end(), &diagram);
    constexpr std::size_t none = ~std::size_t{0};
    std::vector<std::size_t> node(diagram.num_vertices(), none);
    const auto point_of = [](const Diagram::vertex_type* v) { return Point{v->x() / grid, v->y() / grid}; };
    const auto own_point = [&](const Diagram::cell_type& cell) {
        const auto& ends = edges.points[cell.source_index()];
        return ends[cell.source_category() == polygon::SOURCE_CATEGORY_SEGMENT_START_POINT ? 0 : 1];
    };
    const auto node_of = [&](const Diagram::vertex_type* v) {
        std::size_t& at = node[static_cast<std::size_t>(v - diagram.vertices().data())];
        if (at != none) return at;
        at = axis.nodes.size();
        axis.nodes.push_back(point_of(v));
        const auto& cell = *v->incident_edge()->cell();
        const auto& ends = edges.points[cell.source_index()];
        axis.radius.push_back(cell.contains_point() ? distance(own_point(cell), point_of(v))
                                                    : distance_to_segment(point_of(v), ends[0], ends[1]));
        return at;
    };
    for (const auto& edge : diagram.edges()) {
        if (!edge.is_primary() || !edge.is_finite() || &edge > edge.twin()) continue;
        const Point from = point_of(edge.vertex0()), to = point_of(edge.vertex1());
        Branch branch{0, 0, {from}};
        if (edge.is_curved()) {
            const auto &one = *edge.cell(), &other = *edge.twin()->cell();
            const auto& flat = edges.points[(one.contains_point() ? other : one).source_index()];
            bend(branch.points, from, to, own_point(one.contains_point() ? one : other), flat[0], flat[1],
                 flatness);
        }
        branch.points.push_back(to);
        branch.length = length_of(branch.points);
        // An end may lie on the boundary; the middle of a branch never does.
        const Point middle = branch.points.size() > 2 ? branch.points[branch.points.size() / 2]
                                                      : Point{(from.x + to.x) / 2, (from.y + to.y) / 2};
        if (!contains(region, middle)) continue;
        branch.from = node_of(edge.vertex0()), branch.to = node_of(edge.vertex1());
        axis.branches.push_back(std::move(branch));
    }
    return axis;
}

using Star = std::vector<std::vector<std::size_t>>; ///< branches at each node

Star star_of(const Axis& axis) {
    Star star(axis.nodes.size());
    for (std::size_t i = 0; i < axis.branches.size(); ++i)
        if (!axis.branches[i].gone) {
            star[axis.branches[i].from].push_back(i);
            if (axis.branches[i].to != axis.branches[i].from) star[axis.branches[i].to].push_back(i);
        }
    return star;
}

/// Branches that meet at a node with no third one become one.
void merge(Axis& axis) {
    Star star = star_of(axis);
    for (std::size_t n = 0; n < star.size(); ++n) {
        if (star[n].size() != 2) continue;
        const std::size_t i = star[n][0], j = star[n][1];
        Branch &a = axis.branches[i], &b = axis.branches[j];
        if (a.from == a.to || b.from == b.to) continue; // a ring
        if (a.to != n) std::swap(a.from, a.to), std::reverse(a.points.begin(), a.points.end());
        if (b.from != n) std::swap(b.from, b.to), std::reverse(b.points.begin(), b.points.end());
        a.points.insert(a.points.end(), b.points.begin() + 1, b.points.end());
        a.length += b.length;
        a.to = b.to;
        b.gone = true;
        star[n].clear();
        std::replace(star[a.to].begin(), star[a.to].end(), j, i);
        if (a.to == a.from) { // the ring closes: the node sees it once
            auto& both = star[a.to];
            both.erase(std::unique(both.begin(), both.end()), both.end());
        }
    }
    std::erase_if(axis.branches, [](const Branch& b) { return b.gone; });
}

/// All spurs of a crossing go at once, so that the stroke that ends there does not run into one of its
/// corners. Where nothing but spurs meet (a dot), the two longest stay.
void prune(Axis& axis, double spurs) {
    for (bool changed = true; changed;) {
        changed = false;
        const Star star = star_of(axis);
        for (std::size_t n = 0; n < star.size(); ++n) {
            if (star[n].size() < 2) continue;
            std::vector<std::pair<double, std::size_t>> short_ones;
            for (const std::size_t i : star[n]) {
                const Branch& b = axis.branches[i];
                const std::size_t end = b.from == n ? b.to : b.from;
                if (end == n || star[end].size() != 1) continue;
                const double beyond = b.length + axis.radius[end] - axis.radius[n];
                if (beyond < spurs * axis.radius[n]) short_ones.emplace_back(beyond, i);
            }
            if (short_ones.size() == star[n].size()) {
                if (short_ones.size() == 2) continue;
                std::sort(short_ones.begin(), short_ones.end());
                short_ones.resize(short_ones.size() - 2);
            }
            for (const auto& [beyond, i] : short_ones)
                axis.branches[i].gone = changed = true;
        }
        std::erase_if(axis.branches, [](const Branch& b) { return b.gone; });
        merge(axis);
    }
}

/// Where a branch leaves a node, seen from about its radius away: close by, the axis bends towards corners.
Point heading(const Branch& b, bool from_start, double far) {
    const auto& p = b.points;
    const Point at = from_start ? p.front() : p.back();
    Point to = at;
    double gone = 0;
    for (std::size_t i = 1; i < p.size() && gone < far; ++i) {
        const Point next = from_start ? p[i] : p[p.size() - 1 - i];
        gone += distance(to, next);
        to = next;
    }
    const double d = distance(at, to);
    return d < 1e-12 ? Point{1, 0} : (to - at) * (1 / d);
}

/// A free end runs on the way it came, up to a share of the way to the edge.
void extend(Branch& b, bool start, double radius, double reach) {
    auto& p = b.points;
    if (!start) std::reverse(p.begin(), p.end());
    // What bent towards a corner is taken back first.
    double cut = 0;
    while (p.size() > 2 && cut + distance(p[0], p[1]) < radius * 0.7)
        cut += distance(p[0], p[1]), p.erase(p.begin());
    Branch rest{0, 0, p};
    const Point way = heading(rest, true, radius * 1.5);
    p.insert(p.begin(), p.front() - way * (cut + radius * reach));
    if (!start) std::reverse(p.begin(), p.end());
}

struct End {
    std::size_t branch;
    bool start;
};

/// Strokes: at every node the two branches that go on straightest are one, then the next two.
Polylines strokes_of(const Axis& axis) {
    const std::size_t n = axis.branches.size();
    std::vector<std::array<std::ptrdiff_t, 2>> next(n, {-1, -1}); ///< 2 * branch + end, for each end
    std::vector<std::vector<End>> at(axis.nodes.size());
    for (std::size_t i = 0; i < n; ++i) {
        at[axis.branches[i].from].push_back({i, true});
        at[axis.branches[i].to].push_back({i, false});
    }
    const auto slot = [](const End& e) {
        return static_cast<std::ptrdiff_t>(2 * e.branch + (e.start ? 0 : 1));
    };
    for (std::size_t node = 0; node < at.size(); ++node) {
        auto& ends = at[node];
        while (ends.size() > 1) {
            std::size_t a = 0, b = 1;
            double best = 2;
            for (std::size_t i = 0; i < ends.size(); ++i)
                for (std::size_t j = i + 1; j < ends.size(); ++j) {
                    const double far = 2 * axis.radius[node];
                    const Point u = heading(axis.branches[ends[i].branch], ends[i].start, far),
                                v = heading(axis.branches[ends[j].branch], ends[j].start, far);
                    const double turn = u.x * v.x + u.y * v.y; // -1: straight on
                    if (turn < best) best = turn, a = i, b = j;
                }
            if (best > -0.5 && ends.size() != 2) break; // a corner, not a stroke that goes on
            next[ends[a].branch][ends[a].start ? 0 : 1] = slot(ends[b]);
            next[ends[b].branch][ends[b].start ? 0 : 1] = slot(ends[a]);
            ends.erase(ends.begin() + static_cast<std::ptrdiff_t>(b));
            ends.erase(ends.begin() + static_cast<std::ptrdiff_t>(a));
        }
    }
    Polylines out;
    std::vector<bool> used(n);
    const auto follow = [&](std::size_t branch, bool from_start) {
        Polyline line;
        while (!used[branch]) {
            used[branch] = true;
            auto points = axis.branches[branch].points;
            if (!from_start) std::reverse(points.begin(), points.end());
            line.points.insert(line.points.end(), points.begin() + (line.points.empty() ? 0 : 1),
                               points.end());
            const std::ptrdiff_t on = next[branch][from_start ? 1 : 0];
            if (on < 0) break;
            branch = static_cast<std::size_t>(on) / 2;
            from_start = on % 2 == 0;
        }
        if (line.points.size() > 2 && distance(line.points.front(), line.points.back()) < 1e-9) {
            line.points.pop_back();
            line.closed = true;
        }
        out.push_back(std::move(line));
    };
    for (std::size_t i = 0; i < n; ++i)
        for (const bool start : {true, false})
            if (!used[i] && next[i][start ? 0 : 1] < 0) follow(i, start);
    for (std::size_t i = 0; i < n; ++i) // what is left are rings
        if (!used[i]) follow(i, true);
    return out;
}

} // namespace

CentreLines centre_lines(const Region& region, const CentreLineOptions& options) {
    CentreLines out;
    double widest = 0, least = 1e300;
    for (const Region& piece : pieces(region)) {
        Axis axis = axis_of(piece, in_mm(options.flatness));
        const double deepest =
            axis.radius.empty() ? 0 : *std::max_element(axis.radius.begin(), axis.radius.end());
        merge(axis);
        prune(axis, options.spurs);
        widest = std::max(widest, 2 * deepest);
        if (axis.branches.size() == 1 && axis.branches[0].from != axis.branches[0].to &&
            axis.branches[0].length < 2.9 * deepest) {
            // No longer than wide, a dot: no stroke would stand for it.
            for (const Ring& ring : offset(piece, mm(-deepest / 2)).rings)
                out.lines.push_back({ring, true});
            continue;
        }
        const Star star = star_of(axis);
        for (std::size_t i = 0; i < axis.nodes.size(); ++i)
            if (star[i].size() > 1) least = std::min(least, 2 * axis.radius[i]);
        for (Branch& b : axis.branches) {
            if (b.from == b.to) continue;
            if (star[b.from].size() == 1) extend(b, true, axis.radius[b.from], options.reach);
            if (star[b.to].size() == 1) extend(b, false, axis.radius[b.to], options.reach);
        }
        for (const Polyline& line : strokes_of(axis))
            out.lines.push_back(simplified(line, options.flatness));
    }
    out.widest = mm(widest);
    out.least = mm(std::min(least, widest));
    return out;
}

} // namespace dotlane
