#include "core/plan/tour.h"

#include <algorithm>
#include <numeric>
#include <random>

namespace dotlane {
namespace {

constexpr double least_gain = 1e-9;
constexpr std::size_t longest_chain = 6;   ///< of flips, when no 3-opt move gains
constexpr std::size_t longest_shaken = 50; ///< of each of the stretches that change places

} // namespace

Tour::Tour(std::vector<TourItem> items)
    : inside_(items.size())
    , items_(std::move(items))
    , flip_(items_.size(), 0)
    , queued_(items_.size(), 0) {
    std::iota(inside_.begin(), inside_.end(), 0U);
    outside_ = inside_;
    find_neighbours();
    start();
    renumber();
}

void Tour::wake(std::uint32_t item) {
    if (queued_[item]) return;
    queued_[item] = 1;
    queue_.push_back(item);
}

void Tour::improve(std::size_t shakes, Progress& progress) {
    if (items_.size() < 2) return;
    if (items_.size() <= largest_exact) return solve();
    if (near_.empty()) find_neighbours(); // items were moved
    queue_.clear();
    for (auto it = order_.rbegin(); it != order_.rend(); ++it)
        wake(*it);
    descend(progress);
    shake(shakes, progress);
}

void Tour::shake(std::size_t times, Progress& progress) {
    const std::size_t n = size();
    std::mt19937 chance(static_cast<unsigned>(n)); // the same tour every time
    const auto below = [&](std::size_t limit) { return static_cast<std::size_t>(chance()) % limit; };
    const std::size_t longest = std::min(longest_shaken, (n - 2) / 3);
    for (std::size_t round = 0; round < times && !progress.cancelled(); ++round) {
        // A, B and C, neighbours, become C, B and A: no chain of moves does that.
        const std::size_t a = 1 + below(longest), b = 1 + below(longest), c = 1 + below(longest),
                          from = below(n);
        const std::uint32_t ahead = at(from + n - 1), a0 = at(from), a1 = at(from + a - 1), b0 = at(from + a),
                            b1 = at(from + a + b - 1), c0 = at(from + a + b), c1 = at(from + a + b + c - 1),
                            behind = at(from + a + b + c);
        journal_.clear();
        mirrored_ = false;
        double gain = link(ahead, a0) + link(a1, b0) + link(b1, c0) + link(c1, behind) - link(ahead, c0) -
                      link(c1, b0) - link(b1, a0) - link(a1, behind);
        flip_between(a0, c1), flip_between(c1, c0), flip_between(b1, b0), flip_between(a1, a0);
        for (const std::uint32_t item : {ahead, a0, a1, b0, b1, c0, c1, behind})
            wake(item);
        while (!queue_.empty()) {
            const std::uint32_t item = queue_.back();
            queue_.pop_back();
            queued_[item] = 0;
            while (const double more = improve_at(item))
                gain += more;
        }
        if (gain < -least_gain) undo(0);
    }
    journal_.clear();
}

void Tour::descend(Progress& progress) {
    std::size_t turns = 0;
    while (!queue_.empty()) {
        if (++turns % 1024 == 0 && progress.cancelled()) break;
        const std::uint32_t item = queue_.back();
        queue_.pop_back();
        queued_[item] = 0;
        while (improve_at(item) > 0)
            journal_.clear();
    }
    for (const std::uint32_t item : queue_)
        queued_[item] = 0;
    queue_.clear();
}

void Tour::set_item(std::uint32_t item, Point at) {
    items_[inside_[item]] = {at, at};
    near_.clear();
}

/// The best of the 2-opt and sequential 3-opt moves that open the link behind or ahead of an item; where none
/// gains, a chain goes on from the most promising one.
double Tour::improve_at(std::uint32_t base) {
    for (const bool mirrored : {false, true}) {
        mirrored_ = mirrored;
        Move promising{0, Move::Kind::turn, 0, 0};
        const Move best = best_move(base, promising);
        touched_.clear();
        if (best.gain > least_gain) {
            carry_out(base, best);
            wake_touched();
            return best.gain;
        }
        if (promising.gain <= 0) continue;
        const std::size_t journal = journal_.size();
        carry_out(base, promising);
        if (const double gain = follow(base, promising.gain); gain > 0) {
            wake_touched();
            return gain;
        }
        undo(journal);
    }
    return 0;
}

/// One flip after the other, each the one that leaves most open, until the tour is shorter closed than it
/// was, or what is joined is longer than what was opened. `open`: what was opened less what was joined.
double Tour::follow(std::uint32_t base, double open) {
    std::vector<std::pair<std::uint32_t, std::uint32_t>>& added = added_;
    added.clear();
    for (std::size_t level = 0; level < longest_chain; ++level) {
        const std::uint32_t first = after(base);
        const int end = front_end(first);
        double most = -1;
        std::uint32_t to = 0;
        for (const Near *near = begin_near(first, end), *last = end_near(first, end);
             near != last && near->far < open - least_gain; ++near) {
            if (!is_front(*near) || near->item == base) continue;
            const std::uint32_t left = before(near->item);
            if (left == first && is_dot(first)) continue; // turning a dot changes nothing
            const auto same = [&](const auto& pair) {
                return pair == std::pair{left, near->item} || pair == std::pair{near->item, left};
            };
            if (std::any_of(added.begin(), added.end(), same)) continue;
            if (const double next = open - near->far + distance(back(left), front(near->item)); next > most)
                most = next, to = near->item;
        }
        if (most < 0) return 0;
        const std::uint32_t last = before(to);
        added.emplace_back(first, to);
        for (const std::uint32_t item : {first, last, to})
            touched_.push_back(item);
        flip_between(first, last);
        open = most;
        if (const double gain = open - distance(back(base), front(after(base))); gain > least_gain)
            return gain;
    }
    return 0;
}

void Tour::wake_touched() {
    for (const std::uint32_t item : touched_)
        wake(item);
}

/// Of base, first ... : the link between them is opened, and the front of `first` joined to the front of
/// `third` (what lies between them is turned) or to the back of `second` (what lies between them is a circle,
/// that has to be opened elsewhere). All is weighed before anything is turned.
Tour::Move Tour::best_move(std::uint32_t base, Move& promising) const {
    Move best{least_gain, Move::Kind::turn, 0, 0};
    const std::uint32_t first = after(base);
    const Point home = back(base);
    const double opened = distance(home, front(first));
    const auto each_near = [this](std::uint32_t item, int end, double most, auto&& look) {
        for (const Near *near = begin_near(item, end), *last = end_near(item, end);
             near != last && near->far < most; ++near)
            look(*near);
    };
    const auto try_it = [&](double open, Point end, Move::Kind kind, std::uint32_t one, std::uint32_t two) {
        if (const double gain = open - distance(home, end); gain > best.gain) best = {gain, kind, one, two};
        if (open > promising.gain && kind != Move::Kind::turn) promising = {open, kind, one, two};
    };
    each_near(first, front_end(first), opened - least_gain, [&](const Near& near) {
        if (is_front(near) && near.item != base) {
            const std::uint32_t third = near.item, second = before(third);
            const Point end = back(second);
            const double open = opened - near.far + distance(end, front(third));
            try_it(open, end, Move::Kind::turn, second, 0);
            const std::size_t turned = ahead_by(first, second);
            each_near(second, 1 - front_end(second), open - least_gain, [&](const Near& on) {
                const std::uint32_t d = on.item;
                const bool within = ahead_by(first, d) <= turned;
                if (!within && is_front(on) && d != third) {
                    const std::uint32_t left = before(d);
                    try_it(open - on.far + distance(back(left), front(d)), back(left), Move::Kind::turn_all,
                           second, left);
                } else if (within && is_back(on) && d != second) {
                    const std::uint32_t right = after(d);
                    try_it(open - on.far + distance(back(d), front(right)), front(right),
                           Move::Kind::turn_first, second, d);
                }
            });
        }
        if (is_back(near) && near.item != base) {
            const std::uint32_t second = near.item, third = after(second);
            const double open = opened - near.far + distance(back(second), front(third));
            const std::size_t circle = ahead_by(first, second);
            each_near(third, front_end(third), open - least_gain, [&](const Near& on) {
                const std::uint32_t d = on.item;
                if (ahead_by(first, d) > circle) return;
                if (is_back(on) && d != second) {
                    const std::uint32_t right = after(d);
                    try_it(open - on.far + distance(back(d), front(right)), front(right), Move::Kind::swap,
                           second, d);
                }
                if (is_front(on) && d != first) {
                    const std::uint32_t left = before(d);
                    try_it(open - on.far + distance(back(left), front(d)), back(left), Move::Kind::turn_both,
                           second, left);
                }
            });
        }
    });
    return best;
}

/// base, first ... `one` ... with `two` in that stretch, or behind it.
void Tour::carry_out(std::uint32_t base, const Move& move) {
    const std::uint32_t first = after(base), second = move.one;
    for (const std::uint32_t item : {base, first, second, after(second)})
        touched_.push_back(item);
    if (move.kind != Move::Kind::turn)
        for (const std::uint32_t item : {move.two, after(move.two)})
            touched_.push_back(item);
    switch (move.kind) {
    case Move::Kind::turn:
        flip_between(first, second);
        break;
    case Move::Kind::turn_all: // first ... second | ... two: both turned, and changed round
        flip_between(first, second);
        flip_between(second, move.two);
        break;
    case Move::Kind::turn_first: { // first ... two | right ... second: changed round, the former turned
        const std::uint32_t right = after(move.two);
        flip_between(first, second);
        flip_between(second, right);
        break;
    }
    case Move::Kind::swap: {
        const std::uint32_t right = after(move.two);
        flip_between(first, second);
        flip_between(second, right);
        flip_between(move.two, first);
        break;
    }
    case Move::Kind::turn_both: {
        const std::uint32_t right = after(move.two);
        flip_between(first, move.two);
        flip_between(right, second);
        break;
    }
    }
}

/// Turns what lies between two items in the direction in which the chain looks. Reversing a stretch or
/// everything but the stretch gives the same tour; the shorter one is, and the chain looks the other way
/// then.
void Tour::flip_between(std::uint32_t first, std::uint32_t last) {
    const std::size_t from = position_[mirrored_ ? last : first], to = position_[mirrored_ ? first : last];
    const std::size_t count = wrap(to + size() - from) + 1, rest = size() - count;
    if (count <= rest) {
        reverse(from, count);
    } else {
        reverse(wrap(to + 1), rest);
        mirrored_ = !mirrored_;
    }
}

void Tour::reverse(std::size_t first, std::size_t count) {
    journal_.push_back({static_cast<std::uint32_t>(first), static_cast<std::uint32_t>(count)});
    std::size_t i = first, j = wrap(first + count - 1);
    for (std::size_t k = 0; k < count / 2; ++k) {
        const std::uint32_t left = order_[i], right = order_[j];
        order_[i] = right, order_[j] = left;
        position_[right] = static_cast<std::uint32_t>(i), position_[left] = static_cast<std::uint32_t>(j);
        flip_[left] ^= 1, flip_[right] ^= 1;
        i = wrap(i + 1), j = wrap(j + size() - 1);
    }
    if (count % 2 == 1) flip_[order_[i]] ^= 1;
}

void Tour::undo(std::size_t down_to) {
    while (journal_.size() > down_to) {
        const Flip last = journal_.back();
        reverse(last.first, last.count);
        journal_.resize(journal_.size() - 2);
    }
}

std::vector<std::uint32_t> Tour::order() const {
    std::vector<std::uint32_t> out;
    out.reserve(size());
    for (std::size_t i = 1; i < size(); ++i)
        out.push_back(outside_[at(position_[0] + i)]);
    return out;
}

double Tour::cost() const {
    double total = 0;
    for (std::size_t i = 0; i < size(); ++i)
        total += link(at(i), at(i + 1));
    return total;
}

} // namespace dotlane
