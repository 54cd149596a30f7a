// Unit types. Every quantity that crosses a public header is one of these, made by a named factory, so
// that millimetres are never added to seconds and inches never pass for millimetres.
//
// Source: the inch is 25.4 mm exactly (international yard and pound agreement 1959, NIST SP 811);
// the PostScript point is 1/72 in; the CSS pixel is 1/96 in (W3C CSS Values 3).
#pragma once

#include <compare>
#include <numbers>

namespace dotlane {

inline constexpr double mm_per_inch = 25.4;

/// A double with a dimension. `Tag` tells dimensions apart; arithmetic stays inside one dimension.
template<class Tag>
class Quantity {
  public:
    constexpr Quantity() = default;
    constexpr auto operator<=>(const Quantity&) const = default;
    constexpr Quantity operator-() const { return Quantity(-value_); }
    constexpr Quantity operator+(Quantity o) const { return Quantity(value_ + o.value_); }
    constexpr Quantity operator-(Quantity o) const { return Quantity(value_ - o.value_); }
    constexpr Quantity operator*(double k) const { return Quantity(value_ * k); }
    constexpr Quantity operator/(double k) const { return Quantity(value_ / k); }
    constexpr double operator/(Quantity o) const { return value_ / o.value_; }
    constexpr Quantity& operator+=(Quantity o) { return value_ += o.value_, *this; }
    constexpr Quantity& operator-=(Quantity o) { return value_ -= o.value_, *this; }
    friend constexpr Quantity operator*(double k, Quantity q) { return Quantity(k * q.value_); }

  protected:
    friend struct UnitAccess;
    constexpr explicit Quantity(double value)
        : value_(value) {}
    double value_ = 0;
};

/// The one door between a quantity and the plain number in its base unit; used by the factories below.
struct UnitAccess {
    template<class Q>
    static constexpr Q make(double v) {
        return Q(v);
    }
    template<class Q>
    static constexpr double get(Q q) {
        return q.value_;
    }
};

using Length = Quantity<struct LengthTag>;             // base unit mm
using Area = Quantity<struct AreaTag>;                 // mm2
using Angle = Quantity<struct AngleTag>;               // radian, clockwise on screen (y runs down)
using Duration = Quantity<struct DurationTag>;         // second
using Speed = Quantity<struct SpeedTag>;               // mm/s
using Acceleration = Quantity<struct AccelerationTag>; // mm/s2

constexpr Length mm(double v) {
    return UnitAccess::make<Length>(v);
}
constexpr Length inches(double v) {
    return mm(v * mm_per_inch);
}
constexpr Length points(double v) {
    return inches(v / 72.0);
}
constexpr double in_mm(Length l) {
    return UnitAccess::get(l);
}
constexpr double in_inches(Length l) {
    return in_mm(l) / mm_per_inch;
}

constexpr Area square_mm(double v) {
    return UnitAccess::make<Area>(v);
}
constexpr double in_square_mm(Area a) {
    return UnitAccess::get(a);
}

constexpr Angle radians(double v) {
    return UnitAccess::make<Angle>(v);
}
constexpr Angle degrees(double v) {
    return radians(v * std::numbers::pi / 180.0);
}
constexpr double in_radians(Angle a) {
    return UnitAccess::get(a);
}
constexpr double in_degrees(Angle a) {
    return in_radians(a) * 180.0 / std::numbers::pi;
}

constexpr Duration seconds(double v) {
    return UnitAccess::make<Duration>(v);
}
constexpr double in_seconds(Duration d) {
    return UnitAccess::get(d);
}

constexpr Speed mm_per_second(double v) {
    return UnitAccess::make<Speed>(v);
}
constexpr double in_mm_per_second(Speed s) {
    return UnitAccess::get(s);
}

constexpr Acceleration mm_per_second2(double v) {
    return UnitAccess::make<Acceleration>(v);
}
constexpr double in_mm_per_second2(Acceleration a) {
    return UnitAccess::get(a);
}

} // namespace dotlane
