#include "core/sheets/fits.h"

#include <algorithm>
#include <cmath>

#include "core/sheets/layout.h"

namespace dotlane {
namespace {

constexpr double slack_mm = 1e-6; // less than any machine can tell; keeps exact fits legal
constexpr double step = 0.5;      // degrees between the angles that are looked at first
constexpr double fine = 0.005;    // degrees to which the ends of a range are known

/// Room left on the tighter side at an angle in degrees; negative: it does not fit.
double room_at(const std::vector<Point>& hull, double width, double height, double angle) {
    const Affine turn = Affine::rotation(in_radians(degrees(angle)));
    Box box;
    for (const Point p : hull)
        box.add(turn(p));
    return std::min(width - box.width(), height - box.height());
}

} // namespace

std::vector<Point> hull_of(std::vector<Point> points) {
    std::sort(points.begin(), points.end(),
              [](Point a, Point b) { return a.x < b.x || (a.x == b.x && a.y < b.y); });
    points.erase(std::unique(points.begin(), points.end()), points.end());
    if (points.size() < 3) return points;
    const auto turns_left = [](Point a, Point b, Point c) {
        return (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x) > 0;
    };
    std::vector<Point> out;
    for (int side = 0; side < 2; ++side) {
        const std::size_t begin = out.size();
        for (const Point p : points) {
            while (out.size() >= begin + 2 && !turns_left(out[out.size() - 2], out.back(), p))
                out.pop_back();
            out.push_back(p);
        }
        out.pop_back(); // begins the other side
        std::reverse(points.begin(), points.end());
    }
    return out;
}

std::vector<Point> hull_of(const std::vector<const Polylines*>& lines) {
    std::vector<Point> all;
    for (const Polylines* some : lines)
        for (const Polyline& line : *some)
            all.insert(all.end(), line.points.begin(), line.points.end());
    return hull_of(std::move(all));
}

std::optional<TurnedFit> fit_within(const std::vector<Point>& hull, double width, double height) {
    const auto room = [&](double angle) { return room_at(hull, width, height, angle); };
    if (room(0) >= -slack_mm) return TurnedFit{FitWay::straight, {}, {}, {}};
    if (room(90) >= -slack_mm) return TurnedFit{FitWay::quarter, degrees(90), degrees(90), degrees(90)};
    double best = 0, most = -1e300;
    for (double angle = step; angle < 180; angle += step)
        if (const double r = room(angle); r > most) most = r, best = angle;
    // The most room lies within a step of the best angle seen: the narrower side is smooth there or has one
    // kink, so thirds close in on it.
    double lo = best - step, hi = best + step;
    while (hi - lo > fine / 10) {
        const double a = lo + (hi - lo) / 3, b = hi - (hi - lo) / 3;
        (room(a) < room(b) ? lo : hi) = room(a) < room(b) ? a : b;
    }
    best = (lo + hi) / 2;
    if (room(best) < -slack_mm) return {};
    const auto end_of_range = [&](double way) {
        double inside = best, outside = best;
        do
            inside = outside, outside += way * step;
        while (room(outside) >= -slack_mm && std::abs(outside - best) < 180);
        while (std::abs(outside - inside) > fine) {
            const double middle = (inside + outside) / 2;
            (room(middle) >= -slack_mm ? inside : outside) = middle;
        }
        return degrees(inside);
    };
    return TurnedFit{FitWay::angled, end_of_range(-1), end_of_range(1), degrees(best)};
}

std::vector<SheetFit> sheet_fits(const Catalog& catalog, const Machine& machine,
                                 const std::vector<Point>& hull) {
    std::vector<SheetFit> out;
    if (hull.empty()) return out;
    for (const Stock& stock : catalog.stocks) {
        std::optional<SheetFit> found;
        const auto same = [&](const SheetFit& f) {
            return f.stock->width == stock.width && f.stock->height == stock.height;
        };
        if (std::any_of(out.begin(), out.end(), same)) continue;
        for (const std::string& id : machine.mats) {
            const Mat* mat = catalog.mat(id);
            if (!mat) continue;
            const Box area = usable_area(*mat, stock);
            if (area.width() <= 0 || area.height() <= 0) continue;
            const auto fit = fit_within(hull, area.width(), area.height());
            if (fit && (!found || fit->way < found->turned.way)) found = SheetFit{&stock, mat, *fit};
        }
        if (found) out.push_back(*found);
    }
    std::sort(out.begin(), out.end(), [](const SheetFit& a, const SheetFit& b) {
        return in_mm(a.stock->width) * in_mm(a.stock->height) <
               in_mm(b.stock->width) * in_mm(b.stock->height);
    });
    return out;
}

Box largest_reach(const Catalog& catalog, const Machine& machine) {
    Box out;
    for (const Stock& stock : catalog.stocks)
        for (const std::string& id : machine.mats)
            if (const Mat* mat = catalog.mat(id)) {
                const Box area = usable_area(*mat, stock);
                if (out.empty() || area.width() * area.height() > out.width() * out.height()) out = area;
            }
    return out;
}

} // namespace dotlane
