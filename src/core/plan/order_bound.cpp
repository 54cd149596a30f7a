#include "core/plan/order_bound.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <optional>
#include <unordered_map>
#include <vector>

namespace dotlane {
namespace {

/// Of seatings, of ways between states, of places in all layers, and of ways that walks try in all rounds.
constexpr std::int64_t most_seatings = 25'000'000, most_tried = 80'000'000;
constexpr std::size_t most_arcs = 250'000, most_labels = 5'000'000;
constexpr double none = std::numeric_limits<double>::infinity();

/// All that the slots may hold between sheets, and how each sheet leads from one to another.
class Roads {
  public:
    struct Road {
        std::uint32_t to = 0;
        double cost = 0; ///< milliseconds
    };
    struct Some {
        const Road *first = nullptr, *last = nullptr;
        const Road* begin() const { return first; }
        const Road* end() const { return last; }
    };

    /// None when there are too many.
    static std::optional<Roads> of(const Job& job, SheetWays& ways);
    std::size_t sheets() const { return sheets_; }
    std::size_t states() const { return (begins_.size() - 1) / sheets_; } ///< 0: as the job begins
    std::size_t count() const { return roads_.size(); }
    Some of(std::size_t state, std::size_t sheet) const {
        const std::size_t at = state * sheets_ + sheet;
        return {roads_.data() + begins_[at], roads_.data() + begins_[at + 1]};
    }

  private:
    std::size_t sheets_ = 0;
    std::vector<Road> roads_;
    std::vector<std::size_t> begins_{0}; ///< by state, then by sheet
};

std::optional<Roads> Roads::of(const Job& job, SheetWays& ways) {
    Roads out;
    out.sheets_ = job.sheets.size();
    std::vector<Holds> states{0};
    std::unordered_map<Holds, std::uint32_t> numbers{{0, 0}};
    ways.keep(all_ways, most_seatings);
    for (std::size_t from = 0; from < states.size(); ++from)
        for (std::size_t s = 0; s < out.sheets_; ++s) {
            for (const SheetWay& way : ways.ways(s, states[from])) {
                const Holds then = ways.after(way, states[from]);
                const auto [it, fresh] = numbers.try_emplace(then, static_cast<std::uint32_t>(states.size()));
                if (fresh) states.push_back(then);
                out.roads_.push_back({it->second, static_cast<double>(way.cost.hands)});
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
class Layer {
  public:
    Layer(std::size_t states, std::size_t sheets)
        : costs_(2 * states * sheets, none)
        , befores_(costs_.size())
        , from_(costs_.size())
        , sheets_(sheets) {}

    void clear() { std::fill(costs_.begin(), costs_.end(), none); }
    void add(std::size_t state, std::size_t sheet, double cost, int before, std::uint32_t from) {
        const std::size_t first = 2 * (state * sheets_ + sheet), second = first + 1;
        if (cost >= costs_[second] && cost >= costs_[first]) return;
        if (costs_[first] < none && befores_[first] == before) {
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

class Walks {
  public:
    explicit Walks(const Roads& roads)
        : roads_(roads)
        , layers_(roads.sheets() + 1, Layer(roads.states(), roads.sheets()))
        , prices_(roads.sheets(), none)
        , visits_(roads.sheets()) {
        for (std::size_t s = 0; s < roads_.sheets(); ++s)
            for (std::size_t state = 0; state < roads_.states(); ++state)
                for (const Roads::Road& road : roads_.of(state, s))
                    prices_[s] = std::min(prices_[s], road.cost);
    }

    /// The cheapest walk with the prices as they are, and their sum. None when cancelled.
    std::optional<double> cheapest(const Progress& progress) {
        for (Layer& layer : layers_)
            layer.clear();
        for (std::size_t s = 0; s < roads_.sheets(); ++s)
            for (const Roads::Road& road : roads_.of(0, s))
                layers_[1].add(road.to, s, road.cost - prices_[s], -1, 0);
        for (std::size_t count = 1; count < roads_.sheets(); ++count) {
            if (progress.cancelled()) return std::nullopt;
            go_on(layers_[count], layers_[count + 1]);
        }
        const Layer& last = layers_.back();
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
    void go_on(const Layer& layer, Layer& next) {
        const std::size_t n = roads_.sheets();
        for (std::size_t state = 0; state < roads_.states(); ++state) {
            there_.clear();
            for (std::size_t i = 2 * state * n; i < 2 * (state + 1) * n; ++i)
                if (layer.cost(i) < none) there_.push_back(i);
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
    std::vector<Layer> layers_;
    std::vector<double> prices_; ///< milliseconds
    std::vector<int> visits_;    ///< of each sheet, by the cheapest walk
    std::vector<std::size_t> there_;
};

} // namespace

std::int64_t order_bound(const Job& job, SheetWays& ways, std::int64_t known, const Progress& progress) {
    const auto roads = Roads::of(job, ways);
    if (!roads || roads->sheets() < 2) return 0;
    constexpr int most_rounds = 60, most_in_vain = 10;
    const auto a_round = static_cast<std::int64_t>(2 * roads->count() * roads->sheets());
    Walks walks(*roads);
    double best = 0, step = 0.5;
    int in_vain = 0;
    for (int round = 0; round < most_rounds && (round + 1) * a_round <= most_tried; ++round) {
        const auto bound = walks.cheapest(progress);
        if (!bound) return 0;
        if (*bound > best + 1) {
            best = *bound, in_vain = 0;
        } else if (++in_vain % 4 == 0) {
            step /= 2;
        }
        // All costs are whole milliseconds, so what is found can be rounded up, but for what sums lose.
        if (best > static_cast<double>(known) - 1 || in_vain == most_in_vain) break;
        if (!walks.move_prices(step * (static_cast<double>(known) - *bound))) break;
    }
    return std::min(known, static_cast<std::int64_t>(std::ceil(best - 1e-3)));
}

} // namespace dotlane
