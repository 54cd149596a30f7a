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
    struct Found {
        double far;
        End end;
    };
    /// The nearest of all that are there; there is one.
    End nearest(Point p) const {
        Nearest found(1);
        rings(
            p, [&](double beyond) { return found.has(beyond); },
            [&](const End& e) {
                found.offer({distance(p, e.p), e});
            });
        return found.all().front().end;
    }
    /// Of other items the nearest `in_all`, and of each quarter around `p` the nearest `in_each`, as far as
    /// they lie within some `furthest` cells; nearest first, none twice.
    void around(Point p, std::uint32_t item, std::size_t in_all, std::size_t in_each,
                std::vector<Found>& out) const {
        Nearest all(in_all),
            quarters[4]{Nearest(in_each), Nearest(in_each), Nearest(in_each), Nearest(in_each)};
        rings(
            p,
            [&](double beyond) {
                return all.has(beyond) && (beyond >= furthest * cell_ ||
                                           std::all_of(std::begin(quarters), std::end(quarters),
                                                       [&](const Nearest& q) { return q.has(beyond); }));
            },
            [&](const End& e) {
                if (e.item == item) return;
                const Found found{distance(p, e.p), e};
                all.offer(found);
                quarters[(e.p.x >= p.x ? 1 : 0) + (e.p.y >= p.y ? 2 : 0)].offer(found);
            });
        out = all.all();
        const double full = out.size() < in_all ? 1e300 : out.back().far;
        for (const Nearest& quarter : quarters)
            for (const Found& f : quarter.all())
                if (f.far >= full && std::none_of(out.begin(), out.end(), [&](const Found& o) {
                        return o.end.item == f.end.item && o.end.end == f.end.end;
                    }))
                    out.push_back(f);
        std::stable_sort(out.begin(), out.end(),
                         [](const Found& a, const Found& b) { return a.far < b.far; });
    }

  private:
    static constexpr double furthest = 24;

    /// The nearest so many of what it is offered, nearest first.
    class Nearest {
      public:
        explicit Nearest(std::size_t most)
            : most_(most) {}
        void offer(const Found& found) {
            if (all_.size() >= most_) {
                if (found.far >= all_.back().far) return;
                all_.pop_back();
            }
            all_.insert(std::upper_bound(all_.begin(), all_.end(), found.far,
                                         [](double far, const Found& f) { return far < f.far; }),
                        found);
        }
        /// Whether nothing beyond so far would be taken any more.
        bool has(double beyond) const { return all_.size() >= most_ && all_.back().far <= beyond; }
        const std::vector<Found>& all() const { return all_; }

      private:
        std::size_t most_;
        std::vector<Found> all_;
    };

    /// Rings of cells around a place, until there is enough: what follows lies `beyond`.
    template<class Enough, class Look>
    void rings(Point p, Enough enough, Look look) const {
        const int cx = column(p.x), cy = row(p.y), reach = std::max(columns_, rows_);
        for (int ring = 0; ring <= reach && !enough((ring - 1) * cell_); ++ring)
            for (int y = std::max(cy - ring, 0); y <= std::min(cy + ring, rows_ - 1); ++y) {
                const bool full = y == cy - ring || y == cy + ring;
                for (int x = cx - ring; x <= cx + ring; x += full ? 1 : std::max(1, 2 * ring)) {
                    if (x < 0 || x >= columns_) continue;
                    for (const End& e :
                         cells_[static_cast<std::size_t>(y) * static_cast<std::size_t>(columns_) +
                                static_cast<std::size_t>(x)])
                        look(e);
                }
            }
    }
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
