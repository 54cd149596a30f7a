// Which of many points lie near another: a grid of cells as wide as the reach.
#pragma once

#include <cmath>
#include <map>
#include <vector>

#include "core/geometry/point.h"

namespace dotlane {

template<class What>
class PointGrid {
  public:
    /// `reach` in mm, above 0.
    explicit PointGrid(double reach)
        : reach_(reach) {}

    /// A cell keeps no more than `most`: what lies there a thousand times is found as well by fifty.
    void add(Point at, What what, std::size_t most = ~std::size_t{0}) {
        auto& cell = cells_[cell_of(at)];
        if (cell.size() < most) cell.push_back({at, std::move(what)});
    }
    /// `found(what, distance)` for each within the reach, in the order of cells and then of adding.
    template<class Found>
    void near(Point at, Found found) const {
        const auto [cx, cy] = cell_of(at);
        for (long long x = cx - 1; x <= cx + 1; ++x)
            for (long long y = cy - 1; y <= cy + 1; ++y) {
                const auto cell = cells_.find({x, y});
                if (cell == cells_.end()) continue;
                for (const auto& [there, what] : cell->second)
                    if (const double d = distance(there, at); d <= reach_) found(what, d);
            }
    }

  private:
    using Cell = std::pair<long long, long long>;
    Cell cell_of(Point p) const { return {std::llround(p.x / reach_), std::llround(p.y / reach_)}; }
    double reach_;
    std::map<Cell, std::vector<std::pair<Point, What>>> cells_;
};

} // namespace dotlane
