// Items' ends in square buckets, to find those near a place. Internal to plan.
#pragma once

#include <algorithm>
#include <cmath>
#include <cstdint>
#include <vector>

#include "core/plan/tour.h"

namespace dotlane {

class EndGrid {
  public:
    explicit EndGrid(const std::vector<TourItem>& items) {
        Box box;
        for (const TourItem& i : items)
            box.add(i.a), box.add(i.b);
        const double n = static_cast<double>(items.size());
        cell_ = std::max({std::sqrt(box.width() * box.height() / n) * 1.5,
                          std::max(box.width(), box.height()) / std::min(4000.0, n), 1e-9});
        x0_ = box.x0, y0_ = box.y0;
        columns_ = static_cast<int>(box.width() / cell_) + 1;
        rows_ = static_cast<int>(box.height() / cell_) + 1;
        cells_.resize(static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_));
        for (std::uint32_t i = 0; i < items.size(); ++i) {
            const bool dot = items[i].a == items[i].b;
            at(items[i].a).push_back({items[i].a, i, static_cast<std::uint8_t>(dot ? 2 : 0)});
            if (!dot) at(items[i].b).push_back({items[i].b, i, 1});
        }
    }
    struct End {
        Point p;
        std::uint32_t item;
        std::uint8_t end; ///< 0: a, 1: b, 2: both are one point
    };
    void remove(std::uint32_t item, Point p) {
        auto& cell = at(p);
        std::erase_if(cell, [item](const End& e) { return e.item == item; });
    }
    /// The k nearest ends for which `wanted` holds, nearest first.
    template<class Wanted>
    void nearest(Point p, std::size_t k, Wanted wanted, std::vector<std::pair<double, End>>& out) const {
        out.clear();
        const int cx = column(p.x), cy = row(p.y);
        const int reach = std::max(columns_, rows_);
        for (int ring = 0; ring <= reach; ++ring) {
            if (out.size() >= k && out.back().first <= static_cast<double>(ring - 1) * cell_) break;
            for (int y = cy - ring; y <= cy + ring; ++y) {
                if (y < 0 || y >= rows_) continue;
                const bool full = y == cy - ring || y == cy + ring;
                for (int x = cx - ring; x <= cx + ring; x += full ? 1 : std::max(1, 2 * ring)) {
                    if (x < 0 || x >= columns_) continue;
                    for (const End& e :
                         cells_[static_cast<std::size_t>(y) * static_cast<std::size_t>(columns_) +
                                static_cast<std::size_t>(x)]) {
                        if (!wanted(e)) continue;
                        const double d = distance(p, e.p);
                        if (out.size() >= k && d >= out.back().first) continue;
                        const auto place = std::upper_bound(
                            out.begin(), out.end(), d, [](double v, const auto& o) { return v < o.first; });
                        out.insert(place, {d, e});
                        if (out.size() > k) out.pop_back();
                    }
                }
            }
        }
    }

  private:
    int column(double x) const { return std::clamp(static_cast<int>((x - x0_) / cell_), 0, columns_ - 1); }
    int row(double y) const { return std::clamp(static_cast<int>((y - y0_) / cell_), 0, rows_ - 1); }
    std::vector<End>& at(Point p) {
        return cells_[static_cast<std::size_t>(row(p.y)) * static_cast<std::size_t>(columns_) +
                      static_cast<std::size_t>(column(p.x))];
    }
    double cell_ = 1, x0_ = 0, y0_ = 0;
    int columns_ = 1, rows_ = 1;
    std::vector<std::vector<End>> cells_;
};

} // namespace dotlane
