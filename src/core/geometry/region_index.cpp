#include "core/geometry/region_index.h"

#include <algorithm>
#include <cmath>

namespace dotlane {

RegionIndex::RegionIndex(const Region& region) {
    const Box box = bounds(region);
    const std::size_t count = point_count(region);
    slabs_.resize(std::max<std::size_t>(1, static_cast<std::size_t>(std::sqrt(static_cast<double>(count)))));
    y0_ = box.empty() ? 0 : box.y0;
    height_ = std::max(box.height(), 1e-9) / static_cast<double>(slabs_.size());
    edges_.reserve(count);
    for (const Ring& ring : region.rings)
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point a = ring[i], b = ring[(i + 1) % ring.size()];
            const auto index = static_cast<std::uint32_t>(edges_.size());
            edges_.push_back({a, b});
            for (std::size_t s = slab(std::min(a.y, b.y)); s <= slab(std::max(a.y, b.y)); ++s)
                slabs_[s].push_back(index);
        }
}

std::size_t RegionIndex::slab(double y) const {
    const double k = std::floor((y - y0_) / height_);
    return static_cast<std::size_t>(std::clamp(k, 0.0, static_cast<double>(slabs_.size() - 1)));
}

bool RegionIndex::contains(Point p) const {
    bool inside = false;
    for (const std::uint32_t i : slabs_[slab(p.y)]) {
        const auto& [a, b] = edges_[i];
        if ((a.y > p.y) != (b.y > p.y) && p.x < (b.x - a.x) * (p.y - a.y) / (b.y - a.y) + a.x)
            inside = !inside;
    }
    return inside;
}

bool RegionIndex::crosses(Point p, Point q) const {
    for (std::size_t s = slab(std::min(p.y, q.y)); s <= slab(std::max(p.y, q.y)); ++s)
        for (const std::uint32_t i : slabs_[s]) {
            const auto& [a, b] = edges_[i];
            const double d1 = cross(q - p, a - p), d2 = cross(q - p, b - p), d3 = cross(b - a, p - a),
                         d4 = cross(b - a, q - a);
            if (((d1 > 0 && d2 < 0) || (d1 < 0 && d2 > 0)) && ((d3 > 0 && d4 < 0) || (d3 < 0 && d4 > 0)))
                return true;
        }
    return false;
}

bool RegionIndex::contains(const Polyline& line) const {
    const std::size_t n = line.points.size();
    for (std::size_t i = 0; i < n; ++i) {
        if (!contains(line.points[i])) return false;
        if (i + 1 < n || line.closed)
            if (crosses(line.points[i], line.points[(i + 1) % n])) return false;
    }
    return true;
}

} // namespace dotlane
