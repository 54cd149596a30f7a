// A point or vector in the plane. Coordinates are millimetres, x to the right, y down; this type is the
// one place where bare doubles stand for lengths, because geometry would drown in wrappers otherwise.
#pragma once

#include <algorithm>
#include <cmath>

namespace dotlane {

struct Point {
    double x = 0, y = 0;
    constexpr bool operator==(const Point&) const = default;
    constexpr Point operator+(Point o) const { return {x + o.x, y + o.y}; }
    constexpr Point operator-(Point o) const { return {x - o.x, y - o.y}; }
    constexpr Point operator*(double k) const { return {x * k, y * k}; }
};

constexpr double dot(Point a, Point b) {
    return a.x * b.x + a.y * b.y;
}
constexpr double cross(Point a, Point b) {
    return a.x * b.y - a.y * b.x;
}
constexpr double distance2(Point a, Point b) {
    return dot(b - a, b - a);
}
inline double distance(Point a, Point b) {
    return std::sqrt(distance2(a, b));
}
inline double length(Point v) {
    return std::sqrt(dot(v, v));
}
constexpr Point mix(Point a, Point b, double t) {
    return {a.x + (b.x - a.x) * t, a.y + (b.y - a.y) * t};
}

/// Distance from p to the closed segment a-b, mm.
inline double distance_to_segment(Point p, Point a, Point b) {
    const double l2 = distance2(a, b);
    const double t = l2 > 0 ? std::clamp(dot(p - a, b - a) / l2, 0.0, 1.0) : 0.0;
    return distance(p, mix(a, b, t));
}

/// Whether two segments cross in a point inside of both: touching is not crossing.
inline bool properly_cross(Point a, Point b, Point p, Point q) {
    const double d1 = cross(q - p, a - p), d2 = cross(q - p, b - p), d3 = cross(b - a, p - a),
                 d4 = cross(b - a, q - a);
    return ((d1 > 0 && d2 < 0) || (d1 < 0 && d2 > 0)) && ((d3 > 0 && d4 < 0) || (d3 < 0 && d4 > 0));
}

/// Axis-aligned box, mm. A default box is empty and grows by `add`.
struct Box {
    double x0 = 1e300, y0 = 1e300, x1 = -1e300, y1 = -1e300;
    constexpr bool operator==(const Box&) const = default;
    constexpr bool empty() const { return x1 < x0 || y1 < y0; }
    constexpr double width() const { return empty() ? 0 : x1 - x0; }
    constexpr double height() const { return empty() ? 0 : y1 - y0; }
    constexpr Point centre() const { return {(x0 + x1) / 2, (y0 + y1) / 2}; }
    constexpr void add(Point p) {
        x0 = std::min(x0, p.x), y0 = std::min(y0, p.y);
        x1 = std::max(x1, p.x), y1 = std::max(y1, p.y);
    }
    constexpr void add(const Box& b) {
        if (!b.empty()) add(Point{b.x0, b.y0}), add(Point{b.x1, b.y1});
    }
    constexpr Box grown(double by) const { return empty() ? *this : Box{x0 - by, y0 - by, x1 + by, y1 + by}; }
    constexpr bool contains(Point p) const { return p.x >= x0 && p.x <= x1 && p.y >= y0 && p.y <= y1; }
    constexpr bool contains(const Box& b) const {
        return b.x0 >= x0 && b.x1 <= x1 && b.y0 >= y0 && b.y1 <= y1;
    }
    constexpr bool meets(const Box& b) const {
        return !empty() && !b.empty() && b.x0 <= x1 && b.x1 >= x0 && b.y0 <= y1 && b.y1 >= y0;
    }
};

/// Free way between two boxes that are not empty; 0 when they meet.
inline double gap(const Box& a, const Box& b) {
    return std::hypot(std::max({0.0, a.x0 - b.x1, b.x0 - a.x1}), std::max({0.0, a.y0 - b.y1, b.y0 - a.y1}));
}

/// x' = a x + c y + e, y' = b x + d y + f: the matrix of SVG 2, section 8.5.
struct Affine {
    double a = 1, b = 0, c = 0, d = 1, e = 0, f = 0;
    constexpr bool operator==(const Affine&) const = default;
    constexpr Point operator()(Point p) const { return {a * p.x + c * p.y + e, b * p.x + d * p.y + f}; }
    /// (m * n)(p) == m(n(p))
    constexpr Affine operator*(const Affine& n) const {
        return {a * n.a + c * n.b, b * n.a + d * n.b,     a * n.c + c * n.d,
                b * n.c + d * n.d, a * n.e + c * n.f + e, b * n.e + d * n.f + f};
    }
    constexpr double determinant() const { return a * d - b * c; }
    /// Geometric mean of the stretch in all directions; the scale given to stroke widths.
    double mean_scale() const { return std::sqrt(std::abs(determinant())); }
    Affine inverse() const {
        const double k = 1 / determinant();
        return {d * k, -b * k, -c * k, a * k, (c * f - d * e) * k, (b * e - a * f) * k};
    }
    static constexpr Affine translation(Point by) { return {1, 0, 0, 1, by.x, by.y}; }
    static constexpr Affine scaling(double sx, double sy) { return {sx, 0, 0, sy, 0, 0}; }
    static Affine rotation(double radians) {
        const double s = std::sin(radians), k = std::cos(radians);
        return {k, s, -s, k, 0, 0};
    }
};

} // namespace dotlane
