#include "core/geometry/parallels.h"

#include <algorithm>
#include <cmath>
#include <numbers>

namespace dotlane {
namespace {

constexpr double pi = std::numbers::pi;
constexpr double along_within = 0.5 * pi / 180; ///< of the common direction
constexpr double even_within = 0.06;            ///< of the common distance

struct Way {
    double across = 0, from = 0, to = 0; ///< in the frame of the common direction
};

template<class Each>
void each_way(const Polyline& line, Each each) {
    for (std::size_t i = 1; i < line.points.size(); ++i)
        each(line.points[i - 1], line.points[i]);
    if (line.closed && line.points.size() > 2) each(line.points.back(), line.points.front());
}

double bearing(Point a, Point b) {
    const double angle = std::atan2(b.y - a.y, b.x - a.x);
    return angle < 0 ? angle + pi : angle >= pi ? angle - pi : angle;
}

/// How far apart two directions are, up to a right angle.
double between(double a, double b) {
    const double d = std::abs(a - b);
    return std::min(d, pi - d);
}

/// The direction in which most length runs.
std::optional<double> common_direction(const std::vector<const Polyline*>& lines) {
    constexpr std::size_t bins = 720;
    std::vector<double> length(bins, 0);
    double all = 0;
    for (const Polyline* line : lines)
        each_way(*line, [&](Point a, Point b) {
            const double way = distance(a, b);
            if (way == 0) return;
            all += way;
            length[static_cast<std::size_t>(bearing(a, b) / pi * bins) % bins] += way;
        });
    const auto near = [&](std::size_t k) {
        return length[(k + bins - 1) % bins] + length[k] + length[(k + 1) % bins];
    };
    std::size_t best = 0;
    for (std::size_t k = 1; k < bins; ++k)
        if (near(k) > near(best)) best = k;
    if (all == 0 || near(best) < 0.3 * all) return std::nullopt;
    // Exactly: the mean of what runs so, with angles doubled, as directions come round after half a turn.
    const double rough = (static_cast<double>(best) + 0.5) * pi / bins;
    double x = 0, y = 0;
    for (const Polyline* line : lines)
        each_way(*line, [&](Point a, Point b) {
            const double d = bearing(a, b), way = distance(a, b);
            if (way == 0 || between(d, rough) > 2 * along_within) return;
            x += way * std::cos(2 * d), y += way * std::sin(2 * d);
        });
    const double angle = std::atan2(y, x) / 2;
    return angle < 0 ? angle + pi : angle;
}

} // namespace

std::optional<Parallels> parallels_in(const std::vector<const Polyline*>& lines) {
    const auto angle = common_direction(lines);
    if (!angle) return std::nullopt;
    const Point along{std::cos(*angle), std::sin(*angle)}, side{-along.y, along.x};
    std::vector<Way> ways;
    Parallels out{radians(*angle), {}, {}};
    for (std::size_t k = 0; k < lines.size(); ++k) {
        double so = 0, all = 0;
        each_way(*lines[k], [&](Point a, Point b) {
            const double way = distance(a, b);
            all += way;
            if (way == 0 || between(bearing(a, b), *angle) > along_within) return;
            so += way;
            const double from = dot(a, along), to = dot(b, along);
            ways.push_back({dot((a + b) * 0.5, side), std::min(from, to), std::max(from, to)});
        });
        if (all > 0 && so > 0.6 * all) out.lines.push_back(k);
    }
    std::sort(ways.begin(), ways.end(), [](const Way& a, const Way& b) { return a.across < b.across; });
    // Of some hundred ways all over, how far the next one is that runs beside them.
    std::vector<double> gaps;
    const std::size_t every = std::max<std::size_t>(1, ways.size() / 600);
    for (std::size_t i = 0; i < ways.size(); i += every) {
        const Way& w = ways[i];
        for (std::size_t j = i + 1, looked = 0; j < ways.size() && looked < 20'000; ++j, ++looked) {
            if (ways[j].across - w.across < 1e-3) continue;
            const double shared = std::min(w.to, ways[j].to) - std::max(w.from, ways[j].from);
            if (shared < 0.3 * std::min(w.to - w.from, ways[j].to - ways[j].from)) continue;
            gaps.push_back(ways[j].across - w.across);
            break;
        }
    }
    if (gaps.size() < 8) return std::nullopt;
    std::nth_element(gaps.begin(), gaps.begin() + std::ssize(gaps) / 2, gaps.end());
    const double middle = gaps[gaps.size() / 2];
    const auto even = std::count_if(
        gaps.begin(), gaps.end(), [&](double gap) { return std::abs(gap - middle) <= even_within * middle; });
    if (static_cast<double>(even) < 0.7 * static_cast<double>(gaps.size())) return std::nullopt;
    // What is even has a mean; the middle one alone would be as rough as the file's decimals.
    double sum = 0;
    for (const double gap : gaps)
        if (std::abs(gap - middle) <= even_within * middle) sum += gap;
    out.spacing = mm(sum / static_cast<double>(even));
    return out;
}

} // namespace dotlane
