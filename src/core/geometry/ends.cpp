#include "core/geometry/ends.h"

#include <algorithm>

#include "core/geometry/point_grid.h"

namespace dotlane {
namespace {

struct Pair {
    double distance;
    std::size_t a, b; ///< ends: 2 * line, or 2 * line + 1 for its far end
};

} // namespace

JoinedEnds joined_ends(const Polylines& lines, Length reach_given) {
    const double reach = std::max(in_mm(reach_given), 1e-9);
    const auto at = [&](std::size_t end) {
        const auto& p = lines[end / 2].points;
        return end % 2 == 0 ? p.front() : p.back();
    };
    PointGrid<std::size_t> ends(reach);
    std::vector<Pair> pairs;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        if (lines[i].closed || lines[i].points.size() < 2) continue;
        // A line shorter than the reach would be closed to nothing.
        const bool closes = lines[i].points.size() >= 4 && length(lines[i]) > reach_given * 2;
        for (const std::size_t end : {2 * i, 2 * i + 1}) {
            ends.near(at(end), [&](std::size_t other, double d) {
                if (other / 2 != i || closes) pairs.push_back({d, other, end});
            });
            ends.add(at(end), end);
        }
    }
    std::stable_sort(pairs.begin(), pairs.end(),
                     [](const Pair& a, const Pair& b) { return a.distance < b.distance; });
    constexpr std::size_t none = ~std::size_t{0};
    std::vector<std::size_t> partner(2 * lines.size(), none);
    JoinedEnds out;
    for (const Pair& p : pairs)
        if (partner[p.a] == none && partner[p.b] == none) {
            partner[p.a] = p.b, partner[p.b] = p.a;
            ++out.joined;
        }
    std::vector<bool> used(lines.size());
    for (std::size_t i = 0; i < lines.size(); ++i) {
        if (used[i]) continue;
        // Back to where the chain begins, or once around a ring.
        std::size_t enter = 2 * i;
        while (partner[enter] != none) {
            const std::size_t before = partner[enter] / 2;
            enter = 2 * before + (partner[enter] % 2 == 0 ? 1 : 0);
            if (before == i) break;
        }
        Polyline chain;
        const std::size_t first = enter;
        for (;;) {
            const std::size_t line = enter / 2, leave = enter ^ 1;
            used[line] = true;
            std::vector<Point> points = lines[line].points;
            if (enter % 2 == 1) std::reverse(points.begin(), points.end());
            if (!chain.points.empty()) {
                Point& meeting = chain.points.back();
                meeting = (meeting + points.front()) * 0.5;
                points.erase(points.begin());
            }
            chain.points.insert(chain.points.end(), points.begin(), points.end());
            if (partner[leave] == none) {
                chain.closed = lines[line].closed;
                break;
            }
            enter = partner[leave];
            if (enter == first) {
                chain.points.front() = (chain.points.front() + chain.points.back()) * 0.5;
                chain.points.pop_back();
                chain.closed = true;
                break;
            }
        }
        out.lines.push_back(std::move(chain));
        out.from.push_back(i);
    }
    return out;
}

} // namespace dotlane
