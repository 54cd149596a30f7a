#include "core/project/colour_difference.h"

#include <cmath>
#include <numbers>

namespace dotlane {
namespace {

constexpr double pi = std::numbers::pi;

double linear(std::uint8_t channel) {
    const double c = channel / 255.0;
    return c <= 0.04045 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4);
}

double lab_curve(double t) {
    const double d = 6.0 / 29;
    return t > d * d * d ? std::cbrt(t) : t / (3 * d * d) + 4.0 / 29;
}

/// 0..2 pi; of grey, 0.
double hue(double a, double b) {
    if (a == 0 && b == 0) return 0;
    const double h = std::atan2(b, a);
    return h < 0 ? h + 2 * pi : h;
}

double in_degrees_cos(double angle, double degrees_off) {
    return std::cos(angle - degrees_off * pi / 180);
}

double seventh_root_share(double c) {
    const double c7 = std::pow(c, 7);
    return std::sqrt(c7 / (c7 + std::pow(25.0, 7)));
}

} // namespace

Lab lab_of(Colour colour) {
    const double r = linear(colour.r), g = linear(colour.g), b = linear(colour.b);
    const double x = (0.4124564 * r + 0.3575761 * g + 0.1804375 * b) / 0.95047;
    const double y = 0.2126729 * r + 0.7151522 * g + 0.0721750 * b;
    const double z = (0.0193339 * r + 0.1191920 * g + 0.9503041 * b) / 1.08883;
    const double fx = lab_curve(x), fy = lab_curve(y), fz = lab_curve(z);
    return {116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)};
}

double colour_difference(const Lab& one, const Lab& other) {
    // Names and steps are those of the source, equations 2 to 22.
    const double c1 = std::hypot(one.a, one.b), c2 = std::hypot(other.a, other.b);
    const double g = 0.5 * (1 - seventh_root_share((c1 + c2) / 2));
    const double a1 = (1 + g) * one.a, a2 = (1 + g) * other.a;
    const double cp1 = std::hypot(a1, one.b), cp2 = std::hypot(a2, other.b);
    const double h1 = hue(a1, one.b), h2 = hue(a2, other.b);
    const double dl = other.l - one.l, dc = cp2 - cp1;
    const bool grey = cp1 * cp2 == 0;
    double dh_angle = grey ? 0 : h2 - h1;
    if (dh_angle > pi) dh_angle -= 2 * pi;
    if (dh_angle < -pi) dh_angle += 2 * pi;
    const double dh = 2 * std::sqrt(cp1 * cp2) * std::sin(dh_angle / 2);
    const double l = (one.l + other.l) / 2, c = (cp1 + cp2) / 2;
    double h = h1 + h2;
    if (!grey) {
        if (std::abs(h1 - h2) > pi) h += h1 + h2 < 2 * pi ? 2 * pi : -2 * pi;
        h /= 2;
    }
    const double t = 1 - 0.17 * in_degrees_cos(h, 30) + 0.24 * std::cos(2 * h) +
                     0.32 * in_degrees_cos(3 * h, -6) - 0.20 * in_degrees_cos(4 * h, 63);
    const double off = (h * 180 / pi - 275) / 25, turn = pi / 6 * std::exp(-off * off);
    const double l50 = (l - 50) * (l - 50);
    const double sl = 1 + 0.015 * l50 / std::sqrt(20 + l50), sc = 1 + 0.045 * c, sh = 1 + 0.015 * c * t;
    const double rt = -std::sin(2 * turn) * 2 * seventh_root_share(c);
    const double x = dl / sl, y = dc / sc, z = dh / sh;
    return std::sqrt(x * x + y * y + z * z + rt * y * z);
}

} // namespace dotlane
