#include "core/geometry/grid.h"

#include <algorithm>
#include <cmath>

namespace dotlane {

namespace cl = ClipperLib;

cl::Path to_grid(const std::vector<Point>& points, Lay lay) {
    const auto snap = [](double v) {
        return static_cast<cl::cInt>(
            std::llround(std::clamp(v, -region_limit_mm, region_limit_mm) * grid_per_mm));
    };
    cl::Path path;
    path.reserve(points.size());
    for (const Point p : points) {
        const cl::IntPoint q =
            lay == Lay::sideways ? cl::IntPoint{snap(p.y), snap(p.x)} : cl::IntPoint{snap(p.x), snap(p.y)};
        if (path.empty() || path.back() != q) path.push_back(q);
    }
    if (lay == Lay::sideways) std::reverse(path.begin(), path.end());
    return path;
}

std::vector<Point> from_grid(const cl::Path& path, Lay lay) {
    std::vector<Point> points;
    points.reserve(path.size());
    for (const auto& p : path) {
        const double x = static_cast<double>(p.X) / grid_per_mm, y = static_cast<double>(p.Y) / grid_per_mm;
        points.push_back(lay == Lay::sideways ? Point{y, x} : Point{x, y});
    }
    if (lay == Lay::sideways) std::reverse(points.begin(), points.end());
    return points;
}

namespace {

/// Ten steps of the grid.
constexpr double widest_tail = 0.0001 * grid_per_mm;

/// Whether the way from a to b and on to c runs back along itself, or b is where a is.
bool turns_back(cl::IntPoint a, cl::IntPoint b, cl::IntPoint c) {
    const auto to = [b](cl::IntPoint p) {
        return Point{static_cast<double>(p.X - b.X), static_cast<double>(p.Y - b.Y)};
    };
    const Point ba = to(a), bc = to(c);
    if (dot(ba, ba) <= widest_tail * widest_tail) return true;
    if (dot(ba, bc) <= 0) return false;
    return distance_to_segment(ba, {}, bc) <= widest_tail || distance_to_segment(bc, {}, ba) <= widest_tail;
}

} // namespace

cl::Path without_tails(const cl::Path& ring) {
    cl::Path kept;
    kept.reserve(ring.size());
    for (const cl::IntPoint p : ring) {
        while (kept.size() >= 2 && turns_back(kept[kept.size() - 2], kept.back(), p))
            kept.pop_back();
        kept.push_back(p);
    }
    // Where its ends meet, the same from both sides.
    std::size_t first = 0;
    for (std::size_t left = 0; left != kept.size() - first && kept.size() - first > 2;) {
        left = kept.size() - first;
        while (kept.size() - first > 2 && turns_back(kept[kept.size() - 2], kept.back(), kept[first]))
            kept.pop_back();
        while (kept.size() - first > 2 && turns_back(kept.back(), kept[first], kept[first + 1]))
            ++first;
    }
    kept.erase(kept.begin(), kept.begin() + static_cast<std::ptrdiff_t>(first));
    return kept;
}

void add_from_grid(const cl::Paths& paths, Lay lay, Region& to, const Box& frame) {
    for (const auto& as_computed : paths) {
        const cl::Path path = without_tails(as_computed);
        if (path.size() < 3) continue;
        Ring ring = from_grid(path, lay);
        if (!frame.empty() && !frame.contains(bounds(Polyline{ring, true}))) continue;
        to.rings.push_back(std::move(ring));
    }
}

cl::Paths paths_of(const Region& region, Lay lay) {
    cl::Paths paths;
    paths.reserve(region.rings.size());
    for (const Ring& ring : region.rings)
        paths.push_back(to_grid(ring, lay));
    return paths;
}

Ring frame_around(const Box& box, double room) {
    const Box b = box.grown(room);
    return {{b.x0, b.y0}, {b.x1, b.y0}, {b.x1, b.y1}, {b.x0, b.y1}};
}

} // namespace dotlane
