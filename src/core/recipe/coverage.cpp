#include "core/recipe/coverage.h"

#include <algorithm>
#include <cmath>

#include "core/recipe/mark.h"

namespace dotlane {
namespace {

double merged_length(std::vector<Interval>& list) {
    std::sort(list.begin(), list.end(), [](const Interval& a, const Interval& b) { return a.a < b.a; });
    std::size_t n = 0;
    for (const Interval& i : list) {
        if (n > 0 && i.a <= list[n - 1].b)
            list[n - 1].b = std::max(list[n - 1].b, i.b);
        else
            list[n++] = i;
    }
    list.resize(n);
    double total = 0;
    for (const Interval& i : list)
        total += i.b - i.a;
    return total;
}

double overlap(const std::vector<Interval>& a, const std::vector<Interval>& b) {
    double total = 0;
    for (std::size_t i = 0, j = 0; i < a.size() && j < b.size();) {
        total += std::max(0.0, std::min(a[i].b, b[j].b) - std::max(a[i].a, b[j].a));
        (a[i].b < b[j].b ? i : j)++;
    }
    return total;
}

struct Edge {
    Point p, q;
    double lo, hi;
};

/// Things from `lo` to `hi`, in order of their lower end; `at(y)` keeps those that reach y.
template<class Thing>
class Sweep {
  public:
    explicit Sweep(std::vector<Thing> things)
        : things_(std::move(things)) {
        std::sort(things_.begin(), things_.end(), [](const Thing& a, const Thing& b) { return a.lo < b.lo; });
    }
    /// y must not fall from call to call.
    const std::vector<const Thing*>& at(double y) {
        while (next_ < things_.size() && things_[next_].lo <= y)
            active_.push_back(&things_[next_++]);
        std::erase_if(active_, [y](const Thing* e) { return e->hi < y; });
        return active_;
    }

  private:
    std::vector<Thing> things_;
    std::vector<const Thing*> active_;
    std::size_t next_ = 0;
};

} // namespace

Coverage coverage(const Region& to_fill, const Polylines& lines, Length tip, Angle angle,
                  Progress& progress) {
    Coverage out;
    out.to_fill = area(to_fill);
    const double r = in_mm(tip) / 2;
    const Affine level = Affine::rotation(-in_radians(angle));
    std::vector<Mark> ink;
    std::vector<Edge> rim;
    std::vector<double> breaks;
    // Jumps in the measure come from long level edges: rows of ink and level sides of the region.
    const double long_edge = std::max(r, 1e-6);
    for (const Polyline& line : lines) {
        const std::size_t n = line.points.size();
        for (std::size_t i = 0; i + (line.closed ? 0 : 1) < n || (n == 1 && i == 0); ++i) {
            const Point p = level(line.points[i]), q = level(line.points[(i + 1) % n]);
            const double lo = std::min(p.y, q.y), hi = std::max(p.y, q.y);
            ink.emplace_back(p, q, r);
            if (hi - lo < 1e-6 && std::abs(p.x - q.x) > long_edge)
                breaks.push_back(lo - r), breaks.push_back(hi + r);
        }
    }
    for (const Ring& ring : to_fill.rings)
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Point p = level(ring[i]), q = level(ring[(i + 1) % ring.size()]);
            rim.push_back({p, q, std::min(p.y, q.y), std::max(p.y, q.y)});
            if (std::abs(p.y - q.y) < 1e-6 && std::abs(p.x - q.x) > long_edge) breaks.push_back(p.y);
        }
    if (ink.empty()) return out;
    double y0 = 1e300, y1 = -1e300;
    for (const Mark& e : ink)
        y0 = std::min(y0, e.lo), y1 = std::max(y1, e.hi);
    breaks.push_back(y0);
    breaks.push_back(y1);
    std::sort(breaks.begin(), breaks.end());
    breaks.erase(std::unique(breaks.begin(), breaks.end(), [](double a, double b) { return b - a < 1e-7; }),
                 breaks.end());

    Sweep ink_sweep(std::move(ink));
    Sweep rim_sweep(std::move(rim));
    std::vector<Interval> ink_intervals, rim_intervals;
    std::vector<double> xs;
    double inked = 0, inside = 0;
    const auto sample = [&](double y, double weight) {
        ink_intervals.clear(), rim_intervals.clear(), xs.clear();
        Interval interval{};
        for (const Mark* mark : ink_sweep.at(y))
            if (mark->at(y, r, interval)) ink_intervals.push_back(interval);
        for (const Edge* e : rim_sweep.at(y))
            if ((e->p.y <= y) != (e->q.y <= y))
                xs.push_back(e->p.x + (e->q.x - e->p.x) * (y - e->p.y) / (e->q.y - e->p.y));
        std::sort(xs.begin(), xs.end());
        for (std::size_t i = 0; i + 1 < xs.size(); i += 2)
            rim_intervals.push_back({xs[i], xs[i + 1]});
        inked += weight * merged_length(ink_intervals);
        inside += weight * overlap(ink_intervals, rim_intervals);
    };
    const double slab = in_mm(tip) / 8;
    for (std::size_t i = 0; i + 1 < breaks.size(); ++i) {
        if (i % 256 == 0 && progress.cancelled()) return {};
        const double span = breaks[i + 1] - breaks[i];
        const int n = std::max(1, static_cast<int>(std::ceil(span / slab)));
        const double h = span / n;
        for (int k = 0; k < n; ++k) {
            const double middle = breaks[i] + (k + 0.5) * h, off = h / 2 / std::sqrt(3.0);
            sample(middle - off, h / 2);
            sample(middle + off, h / 2);
        }
    }
    out.inked = square_mm(inked);
    out.inked_inside = square_mm(inside);
    const double whole = in_square_mm(out.to_fill);
    if (whole > 0) {
        out.covered_percent = 100 * inside / whole;
        out.overspill_percent = 100 * std::max(0.0, inked - inside) / whole;
    }
    return out;
}

} // namespace dotlane
