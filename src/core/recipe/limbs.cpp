#include "core/recipe/limbs.h"

#include <algorithm>
#include <optional>

#include "core/geometry/centre_lines.h"
#include "core/geometry/nearest_edge.h"

namespace dotlane {
namespace {

/// At how many places the region's edge runs along that of the ink.
int contacts(const Region& region, const NearestEdge& ink) {
    int out = 0;
    for (const Ring& ring : region.rings) {
        const auto on = [&](std::size_t i) {
            const Point p = (ring[i] + ring[(i + 1) % ring.size()]) * 0.5;
            return distance(p, ink.to(p)) < 2e-3; // coordinates are rounded
        };
        const bool first = on(0);
        int begins = 0;
        bool all = first;
        for (std::size_t i = 1, was = first; i <= ring.size(); ++i) {
            const bool now = i < ring.size() ? on(i) : first;
            begins += now && !was, all &= now, was = now;
        }
        out += all ? 1 : begins;
    }
    return out;
}

/// What of the surface no tip reaches that stays inside: limbs that are too narrow, not mere corners.
Region narrow_of(const Region& whole, const Region& inner, Length inset, Length tip) {
    // A little more is taken off, so that slivers along curves do not count.
    const Region inked = offset(inner, inset * 1.02 + mm(0.005)), rest = subtracted(whole, inked);
    std::optional<NearestEdge> edge;
    if (!inked.empty()) edge.emplace(inked);
    Region out;
    for (const Region& piece : pieces(rest)) {
        const double size = in_square_mm(area(piece)), around = in_mm(perimeter(piece));
        if (around <= 3 * in_mm(tip) || size <= 0.1 * in_mm(tip) * in_mm(tip)) continue;
        // What sticks out of the ink at one place by less than one and a half tips, and is no larger, as
        // corners of 29 degrees and more, is not worth a lift each: a star had ten of them, for a thousandth
        // of its surface.
        if (edge && size < 0.65 * in_mm(tip) * in_mm(tip) && contacts(piece, *edge) == 1 &&
            std::all_of(piece.rings.front().begin(), piece.rings.front().end(),
                        [&](Point p) { return distance(p, edge->to(p)) < 1.5 * in_mm(tip); }))
            continue;
        out.rings.insert(out.rings.end(), piece.rings.begin(), piece.rings.end());
    }
    return out;
}

/// Whether some of the line lies in the region. Where a limb spreads into the ink that it grows from, its
/// middle has branches that do not.
bool lies_partly_in(const Polyline& line, const Region& region) {
    for (std::size_t i = 0; i + 1 < line.points.size(); ++i)
        for (const double share : {0.0, 0.25, 0.5, 0.75, 1.0})
            if (contains(region, mix(line.points[i], line.points[i + 1], share))) return true;
    return false;
}

/// Lines that make it solid along the middle of what is too narrow.
Polylines along_the_middle(const Region& narrow, const Region& whole, Length tip) {
    Polylines out;
    const std::vector<Region> areas = pieces(whole);
    std::vector<Box> boxes;
    for (const Region& one : areas)
        boxes.push_back(bounds(one));
    for (const Region& piece : pieces(narrow)) {
        // Grown a little, so that the line runs on to the ink that it continues. By what lies there: a page
        // of text has thousands of limbs and of letters.
        const Region grown = offset(piece, tip / 2);
        const Box box = bounds(grown);
        Region around;
        for (std::size_t k = 0; k < areas.size(); ++k)
            if (boxes[k].meets(box))
                around.rings.insert(around.rings.end(), areas[k].rings.begin(), areas[k].rings.end());
        const Region limb = intersected(grown, around);
        for (Polyline& line : centre_lines(limb, {0.5, 0.9, mm(0.02)}).lines)
            if (in_mm(length(line)) >= in_mm(tip) / 2 && lies_partly_in(line, piece))
                out.push_back(std::move(line));
    }
    return out;
}

} // namespace

Polylines limb_lines(const FillGround& ground, Length tip) {
    // By the tip, whatever the inset: what a wide inset leaves bare is not too narrow.
    const Length half = tip / 2;
    const Region& whole = ground.surface.whole;
    const Region narrow =
        narrow_of(whole, ground.inset == half ? ground.inner : offset(whole, -half), half, tip);
    return along_the_middle(narrow, whole, tip);
}

} // namespace dotlane
