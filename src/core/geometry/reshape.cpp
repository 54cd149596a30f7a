#include "core/geometry/reshape.h"

#include <numbers>

namespace dotlane {
namespace {

void keep_between(const std::vector<Point>& points, std::size_t first, std::size_t last, double by,
                  std::vector<bool>& kept) {
    // A stack of its own: a spiral of a million points would exhaust the program's.
    std::vector<std::pair<std::size_t, std::size_t>> todo{{first, last}};
    while (!todo.empty()) {
        const auto [a, b] = todo.back();
        todo.pop_back();
        double worst = by;
        std::size_t at = 0;
        for (std::size_t i = a + 1; i < b; ++i)
            if (const double d = distance_to_segment(points[i], points[a], points[b]); d > worst)
                worst = d, at = i;
        if (at == 0) continue;
        kept[at] = true;
        todo.emplace_back(a, at);
        todo.emplace_back(at, b);
    }
}

/// Distances from the start to each point, and to the end.
std::vector<double> distances(const Polyline& line) {
    std::vector<double> at{0};
    for (std::size_t i = 1; i < line.points.size(); ++i)
        at.push_back(at.back() + distance(line.points[i - 1], line.points[i]));
    if (line.closed && !line.points.empty())
        at.push_back(at.back() + distance(line.points.back(), line.points.front()));
    return at;
}

/// `at` as of `distances`: a line is cut into many stretches for one measuring.
Polyline stretch(const Polyline& line, const std::vector<double>& at, double from, double to) {
    const std::size_t n = line.points.size();
    const double whole = at.back();
    Polyline out;
    if (n == 0 || to <= from) return out;
    const auto point_at = [&](double s) {
        if (line.closed) s = std::fmod(s, whole);
        const auto it = std::upper_bound(at.begin(), at.end(), s);
        const std::size_t i = std::min<std::size_t>(static_cast<std::size_t>(it - at.begin()), at.size() - 1);
        const std::size_t a = i == 0 ? 0 : i - 1;
        const double step = at[i] - at[a];
        return mix(line.points[a], line.points[i % n],
                   step > 0 ? std::clamp((s - at[a]) / step, 0.0, 1.0) : 0);
    };
    out.points.push_back(point_at(from));
    for (double round = line.closed ? std::floor(from / whole) * whole : 0; round < to; round += whole) {
        const auto first =
            std::upper_bound(at.begin(), at.begin() + static_cast<std::ptrdiff_t>(n), from - round + 1e-9);
        for (auto i = static_cast<std::size_t>(first - at.begin()); i < n && at[i] + round < to - 1e-9; ++i)
            out.points.push_back(line.points[i]);
        if (!line.closed || whole <= 0) break;
    }
    out.points.push_back(point_at(to));
    return out;
}

Point direction(Point from, Point to) {
    const Point v = to - from;
    const double l = length(v);
    return l > 0 ? v * (1 / l) : Point{1, 0};
}

/// From a to b, leaving along u and arriving along v.
void add_round_corner(Polyline& out, Point a, Point u, Point b, Point v, Length flatness) {
    const double turn = std::abs(std::atan2(cross(u, v), dot(u, v)));
    const double chord = distance(a, b);
    Contour c{a, {}, false};
    if (turn < 1e-6 || chord < 1e-9)
        c.line_to(b);
    else {
        const double radius = chord / (2 * std::sin(turn / 2)),
                     handle = 4.0 / 3 * std::tan(turn / 4) * radius;
        c.cubic_to(a + u * handle, b - v * handle, b);
    }
    const auto points = flattened(c, flatness).points;
    out.points.insert(out.points.end(), points.begin(), points.end());
}

} // namespace

Polyline simplified(const Polyline& line, Length by) {
    const std::size_t n = line.points.size();
    if (n < 3 || in_mm(by) <= 0) return line;
    std::vector<Point> points = line.points;
    if (line.closed) points.push_back(points.front());
    std::vector<bool> kept(points.size(), false);
    kept.front() = kept.back() = true;
    std::size_t middle = points.size() - 1;
    if (line.closed) {
        middle = 0;
        for (std::size_t i = 1; i < n; ++i)
            if (distance2(points[0], points[i]) > distance2(points[0], points[middle])) middle = i;
        kept[middle] = true;
        keep_between(points, middle, points.size() - 1, in_mm(by), kept);
    }
    keep_between(points, 0, middle, in_mm(by), kept);
    Polyline out{{}, line.closed};
    for (std::size_t i = 0; i < n; ++i)
        if (kept[i]) out.points.push_back(points[i]);
    // A ring needs an area; what would lose it stays as it is.
    return line.closed && out.points.size() < 3 ? line : out;
}

Polyline stretch(const Polyline& line, double from, double to) {
    return stretch(line, distances(line), from, to);
}

CornerChange softened(const Polyline& line, Length size, bool chamfer, Angle sharper_than, Length flatness) {
    const std::size_t n = line.points.size();
    CornerChange out{line};
    if (n < 3) return out;
    struct Cut {
        double at, cut;
        double turn;
    };
    const std::vector<double> at = distances(line);
    const double whole = at.back();
    std::vector<Cut> corners;
    for (std::size_t i = line.closed ? 0 : 1; i + (line.closed ? 0 : 1) < n; ++i) {
        const Point u = direction(line.points[(i + n - 1) % n], line.points[i]),
                    v = direction(line.points[i], line.points[(i + 1) % n]);
        const double turn = std::abs(std::atan2(cross(u, v), dot(u, v)));
        if (turn <= in_radians(sharper_than) || turn < 1e-3) continue;
        const double needs = chamfer ? in_mm(size) : in_mm(size) * std::tan(std::min(turn, 3.0) / 2);
        corners.push_back({at[i], needs, turn});
    }
    if (corners.empty()) return out;
    const std::size_t k = corners.size();
    const std::vector<Cut> wished = corners;
    for (std::size_t i = 0; i < k; ++i) {
        const double before = i > 0         ? (wished[i].at - wished[i - 1].at) / 2
                              : line.closed ? (wished[0].at + whole - wished[k - 1].at) / 2
                                            : wished[0].at;
        const double after = i + 1 < k     ? (wished[i + 1].at - wished[i].at) / 2
                             : line.closed ? (wished[0].at + whole - wished[i].at) / 2
                                           : whole - wished[i].at;
        const double room = std::min(before, after);
        ++out.changed;
        if (corners[i].cut > room + 1e-9) corners[i].cut = room, ++out.shortened;
    }
    out.line = {{}, line.closed};
    if (!line.closed) out.line.points = stretch(line, at, 0, corners.front().at - corners.front().cut).points;
    for (std::size_t i = 0; i < k; ++i) {
        const Cut& c = corners[i];
        const Polyline around = line.closed ? stretch(line, at, c.at - c.cut + whole, c.at + c.cut + whole)
                                            : stretch(line, at, c.at - c.cut, c.at + c.cut);
        if (around.points.size() >= 2) {
            const Point a = around.points.front(), b = around.points.back();
            if (chamfer) {
                out.line.points.push_back(a);
                out.line.points.push_back(b);
            } else {
                add_round_corner(out.line, a, direction(a, around.points[1]), b,
                                 direction(around.points[around.points.size() - 2], b), flatness);
            }
        }
        const bool last = i + 1 == k;
        const double from = c.at + c.cut, to = !last         ? corners[i + 1].at - corners[i + 1].cut
                                               : line.closed ? corners[0].at - corners[0].cut + whole
                                                             : whole;
        const Polyline side = stretch(line, at, from, to);
        for (std::size_t p = 0; p < side.points.size(); ++p)
            if (out.line.points.empty() || distance2(out.line.points.back(), side.points[p]) > 1e-12)
                out.line.points.push_back(side.points[p]);
    }
    if (line.closed && out.line.points.size() > 1 &&
        distance2(out.line.points.front(), out.line.points.back()) < 1e-12)
        out.line.points.pop_back();
    return out;
}

Polylines dashed(const Polyline& line, const DashRule& rule, Length* gap_used) {
    const double dash = in_mm(rule.dash), gap = in_mm(rule.gap);
    const std::vector<double> at = distances(line);
    const double begin = line.closed ? 0 : in_mm(rule.setback), whole = at.back();
    const double run = whole - 2 * begin;
    if (gap_used) *gap_used = {};
    if (run <= 0) return {};
    const auto n = std::max(
        1LL, std::llround(line.closed || rule.gap_ends ? run / (dash + gap) : (run + gap) / (dash + gap)));
    const double count = static_cast<double>(n);
    const bool gaps = !line.closed && rule.gap_ends; // as many as dashes: half of one at either end
    if (n == 1 && !line.closed && (!gaps || run <= dash)) return {stretch(line, at, begin, begin + run)};
    const double free =
        line.closed || gaps ? (run - count * dash) / count : (run - count * dash) / (count - 1);
    if (free <= 0) return {line};
    if (gap_used) *gap_used = mm(free);
    Polylines out;
    for (long long i = 0; i < n; ++i) {
        const double from = begin + (gaps ? free / 2 : 0) + static_cast<double>(i) * (dash + free);
        out.push_back(stretch(line, at, from, std::min(from + dash, begin + run)));
    }
    return out;
}

std::vector<PlaceOnLine> evenly_along(const Polyline& line, std::size_t gaps) {
    std::vector<Point> points = line.points;
    if (line.closed) points.push_back(points.front());
    const double whole = in_mm(length(line));
    std::vector<PlaceOnLine> out;
    std::size_t edge = 0;
    double passed = 0;
    Point way{1, 0};
    for (std::size_t i = 0; i < gaps + (line.closed ? 0 : 1); ++i) {
        const double s = whole * static_cast<double>(i) / static_cast<double>(gaps);
        while (edge + 2 < points.size() && passed + distance(points[edge], points[edge + 1]) < s)
            passed += distance(points[edge], points[edge + 1]), ++edge;
        if (const double l = distance(points[edge], points[edge + 1]); l > 0)
            way = (points[edge + 1] - points[edge]) * (1 / l);
        out.push_back({points[edge] + way * (s - passed), way});
    }
    return out;
}

} // namespace dotlane
