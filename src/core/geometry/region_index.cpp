#include "core/geometry/region_index.h"

#include <algorithm>
#include <cmath>

namespace dotlane {

RegionIndex::RegionIndex(const Region& region) {
    const Box box = bounds(region);
    y0_ = box.empty() ? 0 : box.y0;
    std::vector<Edge> all;
    all.reserve(point_count(region));
    double rise = 0;
    for (const Ring& ring : region.rings)
        for (std::size_t i = 0; i < ring.size(); ++i) {
            all.push_back({ring[i], ring[(i + 1) % ring.size()]});
            rise += std::abs(all.back().b.y - all.back().a.y);
        }
    // As high as an edge is on average: lower ones hold fewer edges each, but most edges more than twice.
    const double count = static_cast<double>(all.size()), height = std::max(box.height(), 1e-9);
    const double slabs = std::clamp(rise > 0 ? height * count / rise : 1.0, std::sqrt(count), count);
    const auto of = static_cast<std::size_t>(std::max(1.0, slabs));
    height_ = height / static_cast<double>(of);
    from_.resize(of + 1);
    const auto each_slab = [&](const Edge& e, auto put) {
        const std::size_t last = at(std::max(e.a.y, e.b.y));
        for (std::size_t s = at(std::min(e.a.y, e.b.y)); s <= last; ++s)
            put(s);
    };
    for (const Edge& e : all)
        each_slab(e, [&](std::size_t s) { ++from_[s + 1]; });
    for (std::size_t s = 0; s < of; ++s)
        from_[s + 1] += from_[s];
    edges_.resize(from_.back());
    std::vector<std::uint32_t> next(from_.begin(), from_.end() - 1);
    for (const Edge& e : all)
        each_slab(e, [&](std::size_t s) { edges_[next[s]++] = e; });
}

std::size_t RegionIndex::at(double y) const {
    const double k = std::floor((y - y0_) / height_);
    return static_cast<std::size_t>(std::clamp(k, 0.0, static_cast<double>(from_.size() - 2)));
}

RegionIndex::Slab RegionIndex::slab(std::size_t i) const {
    return {edges_.data() + from_[i], edges_.data() + from_[i + 1]};
}

bool RegionIndex::contains(Point p) const {
    bool inside = false;
    for (const auto& [a, b] : slab(at(p.y)))
        if ((a.y > p.y) != (b.y > p.y) && p.x < (b.x - a.x) * (p.y - a.y) / (b.y - a.y) + a.x)
            inside = !inside;
    return inside;
}

/// Each edge once, until one call of `met` says that it is enough.
template<class Met>
void RegionIndex::each_crossed(Point p, Point q, Met met) const {
    const double x0 = std::min(p.x, q.x), x1 = std::max(p.x, q.x);
    const std::size_t first = at(std::min(p.y, q.y)), last = at(std::max(p.y, q.y));
    for (std::size_t s = first; s <= last; ++s)
        for (const auto& [a, b] : slab(s)) {
            if (std::max(a.x, b.x) < x0 || std::min(a.x, b.x) > x1) continue;
            if (properly_cross(a, b, p, q) && s == std::max(first, at(std::min(a.y, b.y))) && met()) return;
        }
}

bool RegionIndex::crosses(Point p, Point q) const {
    bool out = false;
    each_crossed(p, q, [&] { return out = true; });
    return out;
}

std::size_t RegionIndex::crossings(Point p, Point q) const {
    std::size_t out = 0;
    each_crossed(p, q, [&] { return ++out == 0; });
    return out;
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
