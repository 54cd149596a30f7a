// A closed tour over items with two ends. Internal to plan.
#pragma once

#include <cstdint>
#include <vector>

#include "core/base/progress.h"
#include "core/geometry/point.h"

namespace dotlane {

/// Something to be visited: entered at `a` and left at `b`, or the other way.
struct TourItem {
    Point a, b;
};

class Tour {
  public:
    /// Item 0 is the rest position. Starts with the greedy order: the shortest links first.
    explicit Tour(std::vector<TourItem> items);

    /// Up to nine items: the best of all tours. More: 2-opt and sequential 3-opt moves on neighbour lists,
    /// and chains of flips that go on from the most promising of them (Lin and Kernighan 1973; neighbour
    /// lists and don't-look bits, Bentley 1992), until none helps, or cancelled. Then the tour is shaken so
    /// many times: three neighbouring stretches change places (a segment double bridge, which no such chain
    /// makes or undoes), it is improved again about there, and the better one is kept (iterated
    /// Lin-Kernighan, Johnson and McGeoch 1996). Deterministic.
    void improve(std::size_t shakes, Progress& progress);
    /// Replaces an item's ends (a closed line was given another start point).
    void set_item(std::uint32_t item, Point at);

    /// Items after the rest position, in order.
    std::vector<std::uint32_t> order() const;
    bool flipped(std::uint32_t item) const { return flip_[inside_[item]]; }
    Point entry(std::uint32_t item) const { return entered(inside_[item]); }
    Point exit(std::uint32_t item) const { return left(inside_[item]); }
    double cost() const;

  private:
    struct Near {
        double far;
        std::uint32_t item;
        std::uint8_t end; // 0: a, 1: b, 2: both are one point
    };
    /// What is done with the stretch behind an item, up to `one`, and with what lies up to `two`.
    struct Move {
        enum class Kind { turn, turn_all, turn_first, swap, turn_both };
        double gain;
        Kind kind;
        std::uint32_t one, two;
    };
    struct Flip {
        std::uint32_t first, count;
    };
    static constexpr std::size_t largest_exact = 9; ///< items, with the rest position
    void solve();
    void find_neighbours();
    void start();
    void renumber();
    void descend(Progress& progress);
    void shake(std::size_t times, Progress& progress);
    double improve_at(std::uint32_t item);

    Move best_move(std::uint32_t base, Move& promising) const;
    double follow(std::uint32_t base, double open);
    void wake_touched();
    void carry_out(std::uint32_t base, const Move& move);
    void flip_between(std::uint32_t first, std::uint32_t last);
    void reverse(std::size_t first, std::size_t count);
    void undo(std::size_t down_to);
    void wake(std::uint32_t item);

    std::size_t size() const { return order_.size(); }
    std::size_t wrap(std::size_t i) const { return i >= size() ? i - size() : i; }
    std::uint32_t at(std::size_t i) const { return order_[wrap(i)]; }
    std::uint32_t next(std::uint32_t item) const { return at(position_[item] + 1); }
    std::uint32_t previous(std::uint32_t item) const { return at(position_[item] + size() - 1); }
    Point entered(std::uint32_t item) const { return flip_[item] ? items_[item].b : items_[item].a; }
    Point left(std::uint32_t item) const { return flip_[item] ? items_[item].a : items_[item].b; }
    double link(std::uint32_t from, std::uint32_t to) const { return distance(left(from), entered(to)); }
    bool is_dot(std::uint32_t item) const { return items_[item].a == items_[item].b; }
    bool is_exit(const Near& n) const {
        return n.end == 2 || (n.end == 1) != static_cast<bool>(flip_[n.item]);
    }
    bool is_entry(const Near& n) const {
        return n.end == 2 || (n.end == 0) != static_cast<bool>(flip_[n.item]);
    }
    /// What lies near an item's end 0 or 1, nearest first.
    const Near* begin_near(std::uint32_t item, int end) const {
        return near_.data() + near_begin_[item * 2 + static_cast<std::size_t>(end)];
    }
    const Near* end_near(std::uint32_t item, int end) const {
        return near_.data() + near_begin_[item * 2 + static_cast<std::size_t>(end) + 1];
    }

    // A move looks at the tour in either direction.
    std::uint32_t after(std::uint32_t item) const { return mirrored_ ? previous(item) : next(item); }
    std::uint32_t before(std::uint32_t item) const { return mirrored_ ? next(item) : previous(item); }
    Point front(std::uint32_t item) const { return mirrored_ ? left(item) : entered(item); }
    Point back(std::uint32_t item) const { return mirrored_ ? entered(item) : left(item); }
    bool is_front(const Near& n) const { return mirrored_ ? is_exit(n) : is_entry(n); }
    bool is_back(const Near& n) const { return mirrored_ ? is_entry(n) : is_exit(n); }
    /// By how many items `to` lies behind `from`.
    std::size_t ahead_by(std::uint32_t from, std::uint32_t to) const {
        return mirrored_ ? wrap(position_[from] + size() - position_[to])
                         : wrap(position_[to] + size() - position_[from]);
    }
    int front_end(std::uint32_t item) const { return (flip_[item] != 0) != mirrored_ ? 1 : 0; }

    // Inside, items are numbered as they follow one another in the tour to begin with: what lies near is near
    // in memory too.
    std::vector<std::uint32_t> inside_, outside_;
    std::vector<TourItem> items_;
    std::vector<std::uint32_t> order_, position_, queue_;
    std::vector<char> flip_, queued_;
    std::vector<Near> near_;
    std::vector<std::uint32_t> near_begin_;
    std::vector<Flip> journal_; ///< what was turned, to be turned back
    bool mirrored_ = false;
    std::vector<std::uint32_t> touched_;                         ///< of the move at hand
    std::vector<std::pair<std::uint32_t, std::uint32_t>> added_; ///< links of the chain at hand
};

} // namespace dotlane
