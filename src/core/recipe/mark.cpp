#include "core/recipe/mark.h"

#include <algorithm>
#include <cmath>

namespace dotlane {

Mark::Mark(Point from, Point to, double r)
    : p(from)
    , q(to)
    , lo(std::min(from.y, to.y) - r)
    , hi(std::max(from.y, to.y) + r) {
    const Point d = q - p;
    const double l = length(d);
    level = std::abs(d.y) < 1e-9;
    if (level) return;
    const Point n{-d.y / l * r, d.x / l * r}, down = d.y > 0 ? p : q;
    for (const int i : {0, 1}) {
        const Point a = i == 0 ? down - n : down + n;
        sides[i] = {a.y, a.y + std::abs(d.y), a.x, d.x / d.y};
    }
}

bool Mark::at(double y, double r, Interval& out) const {
    if (level) { // a row of a fill, nearly always
        const double d2 = r * r - (y - p.y) * (y - p.y);
        if (d2 < 0) return false;
        const double h = std::sqrt(d2);
        out = {std::min(p.x, q.x) - h, std::max(p.x, q.x) + h};
        return true;
    }
    double from = 1e300, to = -1e300;
    const auto disc = [&](Point c) {
        const double d2 = r * r - (y - c.y) * (y - c.y);
        if (d2 < 0) return;
        const double h = std::sqrt(d2);
        from = std::min(from, c.x - h), to = std::max(to, c.x + h);
    };
    disc(p);
    disc(q);
    for (const Side& side : sides) {
        if (y < side.lo || y > side.hi) continue;
        const double x = side.x + side.slope * (y - side.lo);
        from = std::min(from, x), to = std::max(to, x);
    }
    if (to < from) return false;
    out = {from, to};
    return true;
}

} // namespace dotlane
