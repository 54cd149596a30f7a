#include "core/plan/tour.h"

#include <algorithm>
#include <cmath>
#include <random>

namespace dotlane {
namespace {

constexpr double least_gain = 1e-9;

/// Square buckets over the items' ends; answers "nearest ends to p".
class EndGrid {
  public:
    EndGrid(const std::vector<TourItem>& items) {
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
        std::uint8_t end;
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

} // namespace

Tour::Tour(std::vector<TourItem> items)
    : items_(std::move(items))
    , flip_(items_.size(), 0)
    , queued_(items_.size(), 0) {
    for (const TourItem& i : items_)
        fixed_ += i.reversible ? 0 : 1;
    nearest_neighbour();
}

void Tour::nearest_neighbour() {
    EndGrid grid(items_);
    order_.reserve(items_.size());
    position_.resize(items_.size());
    std::vector<std::pair<double, EndGrid::End>> found;
    std::uint32_t current = 0;
    while (true) {
        grid.remove(current, items_[current].a);
        grid.remove(current, items_[current].b);
        position_[current] = static_cast<std::uint32_t>(order_.size());
        order_.push_back(current);
        if (order_.size() == items_.size()) return;
        grid.nearest(
            exit(current), 1, [&](const EndGrid::End& e) { return e.end != 1 || items_[e.item].reversible; },
            found);
        current = found.front().second.item;
        flip_[current] = found.front().second.end == 1;
    }
}

void Tour::find_neighbours() {
    const EndGrid grid(items_);
    per_end_ = 10;
    near_.assign(items_.size() * 2 * per_end_, {0, 3});
    std::vector<std::pair<double, EndGrid::End>> found;
    for (std::uint32_t i = 0; i < items_.size(); ++i)
        for (int end = 0; end < 2; ++end) {
            if (end == 1 && items_[i].a == items_[i].b) {
                std::copy_n(&near_[i * 2 * per_end_], per_end_, &near_[(i * 2 + 1) * per_end_]);
                continue;
            }
            grid.nearest(
                end == 0 ? items_[i].a : items_[i].b, per_end_,
                [&](const EndGrid::End& e) { return e.item != i; }, found);
            for (std::size_t k = 0; k < found.size(); ++k)
                near_[(i * 2 + static_cast<std::size_t>(end)) * per_end_ + k] = {found[k].second.item,
                                                                                 found[k].second.end};
        }
}

void Tour::wake(std::uint32_t item) {
    if (queued_[item]) return;
    queued_[item] = 1;
    queue_.push_back(item);
}

void Tour::improve(Progress& progress) {
    if (items_.size() < 2) return;
    if (items_.size() <= largest_exact) return solve();
    find_neighbours();
    queue_.clear();
    for (auto it = order_.rbegin(); it != order_.rend(); ++it)
        wake(*it);
    descend(progress);
    shake(progress);
}

void Tour::shake(Progress& progress) {
    const std::size_t n = size();
    if (n > 2000) return;
    std::mt19937 chance(static_cast<unsigned>(n)); // the same tour every time
    const auto below = [&](std::size_t limit) { return static_cast<std::size_t>(chance()) % limit; };
    const std::size_t rounds = std::min<std::size_t>(1000, 400'000 / n),
                      longest = std::min<std::size_t>(50, (n - 2) / 2);
    double best = cost();
    for (std::size_t round = 0; round < rounds && !progress.cancelled(); ++round) {
        const auto order = order_, position = position_;
        const auto flip = flip_;
        // A and B, neighbours that do not hold the rest position, become B and A.
        const std::size_t a = 1 + below(longest), b = 1 + below(longest);
        if (a + b >= n) continue;
        const std::size_t from = wrap(position_[0] + 1 + below(n - a - b));
        const std::size_t last = wrap(from + a + b - 1);
        for (const std::size_t p : {from, wrap(from + a - 1), wrap(from + a), last})
            wake(order_[p]);
        wake(at(from + n - 1)), wake(at(last + 1));
        move_segment(from, a, last, chance() % 2 == 0 && turnable(from, a));
        descend(progress);
        const double now = cost();
        if (now < best - least_gain)
            best = now;
        else if (now > best + least_gain)
            order_ = order, position_ = position, flip_ = flip;
    }
}

void Tour::descend(Progress& progress) {
    std::size_t turns = 0;
    while (!queue_.empty()) {
        if (++turns % 1024 == 0 && progress.cancelled()) break;
        const std::uint32_t item = queue_.back();
        queue_.pop_back();
        queued_[item] = 0;
        while (improve_at(item)) {
        }
    }
    for (const std::uint32_t item : queue_)
        queued_[item] = 0;
    queue_.clear();
}

void Tour::set_item(std::uint32_t item, Point at) {
    items_[item].a = items_[item].b = at;
}

bool Tour::improve_at(std::uint32_t item) {
    return try_two_opt(item) || try_or_opt(item);
}

bool Tour::try_two_opt(std::uint32_t a) {
    const std::uint32_t na = next(a), pa = previous(a);
    const double after = link(a, na), before = link(pa, a);
    const Near* near = begin_near(a, flip_[a] ? 0 : 1);
    for (std::size_t k = 0; k < per_end_ && near[k].end != 3; ++k) {
        const std::uint32_t b = near[k].item;
        if (!is_exit(near[k])) continue;
        const double d = distance(exit(a), exit(b));
        if (d >= after) break;
        const std::uint32_t nb = next(b);
        if (b == a || nb == a) continue;
        const double gain = after + link(b, nb) - d - distance(entry(na), entry(nb));
        if (gain > least_gain && reverse_between(position_[na], position_[b])) {
            wake(a), wake(b), wake(na), wake(nb);
            return true;
        }
    }
    near = begin_near(a, flip_[a] ? 1 : 0);
    for (std::size_t k = 0; k < per_end_ && near[k].end != 3; ++k) {
        const std::uint32_t b = near[k].item;
        if (!is_entry(near[k])) continue;
        const double d = distance(entry(a), entry(b));
        if (d >= before) break;
        const std::uint32_t pb = previous(b);
        if (b == a || pb == a) continue;
        const double gain = before + link(pb, b) - d - distance(exit(pa), exit(pb));
        if (gain > least_gain && reverse_between(position_[a], position_[pb])) {
            wake(a), wake(b), wake(pa), wake(pb);
            return true;
        }
    }
    return false;
}

bool Tour::try_or_opt(std::uint32_t item) {
    const std::size_t i = position_[item];
    for (std::size_t count = 1; count <= 3 && count + 2 < size(); ++count) {
        if (try_move(i, count)) return true;
        if (count > 1 && try_move(wrap(i + size() + 1 - count), count)) return true;
    }
    return false;
}

bool Tour::try_move(std::size_t from, std::size_t count) {
    const std::uint32_t first = at(from), last = at(from + count - 1);
    const std::uint32_t before = at(from + size() - 1), after = at(from + count);
    const auto inside = [&](std::uint32_t item) { return wrap(position_[item] + size() - from) < count; };
    if (inside(0)) return false; // the rest position stays put, everything else moves around it
    const double freed = link(before, first) + link(last, after) - link(before, after);
    if (freed <= least_gain) return false;
    const bool may_turn = turnable(from, count);
    const auto settle = [&](std::uint32_t left, std::uint32_t right, bool turn) {
        move_segment(from, count, position_[left], turn);
        wake(before), wake(after), wake(first), wake(last), wake(left), wake(right);
        return true;
    };
    const Near* near = begin_near(first, flip_[first] ? 1 : 0);
    for (std::size_t k = 0; k < per_end_ && near[k].end != 3; ++k) {
        const std::uint32_t b = near[k].item;
        if (inside(b)) continue;
        const double d = distance(entry(first), near[k].end == 1 ? items_[b].b : items_[b].a);
        if (d >= freed) break;
        if (is_exit(near[k]) && b != before) {
            const std::uint32_t nb = next(b);
            if (freed - (d + distance(exit(last), entry(nb)) - link(b, nb)) > least_gain)
                return settle(b, nb, false);
        }
        if (is_entry(near[k]) && may_turn && b != after) {
            const std::uint32_t pb = previous(b);
            if (freed - (distance(exit(pb), exit(last)) + d - link(pb, b)) > least_gain)
                return settle(pb, b, true);
        }
    }
    near = begin_near(last, flip_[last] ? 0 : 1);
    for (std::size_t k = 0; k < per_end_ && near[k].end != 3; ++k) {
        const std::uint32_t b = near[k].item;
        if (inside(b)) continue;
        const double d = distance(exit(last), near[k].end == 1 ? items_[b].b : items_[b].a);
        if (d >= freed) break;
        if (is_entry(near[k]) && b != after) {
            const std::uint32_t pb = previous(b);
            if (freed - (distance(exit(pb), entry(first)) + d - link(pb, b)) > least_gain)
                return settle(pb, b, false);
        }
        if (is_exit(near[k]) && may_turn && b != before) {
            const std::uint32_t nb = next(b);
            if (freed - (d + distance(entry(first), entry(nb)) - link(b, nb)) > least_gain)
                return settle(b, nb, true);
        }
    }
    return false;
}

bool Tour::turnable(std::size_t first, std::size_t count) const {
    if (fixed_ == 0) return true;
    for (std::size_t i = 0; i < count; ++i)
        if (!items_[at(first + i)].reversible) return false;
    return true;
}

void Tour::reverse_raw(std::size_t first, std::size_t count) {
    std::size_t i = first, j = wrap(first + count - 1);
    for (std::size_t k = 0; k < count / 2; ++k) {
        std::swap(order_[i], order_[j]);
        for (const std::size_t p : {i, j}) {
            position_[order_[p]] = static_cast<std::uint32_t>(p);
            flip_[order_[p]] ^= 1;
        }
        i = wrap(i + 1), j = wrap(j + size() - 1);
    }
    if (count % 2 == 1) flip_[order_[i]] ^= 1;
}

/// Reversing a stretch or everything but the stretch gives the same tour; the shorter one that may be turned
/// is.
bool Tour::reverse_between(std::size_t first, std::size_t last) {
    const std::size_t count = wrap(last + size() - first) + 1, rest = size() - count;
    const bool shorter = count <= rest;
    for (const bool inner : {shorter, !shorter}) {
        const std::size_t from = inner ? first : wrap(last + 1), n = inner ? count : rest;
        if (!turnable(from, n)) continue;
        reverse_raw(from, n);
        return true;
    }
    return false;
}

/// S M becomes M S: turn both together, then M back, then S back unless it is to be turned. The shorter of
/// the two ways round is taken for M.
void Tour::move_segment(std::size_t from, std::size_t count, std::size_t after, bool turn) {
    const std::size_t forward = wrap(after + size() - wrap(from + count - 1));
    const std::size_t backward = size() - count - forward;
    if (forward <= backward) {
        reverse_raw(from, count + forward);
        reverse_raw(from, forward);
        if (!turn) reverse_raw(wrap(from + forward), count);
    } else {
        const std::size_t start = wrap(from + size() - backward);
        reverse_raw(start, count + backward);
        reverse_raw(wrap(start + count), backward);
        if (!turn) reverse_raw(start, count);
    }
}

std::vector<std::uint32_t> Tour::order() const {
    std::vector<std::uint32_t> out;
    out.reserve(size());
    for (std::size_t i = 1; i < size(); ++i)
        out.push_back(at(position_[0] + i));
    return out;
}

double Tour::cost() const {
    double total = 0;
    for (std::size_t i = 0; i < size(); ++i)
        total += link(at(i), at(i + 1));
    return total;
}

} // namespace dotlane
