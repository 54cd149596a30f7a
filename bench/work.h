// The same work for ours and for the reference.
#pragma once

#include <random>

#include "core/geometry/region.h"

namespace dotlane::bench {

/// A gear-like outline with many corners and four holes.
inline Region gear(int corners) {
    const auto ring = [](int n, double r, double wobble, Point c) {
        Polyline out{{}, true};
        for (int i = 0; i < n; ++i) {
            const double a = 2 * 3.14159265358979 * i / n, k = r + (i % 2 ? wobble : -wobble);
            out.points.push_back({c.x + k * std::cos(a), c.y + k * std::sin(a)});
        }
        return out;
    };
    Polylines lines{ring(corners, 60, 2, {0, 0})};
    for (const Point c : {Point{25, 0}, Point{-25, 0}, Point{0, 25}, Point{0, -25}})
        lines.push_back(ring(corners / 4, 9, 0.5, c));
    return region_of(lines, FillRule::evenodd);
}

inline std::vector<Point> scattered(int n) {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> at(0, 300);
    std::vector<Point> out;
    for (int i = 0; i < n; ++i)
        out.push_back({at(random), at(random)});
    return out;
}

} // namespace dotlane::bench
