#include "core/geometry/region.h"

#include <algorithm>
#include <clipper.hpp>
#include <tuple>

#include "core/geometry/reshape.h"

namespace dotlane {
namespace {

namespace cl = ClipperLib;

constexpr double grid = 1e5; // units per mm: 10 m is 1e9, below Clipper's limit for plain 64-bit products

cl::IntPoint to_grid(Point p) {
    const auto snap = [](double v) {
        return static_cast<cl::cInt>(std::llround(std::clamp(v, -region_limit_mm, region_limit_mm) * grid));
    };
    return {snap(p.x), snap(p.y)};
}

Point from_grid(const cl::IntPoint& p) {
    return {static_cast<double>(p.X) / grid, static_cast<double>(p.Y) / grid};
}

cl::Path to_grid(const std::vector<Point>& points) {
    cl::Path path;
    path.reserve(points.size());
    for (const Point p : points) {
        const auto q = to_grid(p);
        if (path.empty() || path.back() != q) path.push_back(q);
    }
    return path;
}

cl::Paths to_grid(const Region& region) {
    cl::Paths paths;
    paths.reserve(region.rings.size());
    for (const Ring& ring : region.rings)
        paths.push_back(to_grid(ring));
    return paths;
}

std::vector<Point> from_grid(const cl::Path& path) {
    std::vector<Point> points;
    points.reserve(path.size());
    for (const auto& p : path)
        points.push_back(from_grid(p));
    return points;
}

Region from_grid(const cl::Paths& paths) {
    Region region;
    region.rings.reserve(paths.size());
    for (const auto& path : paths)
        if (path.size() >= 3) region.rings.push_back(from_grid(path));
    return region;
}

Region combine(const cl::Paths& subject, const cl::Paths& clip, cl::ClipType type,
               cl::PolyFillType rule = cl::pftNonZero) {
    cl::Clipper clipper;
    clipper.AddPaths(subject, cl::ptSubject, true);
    clipper.AddPaths(clip, cl::ptClip, true);
    cl::Paths out;
    clipper.Execute(type, out, rule, cl::pftNonZero);
    return from_grid(out);
}

} // namespace

Region region_of(const Polylines& lines, FillRule rule, bool close_open) {
    cl::Paths paths;
    for (const Polyline& line : lines)
        if ((line.closed || close_open) && line.points.size() >= 3) paths.push_back(to_grid(line.points));
    return combine(paths, {}, cl::ctUnion, rule == FillRule::nonzero ? cl::pftNonZero : cl::pftEvenOdd);
}

Region region_of(const Shape& shape, Length flatness) {
    return region_of(flattened(shape, flatness), shape.rule);
}

Region united(const Region& a, const Region& b) {
    return combine(to_grid(a), to_grid(b), cl::ctUnion);
}

Region united(const std::vector<Region>& all) {
    cl::Paths paths;
    for (const Region& region : all)
        for (const Ring& ring : region.rings)
            paths.push_back(to_grid(ring));
    return combine(paths, {}, cl::ctUnion);
}

Region intersected(const Region& a, const Region& b) {
    return combine(to_grid(a), to_grid(b), cl::ctIntersection);
}
Region subtracted(const Region& from, const Region& what) {
    return combine(to_grid(from), to_grid(what), cl::ctDifference);
}

namespace {

Region offset_once(const Region& region, double by, cl::JoinType join, const OffsetOptions& options) {
    cl::ClipperOffset offsetter(options.mitre_limit, std::max(in_mm(options.flatness), 1e-4) * grid);
    offsetter.AddPaths(to_grid(region), join, cl::etClosedPolygon);
    cl::Paths out;
    offsetter.Execute(out, by * grid);
    return from_grid(out);
}

/// Every edge moved outwards, corners cut straight across, inner corners led through the corner itself: what
/// winds positively around a point is then the grown area.
Region grown_bevelled(const Region& region, double by) {
    cl::Paths raw;
    for (const Ring& ring : region.rings) {
        Ring moved;
        const std::size_t n = ring.size();
        const auto normal = [&](std::size_t i) {
            const Point v = ring[(i + 1) % n] - ring[i];
            const double l = length(v);
            return l > 0 ? Point{v.y / l, -v.x / l} : Point{};
        };
        for (std::size_t i = 0; i < n; ++i) {
            const Point in = normal((i + n - 1) % n), out = normal(i);
            moved.push_back(ring[i] + in * by);
            if (cross(in, out) < 0) moved.push_back(ring[i]);
            moved.push_back(ring[i] + out * by);
        }
        raw.push_back(to_grid(moved));
    }
    return combine(raw, {}, cl::ctUnion, cl::pftPositive);
}

} // namespace

Region offset(const Region& region, Length by, const OffsetOptions& options) {
    if (in_mm(by) == 0) return region;
    if (options.corner == Corner::bevel) {
        if (in_mm(by) > 0) return grown_bevelled(region, in_mm(by));
        // What is lost is what the surroundings gain.
        const Box around = bounds(region).grown(2 * std::abs(in_mm(by)) + 1);
        if (around.empty()) return {};
        const Region frame{{{{around.x0, around.y0},
                             {around.x1, around.y0},
                             {around.x1, around.y1},
                             {around.x0, around.y1}}}};
        return subtracted(region, grown_bevelled(subtracted(frame, region), -in_mm(by)));
    }
    if (options.corner == Corner::mitre) return offset_once(region, in_mm(by), cl::jtMiter, options);
    // Every edge of a fine outline moved far crosses all its neighbours' ways, at a cost that grows with the
    // square of their number. Round offsets add up, so the way is gone in strides that double: after the
    // first, what is finer than it has vanished.
    std::size_t points = 0;
    for (const Ring& ring : region.rings)
        points += ring.size();
    double left = std::abs(in_mm(by)), stride = left;
    if (points > 500)
        stride = std::min(left, std::max(0.2, 3 * in_mm(perimeter(region)) / static_cast<double>(points)));
    Region out = region;
    for (; left > 0 && !out.empty(); stride *= 2) {
        const double now = left <= stride * 1.5 ? left : stride;
        out = offset_once(out, in_mm(by) < 0 ? -now : now, cl::jtRound, options);
        left -= now;
        if (left > 0) // corners rounded again and again would pile up points
            for (Ring& ring : out.rings)
                ring = simplified({std::move(ring), true}, options.flatness).points;
    }
    return out;
}

Region stroked(const Polylines& lines, Length width, Length flatness) {
    // One union over all strokes. Clipper's own offsetter unites as it goes; giving it everything at once
    // keeps crossings between strokes from being counted twice.
    cl::ClipperOffset offsetter(2, std::max(in_mm(flatness), 1e-4) * grid);
    for (const Polyline& line : lines)
        offsetter.AddPath(to_grid(line.points), cl::jtRound,
                          line.closed ? cl::etClosedLine : cl::etOpenRound);
    cl::Paths out;
    offsetter.Execute(out, in_mm(width) / 2 * grid);
    return from_grid(out);
}

std::vector<Region> pieces(const Region& region) {
    struct Outer {
        std::size_t ring;
        Box box;
        double area;
    };
    std::vector<Outer> outers;
    std::vector<double> areas;
    for (std::size_t i = 0; i < region.rings.size(); ++i) {
        areas.push_back(signed_area_mm2(region.rings[i]));
        if (areas[i] <= 0) continue;
        Box box;
        for (const Point p : region.rings[i])
            box.add(p);
        outers.push_back({i, box, areas[i]});
    }
    std::sort(outers.begin(), outers.end(), [](const Outer& a, const Outer& b) {
        return std::tie(a.box.x0, a.box.y0, a.ring) < std::tie(b.box.x0, b.box.y0, b.ring);
    });
    std::vector<Region> out(outers.size());
    for (std::size_t k = 0; k < outers.size(); ++k)
        out[k].rings.push_back(region.rings[outers[k].ring]);
    for (std::size_t i = 0; i < region.rings.size(); ++i) {
        if (areas[i] > 0 || region.rings[i].empty()) continue;
        // A hole belongs to the smallest outer ring around it. It may touch that ring in single points, so
        // the middle of its first edge decides; rings never cross.
        const Ring& hole = region.rings[i];
        const Point inside = mix(hole[0], hole[1 % hole.size()], 0.5);
        std::size_t best = outers.size();
        for (std::size_t k = 0; k < outers.size(); ++k)
            if (outers[k].box.contains(inside) &&
                (best == outers.size() || outers[k].area < outers[best].area) && outers[k].area > -areas[i] &&
                ring_contains(region.rings[outers[k].ring], inside))
                best = k;
        if (best < outers.size()) out[best].rings.push_back(hole);
    }
    return out;
}

Region without_holes(const Region& region, std::optional<Area> less_than) {
    Region filled;
    for (const Ring& ring : region.rings) {
        const double a = signed_area_mm2(ring);
        if (a > 0 || (less_than && -a >= in_square_mm(*less_than))) filled.rings.push_back(ring);
    }
    // A piece that lay in a hole now lies in its surroundings.
    return filled.rings.size() == region.rings.size() ? filled : united(filled, {});
}

int hole_count(const Region& region) {
    return static_cast<int>(std::count_if(region.rings.begin(), region.rings.end(),
                                          [](const Ring& r) { return signed_area_mm2(r) < 0; }));
}

Polylines clipped(const Polylines& lines, const Region& by) {
    Polylines out;
    const Box box = bounds(by);
    cl::Clipper clipper;
    bool any = false;
    for (const Polyline& line : lines) {
        if (line.points.empty() || !box.meets(bounds(line))) continue;
        cl::Path path = to_grid(line.points);
        if (line.closed) path.push_back(path.front());
        if (path.size() < 2) {
            if (contains(by, line.points.front())) out.push_back(line);
            continue;
        }
        any |= clipper.AddPath(path, cl::ptSubject, false);
    }
    if (!any) return out;
    clipper.AddPaths(to_grid(by), cl::ptClip, true);
    cl::PolyTree tree;
    clipper.Execute(cl::ctIntersection, tree, cl::pftNonZero, cl::pftNonZero);
    cl::Paths open;
    cl::OpenPathsFromPolyTree(tree, open);
    for (const auto& path : open) {
        Polyline line{from_grid(path), false};
        if (line.points.size() > 3 && line.points.front() == line.points.back())
            line.closed = true, line.points.pop_back();
        if (line.points.size() >= 2) out.push_back(std::move(line));
    }
    return out;
}

Area area(const Region& region) {
    double total = 0;
    for (const Ring& ring : region.rings)
        total += signed_area_mm2(ring);
    return square_mm(total);
}

Length perimeter(const Region& region) {
    Length total;
    for (const Ring& ring : region.rings)
        total += length(Polyline{ring, true});
    return total;
}

Box bounds(const Region& region) {
    Box box;
    for (const Ring& ring : region.rings)
        for (const Point p : ring)
            box.add(p);
    return box;
}

bool contains(const Region& region, Point p) {
    bool inside = false;
    for (const Ring& ring : region.rings)
        inside ^= ring_contains(ring, p);
    return inside;
}

Region transformed(const Region& region, const Affine& by) {
    Region out;
    for (const Ring& ring : region.rings) {
        Ring moved;
        moved.reserve(ring.size());
        for (const Point p : ring)
            moved.push_back(by(p));
        if (by.determinant() < 0) std::reverse(moved.begin(), moved.end());
        out.rings.push_back(std::move(moved));
    }
    return out;
}

} // namespace dotlane
