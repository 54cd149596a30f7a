// What of a ring need not be known near a box. For the sources of this folder only.
#pragma once

#include <cstddef>

namespace dotlane {

/// A bit for each side of a box that a point lies behind.
template<class Number>
unsigned sides_behind(Number x, Number y, Number x0, Number y0, Number x1, Number y1) {
    return static_cast<unsigned>(x < x0) | static_cast<unsigned>(x > x1) << 1U |
           static_cast<unsigned>(y < y0) << 2U | static_cast<unsigned>(y > y1) << 3U;
}

/// Without points that lie behind one of the box's sides together with both their neighbours: the way between
/// those leads past the box as well, so that the ring winds within the box as it did. `behind`: the sides
/// that a point lies behind.
template<class Points, class Behind>
Points without_far(const Points& ring, Behind behind) {
    Points out;
    if (ring.empty()) return out;
    unsigned last = 0, here = behind(ring.front());
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const unsigned next = behind(ring[i + 1 < ring.size() ? i + 1 : 0]);
        if (i == 0 || (last & here & next) == 0) out.push_back(ring[i]), last = here;
        here = next;
    }
    return out;
}

} // namespace dotlane
