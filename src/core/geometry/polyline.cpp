#include "core/geometry/polyline.h"

namespace dotlane {

Length length(const Polyline& line) {
    double total = 0;
    for (std::size_t i = 1; i < line.points.size(); ++i)
        total += distance(line.points[i - 1], line.points[i]);
    if (line.closed && line.points.size() > 1) total += distance(line.points.back(), line.points.front());
    return mm(total);
}

Length length(const Polylines& lines) {
    Length total;
    for (const Polyline& line : lines)
        total += length(line);
    return total;
}

double distance_to(const Polyline& line, Point p) {
    const std::size_t n = line.points.size();
    if (n == 1) return distance(line.points[0], p);
    double least = 1e300;
    for (std::size_t i = 0; i + (line.closed ? 0 : 1) < n; ++i)
        least = std::min(least, distance_to_segment(p, line.points[i], line.points[(i + 1) % n]));
    return least;
}

double signed_area_mm2(const std::vector<Point>& ring) {
    if (ring.size() < 3) return 0;
    double twice = 0;
    const Point o = ring.front(); // relative to a corner: far-off rings keep their digits
    for (std::size_t i = 1; i + 1 < ring.size(); ++i)
        twice += cross(ring[i] - o, ring[i + 1] - o);
    return twice / 2;
}

Box bounds(const Polyline& line) {
    Box box;
    for (const Point p : line.points)
        box.add(p);
    return box;
}

Box bounds(const Polylines& lines) {
    Box box;
    for (const Polyline& line : lines)
        box.add(bounds(line));
    return box;
}

Polyline transformed(const Polyline& line, const Affine& by) {
    Polyline out{{}, line.closed};
    out.points.reserve(line.points.size());
    for (const Point p : line.points)
        out.points.push_back(by(p));
    return out;
}

Polylines transformed(const Polylines& lines, const Affine& by) {
    Polylines out;
    out.reserve(lines.size());
    for (const Polyline& line : lines)
        out.push_back(transformed(line, by));
    return out;
}

bool ring_contains(const std::vector<Point>& ring, Point p) {
    bool inside = false;
    for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
        const Point a = ring[i], b = ring[j];
        if ((a.y > p.y) != (b.y > p.y) && p.x < (b.x - a.x) * (p.y - a.y) / (b.y - a.y) + a.x)
            inside = !inside;
    }
    return inside;
}

namespace {

/// Chords for a cubic. Uniform steps: the chord error is at most |second difference| * 6 / (8 n^2) (Wang's
/// bound), so n is known before the first point is computed.
int chords(Point from, const Segment& s, Length flatness) {
    const Point d1 = from - s.c1 * 2 + s.c2, d2 = s.c1 - s.c2 * 2 + s.to;
    const double bend = std::sqrt(std::max(dot(d1, d1), dot(d2, d2)));
    const double wanted = std::ceil(std::sqrt(0.75 * bend / std::max(in_mm(flatness), 1e-6)));
    return wanted < 2000 ? std::max(1, static_cast<int>(wanted)) : 2000; // also of what is not a number
}

} // namespace

std::size_t flattened_size(const Shape& shape, Length flatness) {
    std::size_t n = 0;
    for (const Contour& c : shape.contours) {
        ++n;
        Point from = c.start;
        for (const Segment& s : c.segments) {
            n += s.curved ? static_cast<std::size_t>(chords(from, s, flatness)) : 1;
            from = s.to;
        }
    }
    return n;
}

Polyline flattened(const Contour& contour, Length flatness) {
    Polyline out{{contour.start}, contour.closed};
    const auto push = [&](Point p) {
        if (distance2(out.points.back(), p) > 1e-16) out.points.push_back(p);
    };
    Point from = contour.start;
    for (const Segment& s : contour.segments) {
        if (s.curved) {
            const int n = chords(from, s, flatness);
            for (int i = 1; i < n; ++i) {
                const double t = static_cast<double>(i) / n, u = 1 - t;
                push(from * (u * u * u) + s.c1 * (3 * u * u * t) + s.c2 * (3 * u * t * t) +
                     s.to * (t * t * t));
            }
        }
        push(s.to);
        from = s.to;
    }
    if (out.closed && out.points.size() > 1 && distance2(out.points.front(), out.points.back()) < 1e-16)
        out.points.pop_back();
    return out;
}

Polylines flattened(const Shape& shape, Length flatness) {
    Polylines out;
    out.reserve(shape.contours.size());
    for (const Contour& c : shape.contours)
        out.push_back(flattened(c, flatness));
    return out;
}

} // namespace dotlane
