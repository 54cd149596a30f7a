#include "core/plan/kept_blocks.h"

#include <cmath>
#include <map>

#include "core/plan/starts.h"

namespace dotlane {
namespace {

/// How the line is run so that it begins as near as it may.
RoutedLine beginning_near(const Beginnings& from, std::uint32_t line, Point near) {
    RoutedLine out{line};
    const auto& points = from.lines[line].points;
    if (!from.lines[line].closed) {
        out.reversed = distance(near, points.back()) < distance(near, points.front());
        return out;
    }
    double least = HUGE_VAL;
    const auto look = [&](std::uint32_t i) {
        if (const double d = distance(near, points[i]); d < least) least = d, out.start = i;
    };
    if (!from.starts.empty() && !from.starts[line].empty())
        for (const std::uint32_t i : from.starts[line])
            look(i);
    else
        for (std::uint32_t i = 0; i < points.size(); ++i)
            look(i);
    return out;
}

/// Where these lines are put in, before the line of that number in the order: not within another block.
std::size_t best_place(const Beginnings& from, const std::vector<std::uint32_t>& lines,
                       const std::vector<std::uint32_t>& block, const std::vector<RoutedLine>& order,
                       Point rest) {
    const auto ways = [&](Point from_there, Point to) { // in and out, as near as may be
        const RoutedLine first = beginning_near(from, lines.front(), from_there),
                         last = beginning_near(from, lines.back(), to);
        return distance(from_there, first_point(from.lines, first)) +
               distance(first_point(from.lines, last), to);
    };
    std::size_t best = 0;
    double least = HUGE_VAL;
    for (std::size_t k = 0; k <= order.size(); ++k) {
        if (k > 0 && k < order.size() && block[order[k].line] > 0 &&
            block[order[k].line] == block[order[k - 1].line])
            continue;
        const Point before = k > 0 ? last_point(from.lines, order[k - 1]) : rest,
                    after = k < order.size() ? first_point(from.lines, order[k]) : rest;
        if (const double more = ways(before, after) - distance(before, after); more < least)
            least = more, best = k;
    }
    return best;
}

} // namespace

RouteResult routed_in_blocks(const Beginnings& from, const std::vector<std::uint32_t>& block,
                             const RouteOptions& options, Progress& progress) {
    if (block.empty()) return route(from.lines, options, progress, from.starts);
    Beginnings free;
    std::vector<std::uint32_t> which;
    std::map<std::uint32_t, std::vector<std::uint32_t>> blocks;
    for (std::uint32_t i = 0; i < block.size(); ++i) {
        if (from.lines[i].points.empty()) continue;
        if (block[i] > 0) {
            blocks[block[i]].push_back(i);
            continue;
        }
        which.push_back(i);
        free.lines.push_back(from.lines[i]);
        if (!from.starts.empty()) free.starts.push_back(from.starts[i]);
    }
    RouteResult out = route(free.lines, options, progress, free.starts);
    for (RoutedLine& line : out.order)
        line.line = which[line.line];
    for (const auto& [number, lines] : blocks) {
        const std::size_t at = best_place(from, lines, block, out.order, options.rest);
        Point before = at > 0 ? last_point(from.lines, out.order[at - 1]) : options.rest;
        std::vector<RoutedLine> run;
        for (const std::uint32_t line : lines) {
            run.push_back(beginning_near(from, line, before));
            before = last_point(from.lines, run.back());
        }
        out.order.insert(out.order.begin() + static_cast<std::ptrdiff_t>(at), run.begin(), run.end());
    }
    std::vector<std::uint32_t> order;
    std::vector<RoutedLine> how(from.lines.size());
    for (const RoutedLine& line : out.order)
        order.push_back(line.line), how[line.line] = line;
    out.travel = mm(travel_of(from.lines, order, how, options.rest));
    return out;
}

} // namespace dotlane
