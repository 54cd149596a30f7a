#include "core/plan/order_walks.h"

#include <algorithm>
#include <bitset>
#include <cmath>
#include <limits>
#include <numeric>
#include <optional>
#include <random>
#include <span>
#include <tuple>
#include <unordered_map>
#include <utility>

namespace dotlane {
namespace {

/// Of seatings, of ways between states, of places in all layers, and of ways that walks try in all rounds;
/// then of ways that the search tries.
constexpr std::int64_t most_seatings = 25'000'000, most_walked = 80'000'000, most_searched = 30'000'000;
constexpr std::size_t most_arcs = 250'000, most_labels = 5'000'000;
constexpr std::size_t most_sheets = 256;                          ///< of the search
constexpr std::size_t most_orders = 400'000, least_going_on = 20; ///< that it keeps in all; of as many sheets
constexpr double no_way = std::numeric_limits<double>::infinity();

/// All that the slots may hold between sheets, and how each sheet leads from one to another.
class Roads {
  public:
    struct Road {
        std::uint32_t to = 0;
        double cost = 0; ///< milliseconds
        int stops = 0;
        bool operator==(const Road&) const = default;
    };

    /// None when there are too many.
    static std::optional<Roads> of(const Job& job, SheetWays& ways);
    std::size_t sheets() const { return sheets_; }
    std::size_t states() const { return states_.size(); } ///< 0: as the job begins
    std::size_t count() const { return roads_.size(); }
    /// Whether the one leads everywhere where the other one does, at the same cost.
    bool same(std::size_t one, std::size_t other) const {
        for (std::size_t state = 0; state < states_.size(); ++state) {
            const auto a = of(state, one), b = of(state, other);
            if (!std::equal(a.begin(), a.end(), b.begin(), b.end())) return false;
        }
        return true;
    }
    Holds holds(std::size_t state) const { return states_[state]; }
    /// Milliseconds that the costs of all orders are a multiple of.
    std::int64_t grain() const {
        std::int64_t out = 0;
        for (const Road& road : roads_)
            out = std::gcd(out, static_cast<std::int64_t>(road.cost));
        return std::max<std::int64_t>(out, 1);
    }
    std::span<const Road> of(std::size_t state, std::size_t sheet) const {
        const std::size_t at = state * sheets_ + sheet;
        return {roads_.data() + begins_[at], roads_.data() + begins_[at + 1]};
    }

  private:
    std::size_t sheets_ = 0;
    std::vector<Holds> states_{0};
    std::vector<Road> roads_;
    std::vector<std::size_t> begins_{0}; ///< by state, then by sheet
};

std::optional<Roads> Roads::of(const Job& job, SheetWays& ways) {
    Roads out;
    out.sheets_ = job.sheets.size();
    std::vector<Holds>& states = out.states_;
    std::unordered_map<Holds, std::uint32_t> numbers{{0, 0}};
    ways.keep(all_ways, most_seatings);
    for (std::size_t from = 0; from < states.size(); ++from)
        for (std::size_t s = 0; s < out.sheets_; ++s) {
            for (const SheetWay& way : ways.ways(s, states[from])) {
                const Holds then = ways.after(way, states[from]);
                const auto [it, fresh] = numbers.try_emplace(then, static_cast<std::uint32_t>(states.size()));
                if (fresh) states.push_back(then);
                out.roads_.push_back({it->second, static_cast<double>(way.cost.hands), way.cost.stops});
            }
            out.begins_.push_back(out.roads_.size());
            if (ways.stopped() || out.roads_.size() > most_arcs ||
                2 * states.size() * out.sheets_ * (out.sheets_ + 1) > most_labels)
                return std::nullopt;
        }
    return out;
}

/// The cheapest walks that end with each sheet in each state: two of them, which ran different sheets before
/// that one.
class Reach {
  public:
    Reach(std::size_t states, std::size_t sheets)
        : costs_(2 * states * sheets, no_way)
        , befores_(costs_.size())
        , from_(costs_.size())
        , sheets_(sheets) {}

    void clear() { std::fill(costs_.begin(), costs_.end(), no_way); }
    void add(std::size_t state, std::size_t sheet, double cost, int before, std::uint32_t from) {
        const std::size_t first = 2 * (state * sheets_ + sheet), second = first + 1;
        if (cost >= costs_[second] && cost >= costs_[first]) return;
        if (costs_[first] < no_way && befores_[first] == before) {
            if (cost < costs_[first]) put(first, cost, before, from);
        } else if (cost < costs_[first]) {
            put(second, costs_[first], befores_[first], from_[first]);
            put(first, cost, before, from);
        } else {
            put(second, cost, before, from);
        }
    }
    std::size_t size() const { return costs_.size(); }
    double cost(std::size_t i) const { return costs_[i]; }
    int before(std::size_t i) const { return befores_[i]; }
    std::uint32_t from(std::size_t i) const { return from_[i]; } ///< index in the layer before
    int sheet(std::size_t i) const { return static_cast<int>(i / 2 % sheets_); }

  private:
    void put(std::size_t i, double cost, int before, std::uint32_t from) {
        costs_[i] = cost, befores_[i] = before, from_[i] = from;
    }
    std::vector<double> costs_;
    std::vector<int> befores_; ///< -1: none
    std::vector<std::uint32_t> from_;
    std::size_t sheets_;
};

/// The cheapest walk at given prices, and the prices.
class Walks {
  public:
    explicit Walks(const Roads& roads)
        : roads_(roads)
        , layers_(roads.sheets() + 1, Reach(roads.states(), roads.sheets()))
        , prices_(roads.sheets(), no_way)
        , visits_(roads.sheets()) {
        for (std::size_t s = 0; s < roads_.sheets(); ++s)
            for (std::size_t state = 0; state < roads_.states(); ++state)
                for (const Roads::Road& road : roads_.of(state, s))
                    prices_[s] = std::min(prices_[s], road.cost);
    }

    /// The cheapest walk with the prices as they are, and their sum. None when cancelled.
    std::optional<double> cheapest(const Progress& progress) {
        for (Reach& layer : layers_)
            layer.clear();
        for (std::size_t s = 0; s < roads_.sheets(); ++s)
            for (const Roads::Road& road : roads_.of(0, s))
                layers_[1].add(road.to, s, road.cost - prices_[s], -1, 0);
        for (std::size_t count = 1; count < roads_.sheets(); ++count) {
            if (progress.cancelled()) return std::nullopt;
            go_on(layers_[count], layers_[count + 1]);
        }
        const Reach& last = layers_.back();
        std::size_t best = 0;
        for (std::size_t i = 1; i < last.size(); ++i)
            if (last.cost(i) < last.cost(best)) best = i;
        double out = last.cost(best);
        for (const double price : prices_)
            out += price;
        std::fill(visits_.begin(), visits_.end(), 0);
        for (std::size_t count = roads_.sheets(), at = best; count > 0; at = layers_[count--].from(at))
            ++visits_[static_cast<std::size_t>(layers_[count].sheet(at))];
        return out;
    }

    const std::vector<double>& prices() const { return prices_; }

    /// Towards what the last walk left out, so far as `room` (what the bound may rise by, at most) tells.
    /// False when it ran each sheet once: then it is an order, and nothing bounds it better.
    bool move_prices(double room) {
        double wrong = 0;
        for (const int visits : visits_)
            wrong += (1 - visits) * (1 - visits);
        if (wrong == 0) return false;
        for (std::size_t s = 0; s < prices_.size(); ++s)
            prices_[s] += room / wrong * (1 - visits_[s]);
        return true;
    }

  private:
    void go_on(const Reach& layer, Reach& next) {
        const std::size_t n = roads_.sheets();
        for (std::size_t state = 0; state < roads_.states(); ++state) {
            there_.clear();
            for (std::size_t i = 2 * state * n; i < 2 * (state + 1) * n; ++i)
                if (layer.cost(i) < no_way) there_.push_back(i);
            std::sort(there_.begin(), there_.end(), [&](std::size_t a, std::size_t b) {
                return std::pair(layer.cost(a), a) < std::pair(layer.cost(b), b);
            });
            for (std::size_t s = 0; s < n; ++s) {
                int last = -1; // sheet of the cheapest walk that may go on with this one
                for (const std::size_t i : there_) {
                    const int sheet = layer.sheet(i);
                    if (sheet == static_cast<int>(s) || layer.before(i) == static_cast<int>(s) ||
                        sheet == last)
                        continue;
                    for (const Roads::Road& road : roads_.of(state, s))
                        next.add(road.to, s, layer.cost(i) + road.cost - prices_[s], sheet,
                                 static_cast<std::uint32_t>(i));
                    if (std::exchange(last, sheet) >= 0) break;
                }
            }
        }
    }

    const Roads& roads_;
    std::vector<Reach> layers_;
    std::vector<double> prices_; ///< milliseconds
    std::vector<int> visits_;    ///< of each sheet, by the cheapest walk
    std::vector<std::size_t> there_;
};

/// Orders built sheet by sheet, led by what walks would still take.
class Search {
  public:
    /// `behind`: of each sheet the one before it that is just like it, which runs first, or itself.
    Search(const Roads& roads, std::vector<double> prices, std::vector<std::size_t> behind,
           const std::function<bool(std::size_t, int)>& may_run)
        : roads_(roads)
        , prices_(std::move(prices))
        , behind_(std::move(behind))
        , may_run_(may_run)
        , ahead_(roads.sheets() + 1, std::vector<Ahead>(roads.states())) {
        for (std::size_t left = 1; left <= roads_.sheets(); ++left)
            for (std::size_t state = 0; state < roads_.states(); ++state)
                ahead_[left][state] = look_ahead(left, state);
    }

    /// `least`, `known`: milliseconds.
    OrderWalk better(std::int64_t least, std::int64_t known, const Progress& progress) const;

  private:
    using Sheets = std::bitset<most_sheets>;
    /// What walks of so many sheets take from a state at least, prices given back: with any first sheet, and
    /// with another one than that.
    struct Ahead {
        double best = 0, second = 0;
        std::size_t sheet = most_sheets;
    };
    struct Order {
        Sheets done;           ///< of those that go on
        std::uint64_t key = 0; ///< of what is done and the state
        std::size_t state = 0;
        double cost = 0, promise = 0; ///< promise: with the least that is still to come
        int stops = 0;                ///< of orders that cost the same, fewer are better
        std::size_t from = 0, sheet = 0, way = 0;
    };

    Ahead look_ahead(std::size_t left, std::size_t state) const {
        Ahead out{no_way, no_way, most_sheets};
        for (std::size_t s = 0; s < roads_.sheets(); ++s) {
            double least = no_way;
            for (const Roads::Road& road : roads_.of(state, s)) {
                const Ahead& then = ahead_[left - 1][road.to];
                least = std::min(least, road.cost - prices_[s] + (then.sheet == s ? then.second : then.best));
            }
            if (least < out.best) {
                out = {least, out.best, s};
            } else {
                out.second = std::min(out.second, least);
            }
        }
        return out;
    }

    const Roads& roads_;
    std::vector<double> prices_;
    std::vector<std::size_t> behind_;
    const std::function<bool(std::size_t, int)>& may_run_;
    std::vector<std::vector<Ahead>> ahead_; ///< by how many sheets are left, then by state
};

OrderWalk Search::better(std::int64_t least, std::int64_t known, const Progress& progress) const {
    const std::size_t n = roads_.sheets();
    const double most = static_cast<double>(known - roads_.grain()) + 1e-3; // what is better takes no more
    std::mt19937_64 engine(n);                                              // always the same
    std::vector<std::uint64_t> sheet_keys(n), state_keys(roads_.states());
    for (auto* keys : {&sheet_keys, &state_keys})
        std::generate(keys->begin(), keys->end(), std::ref(engine));
    std::vector<std::vector<Order>> layers(n + 1);
    layers[0].push_back({{}, state_keys[0], 0, 0, 0, 0, 0, 0, 0});
    // Of each that goes on, half of all sheets are still to come, on average.
    const auto searched =
        static_cast<std::size_t>(most_searched) * 2 * roads_.states() / (n * roads_.count());
    const std::size_t going_on = std::max(least_going_on, std::min(searched, most_orders / n));
    bool all = true;
    OrderWalk out{least, {}, 0};
    for (std::size_t count = 0; count < n; ++count) {
        if (progress.cancelled()) return {};
        std::vector<Order>& next = layers[count + 1];
        double worst = most; // promise of those that go on
        const auto thin_out = [&] {
            std::sort(next.begin(), next.end(), [](const Order& a, const Order& b) {
                return std::tie(a.key, a.cost, a.stops, a.from, a.way) <
                       std::tie(b.key, b.cost, b.stops, b.from, b.way);
            });
            next.erase(std::unique(next.begin(), next.end(),
                                   [](const Order& a, const Order& b) { return a.key == b.key; }),
                       next.end());
            if (next.size() <= going_on) return;
            all = false;
            std::sort(next.begin(), next.end(), [](const Order& a, const Order& b) {
                return std::tie(a.promise, a.stops, a.key) < std::tie(b.promise, b.stops, b.key);
            });
            next.resize(going_on);
            worst = next.back().promise;
        };
        for (std::size_t from = 0; from < layers[count].size(); ++from) {
            const Order& order = layers[count][from];
            double left = 0; // prices of what has not run
            for (std::size_t s = 0; s < n; ++s)
                left += order.done[s] ? 0 : prices_[s];
            for (std::size_t s = 0; s < n; ++s) {
                if (order.done[s] || !may_run_(s, static_cast<int>(count) + 1)) continue;
                if (behind_[s] != s && !order.done[behind_[s]]) continue;
                const std::uint64_t key = order.key ^ state_keys[order.state] ^ sheet_keys[s];
                std::size_t way = 0;
                for (const Roads::Road& road : roads_.of(order.state, s)) {
                    const Ahead& then = ahead_[n - count - 1][road.to];
                    const bool any = count + 1 == n || (!order.done[then.sheet] && then.sheet != s);
                    const double cost = order.cost + road.cost,
                                 promise = cost + left - prices_[s] + (any ? then.best : then.second);
                    if (promise <= worst)
                        next.push_back({{},
                                        key ^ state_keys[road.to],
                                        road.to,
                                        cost,
                                        promise,
                                        order.stops + road.stops,
                                        from,
                                        s,
                                        way});
                    ++way;
                }
            }
            if (next.size() > 4 * going_on) thin_out();
        }
        thin_out();
        for (Order& order : next) {
            order.done = layers[count][order.from].done;
            order.done.set(order.sheet);
        }
    }
    if (!layers[n].empty()) {
        const auto best =
            std::min_element(layers[n].begin(), layers[n].end(), [](const Order& a, const Order& b) {
                return std::tie(a.cost, a.stops, a.key) < std::tie(b.cost, b.stops, b.key);
            });
        out.hands = static_cast<std::int64_t>(best->cost);
        std::size_t at = static_cast<std::size_t>(best - layers[n].begin());
        for (std::size_t count = n; count > 0; --count) {
            const Order& order = layers[count][at];
            out.better.push_back({order.sheet, roads_.holds(layers[count - 1][order.from].state), order.way});
            at = order.from;
        }
        std::reverse(out.better.begin(), out.better.end());
    }
    if (all) out.least = out.better.empty() ? known : out.hands;
    return out;
}

} // namespace

OrderWalk walk_orders(const Job& job, SheetWays& ways, std::int64_t known,
                      const std::function<bool(std::size_t, int)>& may_run, const Progress& progress) {
    const auto roads = Roads::of(job, ways);
    if (!roads || roads->sheets() < 2) return {};
    const auto grain = static_cast<double>(roads->grain());
    const auto whole = [grain](double cost) { return grain * std::ceil((cost - 1e-3) / grain); };
    constexpr int most_rounds = 60, most_in_vain = 10;
    const auto a_round = static_cast<std::int64_t>(2 * roads->count() * roads->sheets());
    Walks walks(*roads);
    double best = 0, step = 0.5;
    std::vector<double> prices;
    int in_vain = 0;
    for (int round = 0; round < most_rounds && (round + 1) * a_round <= most_walked; ++round) {
        const auto bound = walks.cheapest(progress);
        if (!bound) return {};
        if (*bound > best + 1) {
            best = *bound, prices = walks.prices(), in_vain = 0;
        } else if (++in_vain % 4 == 0) {
            step /= 2;
        }
        if (whole(best) >= static_cast<double>(known) || in_vain == most_in_vain) break;
        if (!walks.move_prices(step * (static_cast<double>(known) - *bound))) break;
    }
    OrderWalk out;
    out.least = std::min(known, static_cast<std::int64_t>(whole(best)));
    if (prices.empty() || out.least == known || roads->sheets() > most_sheets) return out;
    std::vector<std::size_t> behind(roads->sheets());
    for (std::size_t s = 0; s < behind.size(); ++s) {
        std::size_t like = s;
        while (like-- > 0)
            if (job.sheets[s].place == 0 && job.sheets[like].place == 0 && roads->same(s, like)) break;
        behind[s] = like < s ? like : s;
    }
    Search search(*roads, std::move(prices), std::move(behind), may_run);
    return search.better(out.least, known, progress);
}

} // namespace dotlane
