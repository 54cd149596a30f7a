// The best of all tours, for a handful of items. Source: Held and Karp 1962, with two directions for each
// item.
#include <limits>

#include "core/plan/tour.h"

namespace dotlane {

void Tour::solve() {
    const std::size_t n = size() - 1; // without the rest position
    struct State {
        double cost = std::numeric_limits<double>::infinity();
        std::uint8_t item = 0, flip = 0; ///< before
    };
    // best[set][item][flip]: all of `set` visited, standing at the far end of `item`.
    const std::size_t sets = std::size_t{1} << n;
    std::vector<State> best(sets * n * 2);
    const auto at = [&](std::size_t set, std::size_t i, int flip) -> State& {
        return best[(set * n + i) * 2 + static_cast<std::size_t>(flip)];
    };
    const auto start = [&](std::size_t i, int flip) { return flip ? items_[i + 1].b : items_[i + 1].a; };
    const auto end = [&](std::size_t i, int flip) { return flip ? items_[i + 1].a : items_[i + 1].b; };
    constexpr int flips = 2;
    const Point rest = items_[0].a;
    for (std::size_t i = 0; i < n; ++i)
        for (int f = 0; f < flips; ++f)
            at(std::size_t{1} << i, i, f).cost = distance(rest, start(i, f));
    for (std::size_t set = 1; set < sets; ++set)
        for (std::size_t i = 0; i < n; ++i)
            for (int f = 0; f < flips; ++f) {
                const double here = at(set, i, f).cost;
                if (here == std::numeric_limits<double>::infinity()) continue;
                for (std::size_t k = 0; k < n; ++k) {
                    if (set >> k & 1U) continue;
                    for (int g = 0; g < flips; ++g) {
                        State& next = at(set | std::size_t{1} << k, k, g);
                        const double cost = here + distance(end(i, f), start(k, g));
                        if (cost < next.cost)
                            next = {cost, static_cast<std::uint8_t>(i), static_cast<std::uint8_t>(f)};
                    }
                }
            }
    double least = std::numeric_limits<double>::infinity();
    std::size_t item = 0;
    int flip = 0;
    for (std::size_t i = 0; i < n; ++i)
        for (int f = 0; f < flips; ++f) {
            const double cost = at(sets - 1, i, f).cost + distance(end(i, f), rest);
            if (cost < least) least = cost, item = i, flip = f;
        }
    order_.assign(1, 0);
    flip_[0] = 0;
    for (std::size_t set = sets - 1; set != 0;) {
        order_.insert(order_.begin() + 1, static_cast<std::uint32_t>(item + 1));
        flip_[item + 1] = static_cast<char>(flip);
        const State s = at(set, item, flip);
        set &= ~(std::size_t{1} << item);
        item = s.item, flip = s.flip;
    }
    for (std::uint32_t p = 0; p < order_.size(); ++p)
        position_[order_[p]] = p;
}

} // namespace dotlane
