#include "core/recipe/seams.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/geometry/region_index.h"

namespace dotlane {
namespace {

/// A place on a line, the direction it has there, and which line of which stroke it is.
struct Sample {
    Point at, along;
    std::uint32_t line, stroke;
};

std::vector<Sample> samples_of(const Polylines& strokes, double spacing) {
    std::vector<Sample> out;
    const double bend = std::cos(std::numbers::pi / 3);
    std::uint32_t line = 0;
    for (std::uint32_t s = 0; s < strokes.size(); ++s, ++line) {
        const auto& points = strokes[s].points;
        const std::size_t n = points.size();
        Point begun{0, 0};
        double gone = spacing / 2; // a short line has one sample, in its middle
        for (std::size_t i = 0; i + (strokes[s].closed ? 0 : 1) < n; ++i) {
            const Point a = points[i], b = points[(i + 1) % n];
            const double way = distance(a, b);
            if (way < 1e-9) continue;
            const Point along = (b - a) * (1 / way);
            if (begun == Point{0, 0}) begun = along;
            if (dot(begun, along) < bend) ++line, begun = along, gone = std::max(gone, spacing - way / 2);
            double at = spacing - gone;
            for (; at < way; at += spacing)
                if (at >= 0) out.push_back({a + along * at, along, line, s});
            gone = spacing - (at - way);
        }
    }
    return out;
}

/// Upper tail of the standard normal distribution.
double beyond(double x) {
    return std::erfc(x / std::numbers::sqrt2) / 2;
}

} // namespace

std::size_t seams(const Polylines& strokes, Length spacing) {
    if (strokes.size() < 2) return 0;
    const double pitch = in_mm(spacing);
    const std::vector<Sample> all = samples_of(strokes, pitch);
    if (all.empty()) return 0;
    Box box;
    for (const Sample& s : all)
        box.add(s.at);
    const long columns = static_cast<long>(box.width() / pitch) + 1,
               rows = static_cast<long>(box.height() / pitch) + 1;
    // Kept by square, sorted: a surface is covered by its lines, but its box may be far larger.
    const auto square = [&](Point p) {
        return static_cast<std::uint64_t>(static_cast<long>((p.y - box.y0) / pitch) * columns +
                                          static_cast<long>((p.x - box.x0) / pitch));
    };
    std::vector<std::pair<std::uint64_t, std::uint32_t>> by_square;
    by_square.reserve(all.size());
    for (std::uint32_t i = 0; i < all.size(); ++i)
        by_square.emplace_back(square(all[i].at), i);
    std::sort(by_square.begin(), by_square.end());
    std::vector<std::uint64_t> pairs;
    const double near = 0.75 * pitch;
    const auto beside = [&](const Sample& s, Point side) {
        const long c = static_cast<long>(std::floor((side.x - box.x0) / pitch)),
                   r = static_cast<long>(std::floor((side.y - box.y0) / pitch));
        const long c0 = std::max(0L, c - 1), c1 = std::min(columns - 1, c + 1);
        for (long j = std::max(0L, r - 1); c0 <= c1 && j <= std::min(rows - 1, r + 1); ++j) {
            const auto first = static_cast<std::uint64_t>(j * columns + c0),
                       last = static_cast<std::uint64_t>(j * columns + c1);
            for (auto it = std::lower_bound(by_square.begin(), by_square.end(), std::pair{first, 0U});
                 it != by_square.end() && it->first <= last; ++it) {
                const Sample& o = all[it->second];
                if (o.stroke == s.stroke || std::abs(dot(o.along, s.along)) < 0.8) continue;
                const double across = std::abs(cross(s.along, o.at - s.at));
                if (distance(o.at, side) > near || across < 0.5 * pitch || across > 1.5 * pitch) continue;
                pairs.push_back((static_cast<std::uint64_t>(std::min(s.line, o.line)) << 32) |
                                std::max(s.line, o.line));
            }
        }
    };
    for (const Sample& s : all) {
        const Point across = Point{-s.along.y, s.along.x} * pitch;
        beside(s, s.at + across);
        beside(s, s.at - across);
    }
    std::sort(pairs.begin(), pairs.end());
    return static_cast<std::size_t>(std::unique(pairs.begin(), pairs.end()) - pairs.begin());
}

Length widest_gap(const Polylines& strokes, const Region& inner) {
    double out = 0;
    if (strokes.size() < 2) return {};
    const RegionIndex index(inner);
    for (std::size_t i = 0; i + 1 < strokes.size(); ++i) {
        const Polyline& line = strokes[i];
        const Point a = line.closed ? line.points.front() : line.points.back(),
                    b = strokes[i + 1].points.front();
        const double way = distance(a, b);
        if (way <= out || !index.contains(mix(a, b, 0.5)) || index.crosses(mix(a, b, 1e-6), mix(b, a, 1e-6)))
            continue;
        out = way;
    }
    return mm(out);
}

double visible_gaps(std::size_t seams, Length spacing, Length tip, Length scatter) {
    if (in_mm(scatter) <= 0 || spacing > tip) return 0;
    return static_cast<double>(seams) *
           beyond(in_mm(tip + seen_gap - spacing) / (in_mm(scatter) * std::numbers::sqrt2));
}

Length spacing_without_gaps(std::size_t seams, Length spacing, Length tip, Length scatter, double most) {
    Length out = std::min(spacing, tip);
    for (; out > mm(0.05); out -= mm(0.005)) {
        // Closer lines are more lines.
        const auto more = static_cast<std::size_t>(std::ceil(static_cast<double>(seams) * (spacing / out)));
        if (visible_gaps(more, out, tip, scatter) < most) return out;
    }
    return mm(0.05);
}

} // namespace dotlane
