#include "core/recipe/limbs.h"

#include "core/geometry/centre_lines.h"

namespace dotlane {
namespace {

/// What of the surface no tip reaches that stays inside: limbs that are too narrow, not mere corners.
Region narrow_of(const Region& whole, const Region& inner, Length inset, Length tip) {
    // A little more is taken off, so that slivers along curves do not count.
    const Region rest = subtracted(whole, offset(inner, inset * 1.02 + mm(0.005)));
    Region out;
    for (const Region& piece : pieces(rest)) {
        const double size = in_square_mm(area(piece)), around = in_mm(perimeter(piece));
        // A corner's rest is about as long as it is wide; a limb is longer than the tip.
        if (around > 3 * in_mm(tip) && size > 0.1 * in_mm(tip) * in_mm(tip))
            out.rings.insert(out.rings.end(), piece.rings.begin(), piece.rings.end());
    }
    return out;
}

/// Lines that make it solid along the middle of what is too narrow.
Polylines along_the_middle(const Region& narrow, const Region& whole, Length tip) {
    Polylines out;
    for (const Region& piece : pieces(narrow)) {
        // Grown a little, so that the line runs on to the ink that it continues.
        const Region limb = intersected(offset(piece, tip / 2), whole);
        for (Polyline& line : centre_lines(limb, {0.5, 0.9, mm(0.02)}).lines)
            if (in_mm(length(line)) >= in_mm(tip) / 2) out.push_back(std::move(line));
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
