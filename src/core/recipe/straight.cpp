#include "core/recipe/straight.h"

namespace dotlane {
namespace {

bool is_straight(const Polyline& line) {
    if (line.closed || line.points.size() < 2) return false;
    const Point a = line.points.front(), b = line.points.back();
    return distance(a, b) > 0 && std::all_of(line.points.begin(), line.points.end(),
                                             [&](Point p) { return distance_to_segment(p, a, b) <= 0.01; });
}

} // namespace

std::vector<StraightLine> straight_lines(const std::vector<const WorkSet*>& sets) {
    std::vector<StraightLine> out;
    for (const WorkSet* set : sets)
        for (std::size_t i = 0; i < set->lines.size(); ++i)
            for (std::size_t k = 0; k < set->lines[i].contours.size(); ++k)
                if (const Polyline& line = set->lines[i].contours[k]; is_straight(line))
                    out.push_back({set, i, k, line.points.front(), line.points.back()});
    return out;
}

} // namespace dotlane
