// B-splines as cubics: each knot span is a polynomial piece, which its ends and the slopes there determine
// when it is cubic. Evaluation: de Boor's algorithm in homogeneous coordinates (Piegl, Tiller: The NURBS
// Book, A3.1 and A4.2).
#include <cmath>

#include "core/formats/dxf/reader.h"

namespace dotlane {
namespace {

struct Weighted {
    double x = 0, y = 0, w = 1;
};

Weighted mixed(const Weighted& a, const Weighted& b, double t) {
    return {a.x + (b.x - a.x) * t, a.y + (b.y - a.y) * t, a.w + (b.w - a.w) * t};
}

class Spline {
  public:
    Spline(int degree, const std::vector<Point>& controls, const std::vector<double>& weights,
           const std::vector<double>& knots)
        : degree_(degree)
        , knots_(knots) {
        for (std::size_t i = 0; i < controls.size(); ++i) {
            const double w = i < weights.size() ? weights[i] : 1;
            rational_ |= std::abs(w - 1) > 1e-12;
            controls_.push_back({controls[i].x * w, controls[i].y * w, w});
        }
    }
    bool rational() const { return rational_; }

    /// Value and slope at u, seen from within the span that begins at knot k.
    void at(double u, std::size_t k, Point& value, Point& slope) const {
        const auto p = static_cast<std::size_t>(degree_);
        std::vector<Weighted> d;
        for (std::size_t j = 0; j <= p; ++j)
            d.push_back(controls_[j + k - p]);
        Weighted before, after;
        for (std::size_t r = 1; r <= p; ++r) {
            if (r == p) before = d[p - 1], after = d[p];
            for (std::size_t j = p; j >= r; --j) {
                const double a = knots_[j + k - p], b = knots_[j + 1 + k - r];
                d[j] = mixed(d[j - 1], d[j], b > a ? (u - a) / (b - a) : 0);
            }
        }
        const double span = knots_[k + 1] - knots_[k];
        const double s = span > 0 ? degree_ / span : 0;
        const Weighted& v = d[p];
        value = {v.x / v.w, v.y / v.w};
        // The last two points of the scheme lie on the tangent.
        const double dw = (after.w - before.w) * s;
        slope = {((after.x - before.x) * s - value.x * dw) / v.w,
                 ((after.y - before.y) * s - value.y * dw) / v.w};
    }

  private:
    int degree_;
    const std::vector<double>& knots_;
    std::vector<Weighted> controls_;
    bool rational_ = false;
};

/// The cubic with the curve's ends and slopes, or, where it leaves the curve, one for each half.
class Fitter {
  public:
    Fitter(const Spline& spline, std::size_t span, double within, Contour& out)
        : spline_(spline)
        , span_(span)
        , within_(within)
        , out_(out) {}

    void fit(double from, double to, int depth) {
        Point a, da, b, db;
        spline_.at(from, span_, a, da);
        spline_.at(to, span_, b, db);
        const double third = (to - from) / 3;
        const Point c1 = a + da * third, c2 = b - db * third;
        if (depth < 12 && !near(from, to, a, c1, c2, b)) {
            const double middle = (from + to) / 2;
            fit(from, middle, depth + 1);
            return fit(middle, to, depth + 1);
        }
        out_.cubic_to(c1, c2, b);
    }

  private:
    /// Not the same moment, but the same line counts: the cubic's point nearest to the curve's, by Newton's
    /// method from the same moment on.
    bool near(double from, double to, Point a, Point c1, Point c2, Point b) const {
        const Point v1 = (c1 - a) * 3, v2 = (a - c1 * 2 + c2) * 3, v3 = b - c2 * 3 + c1 * 3 - a;
        for (const double wanted : {0.2, 0.4, 0.6, 0.8}) {
            Point p, slope;
            spline_.at(from + (to - from) * wanted, span_, p, slope);
            double t = wanted;
            Point off;
            for (int i = 0; i < 4; ++i) {
                off = a + v1 * t + v2 * (t * t) + v3 * (t * t * t) - p;
                const Point first = v1 + v2 * (2 * t) + v3 * (3 * t * t), second = v2 * 2 + v3 * (6 * t);
                const double bend = dot(first, first) + dot(off, second);
                if (i < 3 && bend > 0) t = std::clamp(t - dot(off, first) / bend, 0.0, 1.0);
            }
            if (!(length(off) <= within_)) return false;
        }
        return true;
    }

    const Spline& spline_;
    std::size_t span_;
    double within_;
    Contour& out_;
};

} // namespace

Contour spline_contour(int degree, const std::vector<Point>& controls, const std::vector<double>& weights,
                       const std::vector<double>& knots, bool closed) {
    Contour out;
    const auto p = static_cast<std::size_t>(std::max(degree, 0));
    if (degree < 1 || degree > 25 || controls.size() < p + 1 || knots.size() != controls.size() + p + 1)
        return out;
    for (std::size_t i = 1; i < knots.size(); ++i)
        if (!(knots[i] >= knots[i - 1])) return out;
    Box box;
    for (std::size_t i = 0; i < controls.size(); ++i) {
        if (!std::isfinite(controls[i].x) || !std::isfinite(controls[i].y)) return out;
        if (i < weights.size() && !(weights[i] > 1e-9 && weights[i] < 1e9)) return out;
        box.add(controls[i]);
    }
    const Spline spline(degree, controls, weights, knots);
    const bool exact = degree <= 3 && !spline.rational();
    const double within = exact ? 1e300 : 2e-6 * std::max(1e-6, length(Point{box.width(), box.height()}));
    for (std::size_t k = p; k < controls.size(); ++k) {
        if (!(knots[k + 1] > knots[k])) continue;
        if (out.segments.empty()) {
            Point slope;
            spline.at(knots[k], k, out.start, slope);
        }
        // Halves first: at the ends and in the middle a wiggle can look like none.
        Fitter fitter(spline, k, within, out);
        const int first = exact ? 1 : 2;
        for (int i = 0; i < first; ++i)
            fitter.fit(knots[k] + (knots[k + 1] - knots[k]) * i / first,
                       knots[k] + (knots[k + 1] - knots[k]) * (i + 1) / first, 0);
    }
    out.closed = closed && !out.segments.empty() && distance(out.start, out.end()) < 1e-6;
    return out;
}

} // namespace dotlane
