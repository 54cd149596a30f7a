#include "core/plan/starts.h"

namespace dotlane {
namespace {

constexpr std::size_t most_tried = 48; ///< points of one line

/// Which of its points a line may begin at.
std::vector<std::uint32_t> tried(const Polyline& line, const RoutedLine& how) {
    if (!line.closed) return {how.start};
    const std::size_t n = line.points.size(), every = (n + most_tried - 1) / most_tried;
    std::vector<std::uint32_t> out;
    for (std::size_t i = how.start % every; i < n; i += every) // where it begins now among them
        out.push_back(static_cast<std::uint32_t>(i));
    return out;
}

/// Where the way from `from` over the line to `to` is shortest; true when it is another point than before.
bool start_between(const Polyline& ring, Point from, Point to, std::uint32_t& start) {
    const auto& points = ring.points;
    const auto way = [&](std::size_t i) { return distance(from, points[i]) + distance(points[i], to); };
    std::size_t best = start;
    double least = way(start) - 1e-9;
    for (std::size_t k = 1; k < points.size(); ++k) { // from where it starts now: of equal ones the next
        const std::size_t i = (start + k) % points.size();
        if (const double d = way(i); d < least) least = d, best = i;
    }
    if (best == start) return false;
    start = static_cast<std::uint32_t>(best);
    return true;
}

} // namespace

Point first_point(const Polylines& lines, const RoutedLine& how) {
    const auto& points = lines[how.line].points;
    return how.reversed ? points.back() : points[how.start];
}

Point last_point(const Polylines& lines, const RoutedLine& how) {
    const Polyline& line = lines[how.line];
    return line.closed ? line.points[how.start] : how.reversed ? line.points.front() : line.points.back();
}

double travel_of(const Polylines& lines, const std::vector<std::uint32_t>& order,
                 const std::vector<RoutedLine>& how, Point rest) {
    double travel = 0;
    Point at = rest;
    for (const std::uint32_t i : order)
        travel += distance(at, first_point(lines, how[i])), at = last_point(lines, how[i]);
    return travel + distance(at, rest);
}

void begin_best(const Polylines& lines, const std::vector<std::uint32_t>& order, Point rest,
                std::vector<RoutedLine>& how, Progress& progress) {
    struct Choice {
        std::vector<std::uint32_t> starts, from; ///< `from`: which start of the line before
    };
    std::vector<Choice> steps;
    std::vector<double> cost{0};
    std::vector<Point> at{rest};
    for (const std::uint32_t i : order) {
        if (progress.cancelled()) return;
        Choice step{tried(lines[i], how[i]), {}};
        std::vector<double> next;
        std::vector<Point> ends;
        for (const std::uint32_t start : step.starts) {
            RoutedLine one = how[i];
            one.start = start;
            const Point entry = first_point(lines, one);
            double least = 1e300;
            std::uint32_t best = 0;
            for (std::uint32_t k = 0; k < at.size(); ++k)
                if (const double d = cost[k] + distance(at[k], entry); d < least) least = d, best = k;
            next.push_back(least), ends.push_back(last_point(lines, one)), step.from.push_back(best);
        }
        cost = std::move(next), at = std::move(ends);
        steps.push_back(std::move(step));
    }
    double least = 1e300;
    std::uint32_t best = 0;
    for (std::uint32_t k = 0; k < at.size(); ++k)
        if (const double d = cost[k] + distance(at[k], rest); d < least) least = d, best = k;
    for (std::size_t i = order.size(); i-- > 0;) {
        how[order[i]].start = steps[i].starts[best];
        best = steps[i].from[best];
    }
    bool changed = true; // between the points that were tried; each moves the next one's best
    for (int round = 0; round < 8 && changed && !progress.cancelled(); ++round) {
        changed = false;
        for (std::size_t i = 0; i < order.size(); ++i)
            if (lines[order[i]].closed)
                changed |=
                    start_between(lines[order[i]], i == 0 ? rest : last_point(lines, how[order[i - 1]]),
                                  i + 1 == order.size() ? rest : first_point(lines, how[order[i + 1]]),
                                  how[order[i]].start);
    }
}

} // namespace dotlane
