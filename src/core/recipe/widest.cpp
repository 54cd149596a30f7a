#include "core/recipe/widest.h"

#include <algorithm>
#include <queue>

#include "core/geometry/nearest_edge.h"
#include "core/geometry/region_index.h"

namespace dotlane {
namespace {

struct Cell {
    Point middle;
    double half;   ///< of its side
    double inside; ///< how far its middle lies inside; negative: outside
    double most() const { return inside + half * 1.4142136; }
    bool operator<(const Cell& o) const { return most() < o.most(); }
};

} // namespace

WidestPlace widest_place(const Region& region) {
    // Squares that may hold a better place than the best known are quartered, the most promising first (poles
    // of inaccessibility: D. Garcia-Castellanos, U. Lombardo, Scottish Geographical Journal 123, 2007).
    const Box box = bounds(region);
    const NearestEdge edge(region);
    const RegionIndex index(region);
    const auto cell = [&](Point middle, double half) {
        const double d = distance(middle, edge.to(middle));
        return Cell{middle, half, index.contains(middle) ? d : -d};
    };
    const double side = std::max(std::min(box.width(), box.height()), 1e-4);
    const double precise = 0.004 * side;
    std::priority_queue<Cell> open;
    const auto columns = std::min(400.0, std::ceil(box.width() / side)),
               rows = std::min(400.0, std::ceil(box.height() / side));
    const double step = std::max(box.width() / columns, box.height() / rows);
    Cell best = cell(box.centre(), 0);
    for (double x = box.x0 + step / 2; x < box.x1 + step / 2; x += step)
        for (double y = box.y0 + step / 2; y < box.y1 + step / 2; y += step)
            open.push(cell({x, y}, step / 2));
    for (int looked = 0; !open.empty() && looked < 4000; ++looked) {
        const Cell next = open.top();
        open.pop();
        if (next.inside > best.inside) best = next;
        if (next.most() - best.inside <= std::min(precise, 0.005 * std::max(best.inside, 0.0) + 1e-3)) break;
        for (const double dx : {-0.5, 0.5})
            for (const double dy : {-0.5, 0.5})
                open.push(cell(next.middle + Point{dx, dy} * next.half, next.half / 2));
    }
    if (best.inside <= 0) return {region.rings.front().front(), {}}; // dust
    return {best.middle, mm(best.inside)};
}

} // namespace dotlane
