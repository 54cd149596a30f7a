#include "core/geometry/path.h"

#include <numbers>

namespace dotlane {

void Contour::quad_to(Point control, Point to) {
    const Point from = end();
    cubic_to(mix(from, control, 2.0 / 3), mix(to, control, 2.0 / 3), to);
}

void Contour::arc_about(Point centre, Point major, Point minor, double from, double sweep) {
    const int pieces =
        std::max(1, static_cast<int>(std::ceil(std::abs(sweep) / (std::numbers::pi / 4) - 1e-9)));
    const double step = sweep / pieces, handle = 4.0 / 3 * std::tan(step / 4);
    const auto at = [&](double t) { return centre + major * std::cos(t) + minor * std::sin(t); };
    const auto slope = [&](double t) { return minor * std::cos(t) - major * std::sin(t); };
    for (int i = 0; i < pieces; ++i) {
        const double a = from + step * i, b = a + step;
        cubic_to(at(a) + slope(a) * handle, at(b) - slope(b) * handle, at(b));
    }
}

void Contour::arc_to(double rx, double ry, double x_axis_degrees, bool large, bool sweep, Point to) {
    const Point from = end();
    rx = std::abs(rx), ry = std::abs(ry);
    if (from == to) return;
    if (rx < 1e-12 || ry < 1e-12) return line_to(to);
    const double phi = x_axis_degrees * std::numbers::pi / 180;
    const Affine unturn = Affine::rotation(-phi);
    const Point h = unturn((from - to) * 0.5);
    double lambda = (h.x * h.x) / (rx * rx) + (h.y * h.y) / (ry * ry);
    if (lambda > 1) rx *= std::sqrt(lambda), ry *= std::sqrt(lambda), lambda = 1;
    const double factor = std::sqrt(std::max(0.0, 1 / lambda - 1)) * (large == sweep ? -1 : 1);
    const Point centre_turned{factor * rx * h.y / ry, -factor * ry * h.x / rx};
    const Affine turn = Affine::rotation(phi);
    const Point centre = turn(centre_turned) + mix(from, to, 0.5);
    const double t0 = std::atan2((h.y - centre_turned.y) / ry, (h.x - centre_turned.x) / rx);
    double sweep_angle = std::atan2((-h.y - centre_turned.y) / ry, (-h.x - centre_turned.x) / rx) - t0;
    if (sweep && sweep_angle < 0) sweep_angle += 2 * std::numbers::pi;
    if (!sweep && sweep_angle > 0) sweep_angle -= 2 * std::numbers::pi;
    if (!std::isfinite(sweep_angle)) return line_to(to); // radii beyond what can be computed with
    const Affine place = Affine::translation(centre) * turn * Affine::scaling(rx, ry);
    arc_about(centre, place({1, 0}) - centre, place({0, 1}) - centre, t0, sweep_angle);
    segments.back().to = to;
}

Contour rectangle(const Box& box) {
    Contour c{{box.x0, box.y0}, {}, true};
    c.line_to({box.x1, box.y0});
    c.line_to({box.x1, box.y1});
    c.line_to({box.x0, box.y1});
    return c;
}

Contour rounded_rectangle(const Box& box, double rx, double ry) {
    rx = std::min(rx, box.width() / 2), ry = std::min(ry, box.height() / 2);
    if (rx <= 0 || ry <= 0) return rectangle(box);
    Contour c{{box.x0 + rx, box.y0}, {}, true};
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
    Contour c{{centre.x + rx, centre.y}, {}, true};
    c.arc_to(rx, ry, 0, false, true, {centre.x, centre.y + ry});
    c.arc_to(rx, ry, 0, false, true, {centre.x - rx, centre.y});
    c.arc_to(rx, ry, 0, false, true, {centre.x, centre.y - ry});
    c.arc_to(rx, ry, 0, false, true, {centre.x + rx, centre.y});
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
