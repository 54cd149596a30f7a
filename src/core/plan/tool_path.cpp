#include "core/plan/tool_path.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace dotlane {
namespace {

constexpr double corner_turn = 20 * std::numbers::pi / 180;
/// Gentler turns a knife makes by itself, as it goes.
constexpr double swung_turn = 3 * std::numbers::pi / 180;
constexpr double swing_step = 12 * std::numbers::pi / 180;

double angle_between(Point a, Point b) {
    return std::atan2(a.x * b.y - a.y * b.x, dot(a, b));
}

/// Distance of each point along a closed line, and last its whole length.
std::vector<double> along(const Polyline& ring) {
    std::vector<double> out{0};
    for (std::size_t i = 0; i < ring.points.size(); ++i)
        out.push_back(out.back() + distance(ring.points[i], ring.points[(i + 1) % ring.points.size()]));
    return out;
}

std::vector<std::size_t> corners_of(const Polyline& ring) {
    std::vector<std::size_t> out;
    const std::size_t n = ring.points.size();
    for (std::size_t i = 0; i < n; ++i) {
        const Point before = ring.points[i] - ring.points[(i + n - 1) % n],
                    after = ring.points[(i + 1) % n] - ring.points[i];
        if (length(before) > 0 && length(after) > 0 && std::abs(angle_between(before, after)) > corner_turn)
            out.push_back(i);
    }
    return out;
}

/// The places so far along the ring, made points of it where they are none; their numbers.
std::vector<std::uint32_t> made_points(Polyline& ring, std::vector<double> places) {
    std::sort(places.begin(), places.end());
    const std::vector<double> at = along(ring);
    Polyline out{{}, true};
    std::vector<std::uint32_t> which;
    auto place = places.begin();
    for (std::size_t i = 0; i < ring.points.size(); ++i) {
        const Point a = ring.points[i], b = ring.points[(i + 1) % ring.points.size()];
        out.points.push_back(a);
        for (; place != places.end() && *place < at[i + 1]; ++place) {
            if (*place - at[i] > 1e-6)
                out.points.push_back(mix(a, b, (*place - at[i]) / (at[i + 1] - at[i])));
            which.push_back(static_cast<std::uint32_t>(out.points.size() - 1));
        }
    }
    ring = std::move(out);
    return which;
}

/// In the middle of the longer ones of the stretches between its corners; none: it has no corners.
std::vector<double> off_corners(const Polyline& ring) {
    const auto corners = corners_of(ring);
    if (corners.empty()) return {};
    const std::vector<double> at = along(ring);
    const double whole = at.back();
    const auto stretch = [&](std::size_t k) {
        const double l = at[corners[(k + 1) % corners.size()]] - at[corners[k]];
        return l > 0 ? l : l + whole;
    };
    double longest = 0;
    for (std::size_t k = 0; k < corners.size(); ++k)
        longest = std::max(longest, stretch(k));
    std::vector<double> out;
    for (std::size_t k = 0; k < corners.size(); ++k)
        if (const double l = stretch(k); l >= longest / 2)
            out.push_back(std::fmod(at[corners[k]] + l / 2, whole));
    return out;
}

/// The middle of what lies farthest that way, a point or a side.
double outermost(const Polyline& ring, Point way) {
    const std::size_t n = ring.points.size();
    std::size_t best = 0;
    for (std::size_t i = 1; i < n; ++i)
        if (dot(ring.points[i], way) > dot(ring.points[best], way) + 1e-6) best = i;
    const std::vector<double> at = along(ring);
    const auto level = [&](std::size_t i) {
        return dot(ring.points[best], way) - dot(ring.points[i % n], way) < 1e-6;
    };
    // The side may run over the end of the list.
    std::size_t first = best, sides = 0;
    while (sides + 1 < n && level((first + n - 1) % n))
        first = (first + n - 1) % n, ++sides;
    for (std::size_t last = best; sides + 1 < n && level(last + 1); ++last)
        ++sides;
    double length = 0;
    for (std::size_t i = first; i < first + sides; ++i)
        length += at[i % n + 1] - at[i % n];
    return std::fmod(at[first] + length / 2, at.back());
}

Point way_of(LineStart start) {
    switch (start) {
    case LineStart::top:
        return {0, -1};
    case LineStart::bottom:
        return {0, 1};
    case LineStart::left:
        return {-1, 0};
    default:
        return {1, 0};
    }
}

/// So far along a line from its beginning, its beginning among them.
std::vector<Point> first_part(const std::vector<Point>& points, double length) {
    std::vector<Point> out{points.front()};
    for (std::size_t i = 1; i < points.size() && length > 0; ++i) {
        const double l = distance(points[i - 1], points[i]);
        out.push_back(l <= length ? points[i] : mix(points[i - 1], points[i], length / l));
        length -= l;
    }
    return out;
}

/// Round again as far as the overcut.
void overrun(Polyline& line, double by) {
    if (!line.closed || !(by > 0) || line.points.size() < 2) return;
    line.points.push_back(line.points.front());
    line.closed = false;
    const auto more = first_part(line.points, by);
    line.points.insert(line.points.end(), more.begin() + 1, more.end());
}

/// The first bit forth and back.
void lead(Polyline& line, double by) {
    if (!(by > 0) || line.points.size() < 2) return;
    if (line.closed) line.points.push_back(line.points.front()), line.closed = false;
    const auto forth = first_part(line.points, by);
    std::vector<Point> points = forth;
    points.insert(points.end(), forth.rbegin() + 1, forth.rend() - 1);
    points.insert(points.end(), line.points.begin(), line.points.end());
    line.points = std::move(points);
}

/// The axis of a knife whose tip follows the line; `heading`: where it points, before and after.
void drag(Polyline& line, double trail, Point& heading) {
    if (line.closed) line.points.push_back(line.points.front()), line.closed = false;
    std::vector<Point> axis;
    const auto swing = [&](Point around, Point to) {
        const double turn = angle_between(heading, to);
        if (std::abs(turn) > swung_turn || axis.empty()) {
            const int steps = static_cast<int>(std::ceil(std::abs(turn) / swing_step));
            const double from = std::atan2(heading.y, heading.x);
            for (int k = 0; k < std::max(steps, 1); ++k) {
                const double at = from + turn * k / std::max(steps, 1);
                axis.push_back(around + Point{std::cos(at), std::sin(at)} * trail);
            }
        }
        axis.push_back(around + to * trail);
        heading = to;
    };
    for (std::size_t i = 0; i + 1 < line.points.size(); ++i) {
        const Point side = line.points[i + 1] - line.points[i];
        const double l = length(side);
        if (l == 0) continue;
        swing(line.points[i], side * (1 / l));
        axis.push_back(line.points[i + 1] + heading * trail);
    }
    if (axis.empty()) axis.push_back(line.points.front() + heading * trail);
    axis.erase(std::unique(axis.begin(), axis.end()), axis.end());
    line.points = std::move(axis);
}

/// The strokes as the carriage goes, begun with a knife that points there; where it points afterwards.
Point carried(std::vector<Stroke>& strokes, const ToolPath& path, Point heading) {
    const double trail = in_mm(path.trail);
    for (Stroke& stroke : strokes) {
        // A knife that ends where it began leaves a corner uncut.
        overrun(stroke, std::max(in_mm(path.run.overcut), trail));
        lead(stroke, in_mm(path.run.lead_in));
        if (trail > 0) drag(stroke, trail, heading);
        if (path.offset != Point{})
            for (Point& p : stroke.points)
                p = p - path.offset;
    }
    return heading;
}

} // namespace

Beginnings beginnings(Polylines lines, LineStart start) {
    Beginnings out{std::move(lines), {}};
    if (start == LineStart::anywhere) return out;
    out.starts.resize(out.lines.size());
    for (std::size_t i = 0; i < out.lines.size(); ++i) {
        Polyline& line = out.lines[i];
        if (!line.closed || line.points.size() < 3) continue;
        const std::vector<double> places = start == LineStart::off_corners
                                               ? off_corners(line)
                                               : std::vector<double>{outermost(line, way_of(start))};
        if (!places.empty()) out.starts[i] = made_points(line, places);
    }
    return out;
}

void as_carriage(std::vector<Stroke>& strokes, const ToolPath& path, int repeats) {
    const double trail = in_mm(path.trail);
    Point heading{1, 0};            // as a swatch leaves it that is cut to the right
    if (repeats > 1 && trail > 0) { // as the last stroke leaves it for the first
        std::vector<Stroke> once = strokes;
        ToolPath plain = path;
        plain.offset = {};
        heading = carried(once, plain, heading);
    }
    carried(strokes, path, heading);
}

} // namespace dotlane
