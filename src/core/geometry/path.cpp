#include "core/geometry/path.h"

#include <numbers>

namespace dotlane {

void Contour::quad_to(Point control, Point to) {
    const Point from = end();
    cubic_to(mix(from, control, 2.0 / 3), mix(to, control, 2.0 / 3), to);
}

namespace {

/// `from`: cosine and sine of where it begins. They are turned on and on, at one sine and cosine for all.
void add_arc(Contour& to, Point centre, Point major, Point minor, Point from, double sweep) {
    const int pieces =
        std::max(1, static_cast<int>(std::ceil(std::abs(sweep) / (std::numbers::pi / 4) - 1e-9)));
    const double step = sweep / pieces, ds = std::sin(step), dc = std::cos(step);
    const double handle = 4.0 / 3 * std::tan(step / 4);
    const auto at = [&] { return centre + major * from.x + minor * from.y; };
    const auto slope = [&] { return (minor * from.x - major * from.y) * handle; };
    Point control = at() + slope();
    for (int i = 0; i < pieces; ++i) {
        from = {from.x * dc - from.y * ds, from.y * dc + from.x * ds};
        const Point end = at(), along = slope();
        to.cubic_to(control, end - along, end);
        control = end + along;
    }
}

} // namespace

void Contour::arc_about(Point centre, Point major, Point minor, double from, double sweep) {
    add_arc(*this, centre, major, minor, {std::cos(from), std::sin(from)}, sweep);
}

void Contour::arc_to(double rx, double ry, double x_axis_degrees, bool large, bool sweep, Point to) {
    const Point from = end();
    rx = std::abs(rx), ry = std::abs(ry);
    if (from == to) return;
    if (rx < 1e-12 || ry < 1e-12) return line_to(to);
    const double phi = x_axis_degrees * std::numbers::pi / 180, turn_s = std::sin(phi),
                 turn_c = std::cos(phi);
    const auto turned = [&](Point p) {
        return Point{p.x * turn_c - p.y * turn_s, p.x * turn_s + p.y * turn_c};
    };
    const Point half = (from - to) * 0.5,
                h{half.x * turn_c + half.y * turn_s, half.y * turn_c - half.x * turn_s};
    double lambda = (h.x * h.x) / (rx * rx) + (h.y * h.y) / (ry * ry);
    if (lambda > 1) rx *= std::sqrt(lambda), ry *= std::sqrt(lambda), lambda = 1;
    const double factor = std::sqrt(std::max(0.0, 1 / lambda - 1)) * (large == sweep ? -1 : 1);
    const Point centre_turned{factor * rx * h.y / ry, -factor * ry * h.x / rx};
    const Point centre = turned(centre_turned) + mix(from, to, 0.5);
    // Where it begins and ends as seen from the centre of the unit circle.
    const Point first{(h.x - centre_turned.x) / rx, (h.y - centre_turned.y) / ry},
        last{(-h.x - centre_turned.x) / rx, (-h.y - centre_turned.y) / ry};
    double sweep_angle = std::atan2(cross(first, last), dot(first, last));
    if (sweep && sweep_angle < 0) sweep_angle += 2 * std::numbers::pi;
    if (!sweep && sweep_angle > 0) sweep_angle -= 2 * std::numbers::pi;
    const double one = dotlane::length(first);
    if (!std::isfinite(sweep_angle) || !(one > 0))
        return line_to(to); // radii beyond what can be computed with
    add_arc(*this, centre, turned({rx, 0}), turned({0, ry}), first * (1 / one), sweep_angle);
    segments.back().to = to;
}

Contour rectangle(const Box& box) {
    Contour c{{box.x0, box.y0}, {}, true};
    c.segments.reserve(3);
    c.line_to({box.x1, box.y0});
    c.line_to({box.x1, box.y1});
    c.line_to({box.x0, box.y1});
    return c;
}

Contour rounded_rectangle(const Box& box, double rx, double ry) {
    rx = std::min(rx, box.width() / 2), ry = std::min(ry, box.height() / 2);
    if (rx <= 0 || ry <= 0) return rectangle(box);
    Contour c{{box.x0 + rx, box.y0}, {}, true};
    c.segments.reserve(12);
    c.line_to({box.x1 - rx, box.y0});
    c.arc_to(rx, ry, 0, false, true, {box.x1, box.y0 + ry});
    c.line_to({box.x1, box.y1 - ry});
    c.arc_to(rx, ry, 0, false, true, {box.x1 - rx, box.y1});
    c.line_to({box.x0 + rx, box.y1});
    c.arc_to(rx, ry, 0, false, true, {box.x0, box.y1 - ry});
    c.line_to({box.x0, box.y0 + ry});
    c.arc_to(rx, ry, 0, false, true, {box.x0 + rx, box.y0});
    return c;
}

Contour ellipse(Point centre, double rx, double ry) {
    // Eighths of a turn, as those of an arc, from the right and downwards; the quarters' ends are exact.
    constexpr double d = std::numbers::sqrt2 / 2;
    constexpr Point around[] = {{1, 0}, {d, d}, {0, 1}, {-d, d}, {-1, 0}, {-d, -d}, {0, -1}, {d, -d}, {1, 0}};
    static const double handle = 4.0 / 3 * std::tan(std::numbers::pi / 16);
    const auto at = [&](Point p) { return Point{centre.x + rx * p.x, centre.y + ry * p.y}; };
    Contour c{at(around[0]), {}, true};
    c.segments.reserve(8);
    for (std::size_t i = 0; i < 8; ++i) {
        const Point a = around[i], b = around[i + 1];
        c.cubic_to(at(a + Point{-a.y, a.x} * handle), at(b - Point{-b.y, b.x} * handle), at(b));
    }
    return c;
}

Contour transformed(Contour contour, const Affine& by) {
    contour.start = by(contour.start);
    for (Segment& s : contour.segments) {
        if (s.curved) s.c1 = by(s.c1), s.c2 = by(s.c2);
        s.to = by(s.to);
    }
    return contour;
}

Shape transformed(Shape shape, const Affine& by) {
    for (Contour& c : shape.contours)
        c = transformed(std::move(c), by);
    return shape;
}

namespace {

void add_extremes(Box& box, double p0, double p1, double p2, double p3, Point from, const Segment& s) {
    // Roots of the derivative of one coordinate of the cubic.
    const double a = -p0 + 3 * p1 - 3 * p2 + p3, b = 2 * (p0 - 2 * p1 + p2), c = p1 - p0;
    const auto add = [&](double t) {
        if (!(t > 0 && t < 1)) return;
        const double u = 1 - t;
        box.add(from * (u * u * u) + s.c1 * (3 * u * u * t) + s.c2 * (3 * u * t * t) + s.to * (t * t * t));
    };
    if (std::abs(a) < 1e-12 * (std::abs(b) + std::abs(c))) {
        if (b != 0) add(-c / b);
        return;
    }
    const double disc = b * b - 4 * a * c;
    if (disc < 0) return;
    add((-b + std::sqrt(disc)) / (2 * a));
    add((-b - std::sqrt(disc)) / (2 * a));
}

} // namespace

Box bounds(const Contour& contour) {
    Box box;
    box.add(contour.start);
    Point from = contour.start;
    for (const Segment& s : contour.segments) {
        box.add(s.to);
        if (s.curved && !(box.contains(s.c1) && box.contains(s.c2))) {
            add_extremes(box, from.x, s.c1.x, s.c2.x, s.to.x, from, s);
            add_extremes(box, from.y, s.c1.y, s.c2.y, s.to.y, from, s);
        }
        from = s.to;
    }
    return box;
}

Box bounds(const Shape& shape) {
    Box box;
    for (const Contour& c : shape.contours)
        box.add(bounds(c));
    return box;
}

std::size_t segment_count(const Shape& shape) {
    std::size_t n = 0;
    for (const Contour& c : shape.contours)
        n += c.segments.size() + (c.closed ? 1 : 0);
    return n;
}

} // namespace dotlane
