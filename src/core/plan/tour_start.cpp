// Which items lie near one another, and the tour to begin with: the shortest links are taken first, as long
// as they close no circle (greedy; Bentley 1992), and what hangs together then is strung up by nearest
// neighbour.
#include <numeric>

#include "core/base/sets.h"
#include "core/plan/end_grid.h"
#include "core/plan/tour.h"

namespace dotlane {
namespace {

/// Items run in this order, each begun at its end 0 or 1.
using Strung = std::vector<std::pair<std::uint32_t, char>>;

Strung nearest_neighbour(const std::vector<TourItem>& items, std::uint32_t first) {
    EndGrid grid(items);
    Strung out{{first, 0}};
    while (true) {
        const auto [current, flip] = out.back();
        grid.remove(current, items[current].a);
        grid.remove(current, items[current].b);
        if (out.size() == items.size()) return out;
        const EndGrid::End next = grid.nearest(flip ? items[current].a : items[current].b);
        out.emplace_back(next.item, next.end == 1);
    }
}

} // namespace

void Tour::find_neighbours() {
    // So many items, not ends: lists full of the two ends of the same lines lead nowhere. And some to each
    // side (quadrant neighbours; Johnson and McGeoch 1997): the nearest to things in a cluster, or to lines
    // of a fill, are all of the same, and no move would lead to the next.
    constexpr std::size_t others = 6, to_each_side = 2;
    std::vector<TourItem> as_given(items_.size());
    for (std::uint32_t i = 0; i < items_.size(); ++i)
        as_given[outside_[i]] = items_[i];
    const EndGrid grid(as_given);
    const bool dots = std::all_of(items_.begin(), items_.end(), [](const TourItem& i) { return i.a == i.b; });
    near_.clear();
    near_begin_.assign(1, 0);
    near_.reserve(items_.size() * (dots ? 1 : 4) * (others + 2 * to_each_side));
    std::vector<EndGrid::Found> found;
    const std::size_t ends = dots ? 1 : 2;
    for (std::uint32_t i = 0; i < items_.size(); ++i)
        for (int end = 0; end < 2; ++end) {
            if (end == 0 || !is_dot(i)) {
                grid.around(end == 0 ? items_[i].a : items_[i].b, outside_[i], ends * others,
                            ends * to_each_side, found);
                for (const EndGrid::Found& f : found)
                    near_.push_back({f.far, inside_[f.end.item], f.end.end});
            } else { // a dot has one list
                const std::size_t from = near_begin_[near_begin_.size() - 2], count = near_.size() - from;
                for (std::size_t k = 0; k < count; ++k)
                    near_.push_back(Near(near_[from + k]));
            }
            near_begin_.push_back(static_cast<std::uint32_t>(near_.size()));
        }
}

void Tour::start() {
    struct Link {
        double far;
        std::uint32_t from, to; ///< ends: twice the item, and one for its end 1
    };
    const auto count = static_cast<std::uint32_t>(items_.size());
    std::vector<std::uint32_t> other(count * 2, count * 2); ///< end to which an end is linked
    std::vector<Link> links;
    for (std::uint32_t i = 0; i < count; ++i)
        for (int end = 0; end < (is_dot(i) ? 1 : 2); ++end)
            for (const Near* near = begin_near(i, end); near != end_near(i, end); ++near)
                if (i < near->item)
                    links.push_back({near->far, i * 2 + static_cast<std::uint32_t>(end),
                                     near->item * 2 + (near->end == 1 ? 1U : 0U)});
    std::stable_sort(links.begin(), links.end(), [](const Link& a, const Link& b) { return a.far < b.far; });
    Sets together(count);
    const auto is_free = [&](std::uint32_t end) { // either of a dot will do
        if (other[end] == count * 2) return end;
        return is_dot(end / 2) && other[end ^ 1U] == count * 2 ? end ^ 1U : count * 2;
    };
    for (const Link& link : links) {
        const std::uint32_t from = is_free(link.from), to = is_free(link.to);
        if (from == count * 2 || to == count * 2 || together.of(from / 2) == together.of(to / 2)) continue;
        together.unite(from / 2, to / 2);
        other[from] = to, other[to] = from;
    }
    // The threads, each from an end that is free.
    std::vector<TourItem> threads;
    std::vector<Strung> strung;
    std::vector<char> done(count, 0);
    std::uint32_t of_rest = 0;
    for (std::uint32_t end = 0; end < count * 2; ++end) {
        if (done[end / 2] || other[end] != count * 2) continue;
        Strung thread;
        for (std::uint32_t at = end; at != count * 2; at = other[at ^ 1U]) {
            thread.emplace_back(at / 2, static_cast<char>(at & 1U));
            done[at / 2] = 1;
            if (at / 2 == 0) of_rest = static_cast<std::uint32_t>(threads.size());
        }
        const auto point = [&](std::pair<std::uint32_t, char> it, bool far) {
            return (it.second != 0) != far ? items_[it.first].b : items_[it.first].a;
        };
        threads.push_back({point(thread.front(), false), point(thread.back(), true)});
        strung.push_back(std::move(thread));
    }
    order_.clear();
    position_.resize(count);
    for (const auto& [thread, backwards] : nearest_neighbour(threads, of_rest)) {
        Strung& items = strung[thread];
        if (backwards) std::reverse(items.begin(), items.end());
        for (const auto& [item, flip] : items) {
            position_[item] = static_cast<std::uint32_t>(order_.size());
            order_.push_back(item);
            flip_[item] = static_cast<char>((flip != 0) != (backwards != 0));
        }
    }
}

void Tour::renumber() {
    const std::size_t n = size();
    std::vector<std::uint32_t> before(n); // of each new number
    for (std::uint32_t k = 0; k < n; ++k)
        before[k] = at(position_[0] + k);
    std::vector<std::uint32_t> now(n);
    for (std::uint32_t k = 0; k < n; ++k)
        now[before[k]] = k;
    std::vector<TourItem> items;
    std::vector<char> flip;
    std::vector<Near> near;
    std::vector<std::uint32_t> near_begin{0};
    near.reserve(near_.size());
    for (const std::uint32_t item : before) {
        items.push_back(items_[item]), flip.push_back(flip_[item]);
        for (const int end : {0, 1}) {
            for (const Near* it = begin_near(item, end); it != end_near(item, end); ++it)
                near.push_back({it->far, now[it->item], it->end});
            near_begin.push_back(static_cast<std::uint32_t>(near.size()));
        }
    }
    items_ = std::move(items), flip_ = std::move(flip), near_ = std::move(near),
    near_begin_ = std::move(near_begin);
    for (std::uint32_t i = 0; i < n; ++i)
        order_[i] = now[order_[i]], position_[order_[i]] = i;
    outside_ = std::move(before), inside_ = std::move(now);
}

} // namespace dotlane
