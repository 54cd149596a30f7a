#include "core/derive/correction.h"

#include <cmath>

namespace dotlane {

Result<Correction> correction_of(const std::vector<Point>& asked, const std::vector<Point>& found) {
    if (asked.size() < 3 || found.size() != 3)
        return fail("marks.number", say("Three marks are measured: %1 were printed, %2 were found.",
                                        asked.size(), found.size()));
    const Point u = asked[1] - asked[0], v = asked[2] - asked[0], p = found[1] - found[0],
                q = found[2] - found[0];
    const double d = cross(u, v);
    if (std::abs(d) < 0.05 * length(u) * length(v) || std::abs(cross(p, q)) < 0.05 * length(p) * length(q) ||
        length(p) < 1 || length(q) < 1)
        return fail("marks.line", say("The three marks lie on one line, so nothing can be told from them."));
    for (int i = 0; i < 3; ++i)
        if (const double off =
                distance(asked[static_cast<std::size_t>(i)], found[static_cast<std::size_t>(i)]);
            !(off <= 20))
            return fail("marks.far", say("Mark %1 was found %2 mm from where it was printed: that is another "
                                         "mark, or another sheet.",
                                         i + 1, std::llround(std::min(off, 1e6))));
    Correction out;
    Affine& m = out.map; // m u = p, m v = q
    m.a = (p.x * v.y - q.x * u.y) / d, m.c = (q.x * u.x - p.x * v.x) / d;
    m.b = (p.y * v.y - q.y * u.y) / d, m.d = (q.y * u.x - p.y * v.x) / d;
    m.e = found[0].x - m.a * asked[0].x - m.c * asked[0].y;
    m.f = found[0].y - m.b * asked[0].x - m.d * asked[0].y;
    out.right = mm(found[0].x - asked[0].x), out.down = mm(found[0].y - asked[0].y);
    // Along the first two marks, and square to them.
    const Point e = u * (1 / length(u)), n{-e.y, e.x};
    const Point me{m.a * e.x + m.c * e.y, m.b * e.x + m.d * e.y},
        mn{m.a * n.x + m.c * n.y, m.b * n.x + m.d * n.y};
    out.wide = length(me);
    out.turn = radians(std::atan2(cross(e, me), dot(e, me)));
    const Point along = me * (1 / out.wide);
    out.high = cross(along, mn);
    out.shear = radians(std::atan2(-dot(along, mn), out.high));
    return out;
}

std::vector<Point> mark_places(const PrintSheet& print) {
    std::vector<Point> out;
    for (std::size_t i = 0; i + 1 < print.marks.size(); i += 2) // the two arms of a cross
        out.push_back(bounds(Polylines{print.marks[i], print.marks[i + 1]}).centre());
    return out;
}

} // namespace dotlane
