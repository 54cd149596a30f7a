#include "core/geometry/crops.h"

#include <algorithm>

#include "core/geometry/far_points.h"

namespace dotlane {
namespace {

/// What of a ring lies on one side of a level or upright line. `inside`: how far a point lies on it, mm.
template<class Inside>
void keep_side(Ring& ring, Ring& room, Inside inside) {
    room.clear();
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point a = ring[i], b = ring[i + 1 < ring.size() ? i + 1 : 0];
        const double from = inside(a), to = inside(b);
        if (from >= 0) room.push_back(a);
        if ((from >= 0) != (to >= 0)) room.push_back(mix(a, b, from / (from - to)));
    }
    std::swap(ring, room);
}

} // namespace

Crops::Crops(const Region& region)
    : region_(region) {
    for (const Ring& ring : region.rings)
        boxes_.push_back(bounds(Polyline{ring, true}));
}

Region Crops::near(const Box& box) const {
    Region out;
    Ring room;
    for (std::size_t i = 0; i < boxes_.size(); ++i) {
        if (!boxes_[i].meets(box)) continue;
        Ring ring = without_far(region_.rings[i], [&](Point p) {
            return sides_behind(p.x, p.y, box.x0, box.y0, box.x1, box.y1);
        });
        if (!box.contains(boxes_[i])) {
            keep_side(ring, room, [&](Point p) { return p.x - box.x0; });
            keep_side(ring, room, [&](Point p) { return box.x1 - p.x; });
            keep_side(ring, room, [&](Point p) { return p.y - box.y0; });
            keep_side(ring, room, [&](Point p) { return box.y1 - p.y; });
        }
        if (ring.size() >= 3) out.rings.push_back(std::move(ring));
    }
    return out;
}

} // namespace dotlane
