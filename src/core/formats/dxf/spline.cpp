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
            const double w = i < weights.size() && weights[i] > 0 ? weights[i] : 1;
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

} // namespace

Contour spline_contour(int degree, const std::vector<Point>& controls, const std::vector<double>& weights,
                       const std::vector<double>& knots, bool closed) {
    Contour out;
    const auto p = static_cast<std::size_t>(std::max(degree, 0));
    if (degree < 1 || degree > 25 || controls.size() < p + 1 || knots.size() != controls.size() + p + 1)
        return out;
    for (std::size_t i = 1; i < knots.size(); ++i)
        if (!(knots[i] >= knots[i - 1])) return out;
    const Spline spline(degree, controls, weights, knots);
    const int cuts = degree <= 3 && !spline.rational() ? 1 : 8;
    bool first = true;
    for (std::size_t k = p; k < controls.size(); ++k) {
        const double from = knots[k], step = (knots[k + 1] - from) / cuts;
        if (!(step > 0)) continue;
        for (int i = 0; i < cuts; ++i) {
            Point a, da, b, db;
            spline.at(from + step * i, k, a, da);
            spline.at(from + step * (i + 1), k, b, db);
            if (first) out.start = a;
            first = false;
            out.cubic_to(a + da * (step / 3), b - db * (step / 3), b);
        }
    }
    out.closed = closed && !first && distance(out.start, out.end()) < 1e-6;
    return out;
}

} // namespace dotlane
