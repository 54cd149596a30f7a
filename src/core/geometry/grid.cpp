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

/// The edges run there and back within a few steps of the grid: no area, but a cut as long as it.
bool is_spike(const cl::IntPoint& before, const cl::IntPoint& at, const cl::IntPoint& after) {
    constexpr double steps = 2;
    const Point in{static_cast<double>(at.X - before.X), static_cast<double>(at.Y - before.Y)},
        out{static_cast<double>(after.X - at.X), static_cast<double>(after.Y - at.Y)};
    if (at == before) return true;
    if (dot(in, out) >= 0) return false;
    const double longer = std::max(std::hypot(in.x, in.y), std::hypot(out.x, out.y));
    return std::abs(cross(in, out)) <= steps * longer;
}

/// Clipper takes spikes away where they are exactly flat; those that its rounding opens by a step stay
/// behind.
cl::Path without_spikes(cl::Path path) {
    std::size_t i = 0, seen = 0; // in a row since the last that went
    while (seen < path.size() && path.size() >= 3) {
        const std::size_t n = path.size();
        if (is_spike(path[(i + n - 1) % n], path[i], path[(i + 1) % n])) {
            path.erase(path.begin() + static_cast<std::ptrdiff_t>(i));
            i = (i + n - 2) % (n - 1); // the one before may be the tip of one now
            seen = 0;
        } else {
            i = (i + 1) % n;
            ++seen;
        }
    }
    return path;
}

} // namespace

void add_from_grid(const cl::Paths& paths, Lay lay, Region& to, const Box& frame) {
    for (const auto& with_spikes : paths) {
        const cl::Path path = without_spikes(with_spikes);
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
