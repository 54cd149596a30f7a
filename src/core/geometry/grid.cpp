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

void add_from_grid(const cl::Paths& paths, Lay lay, Region& to, const Box& frame) {
    for (const auto& path : paths) {
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
