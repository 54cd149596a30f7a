// A closed tour over items with two ends. Internal to plan.
#pragma once

#include <cstdint>
#include <vector>

#include "core/base/progress.h"
#include "core/geometry/point.h"

namespace dotlane {

/// Something to be visited: entered at `a` and left at `b`, or the other way when reversible.
struct TourItem {
    Point a, b;
    bool reversible = true;
};

class Tour {
  public:
    /// Item 0 is the rest position. Starts with the nearest-neighbour order.
    explicit Tour(std::vector<TourItem> items);

    /// Up to nine items: the best of all tours. More: 2-opt and or-opt until no neighbour move helps, or
    /// cancelled. Tours of up to 2,000 items are then shaken: two neighbouring stretches change places, the
    /// tour is improved again, and the better one is kept. Source: iterated local search with segment double
    /// bridges, Johnson and McGeoch 1996. Deterministic.
    void improve(Progress& progress);
    /// Replaces an item's ends (a closed line was given another start point).
    void set_item(std::uint32_t item, Point at);

    /// Items after the rest position, in order.
    std::vector<std::uint32_t> order() const;
    bool flipped(std::uint32_t item) const { return flip_[item]; }
    Point entry(std::uint32_t item) const { return flip_[item] ? items_[item].b : items_[item].a; }
    Point exit(std::uint32_t item) const { return flip_[item] ? items_[item].a : items_[item].b; }
    double cost() const;

  private:
    struct Near {
        std::uint32_t item;
        std::uint8_t end; // 0: a, 1: b, 2: both are one point
    };
    static constexpr std::size_t largest_exact = 9; ///< items, with the rest position
    void solve();
    void descend(Progress& progress);
    void shake(Progress& progress);
    void nearest_neighbour();
    void find_neighbours();
    bool improve_at(std::uint32_t item);
    bool try_two_opt(std::uint32_t item);
    bool try_or_opt(std::uint32_t item);
    bool try_move(std::size_t from, std::size_t count);
    void move_segment(std::size_t from, std::size_t count, std::size_t after, bool turn);
    bool reverse_between(std::size_t first, std::size_t last);
    void reverse_raw(std::size_t first, std::size_t count);
    bool turnable(std::size_t first, std::size_t count) const;
    void wake(std::uint32_t item);

    std::size_t size() const { return order_.size(); }
    std::size_t wrap(std::size_t i) const { return i >= size() ? i - size() : i; }
    std::uint32_t at(std::size_t i) const { return order_[wrap(i)]; }
    std::uint32_t next(std::uint32_t item) const { return at(position_[item] + 1); }
    std::uint32_t previous(std::uint32_t item) const { return at(position_[item] + size() - 1); }
    double link(std::uint32_t from, std::uint32_t to) const { return distance(exit(from), entry(to)); }
    bool is_exit(const Near& n) const {
        return n.end == 2 || (n.end == 1) != static_cast<bool>(flip_[n.item]);
    }
    bool is_entry(const Near& n) const {
        return n.end == 2 || (n.end == 0) != static_cast<bool>(flip_[n.item]);
    }
    const Near* begin_near(std::uint32_t item, int end) const { return &near_[(item * 2 + end) * per_end_]; }

    std::vector<TourItem> items_;
    std::vector<std::uint32_t> order_, position_, queue_;
    std::vector<char> flip_, queued_;
    std::vector<Near> near_;
    std::size_t per_end_ = 0;
    std::size_t fixed_ = 0; ///< items that may not be reversed
};

} // namespace dotlane
