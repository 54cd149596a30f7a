#include "core/geometry/region.h"

#include <clipper.hpp>

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

Region offset(const Region& region, Length by, const OffsetOptions& options) {
    if (in_mm(by) == 0) return region;
    cl::ClipperOffset offsetter(options.mitre_limit, std::max(in_mm(options.flatness), 1e-4) * grid);
    const auto join = options.corner == Corner::round ? cl::jtRound : cl::jtMiter;
    offsetter.AddPaths(to_grid(region), join, cl::etClosedPolygon);
    cl::Paths out;
    offsetter.Execute(out, in_mm(by) * grid);
    return from_grid(out);
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
