// The ways over one sheet of a job: which of its passes run together, which tool sits where meanwhile, and
// what the slots hold at the end. Internal to plan; see sequence.h.
//
// Slots that take the same tools are alike: what they hold between them counts, not which holds which, so it
// stands in a fixed order here. Which slot it is in truth is told at the end (`stood`).
#pragma once

#include <algorithm>
#include <map>
#include <optional>
#include <unordered_map>

#include "core/plan/sequence.h"

namespace dotlane {

using Holds = std::uint32_t;    ///< what the slots hold, eight bits each: tool + 1; 0: empty
using PassMask = std::uint32_t; ///< passes of a sheet, a bit each
inline constexpr std::size_t all_ways = 1 << 30;

struct SequenceCost {
    std::int64_t hands = 0; ///< milliseconds, so that sums are the same in any order
    int stops = 0, turned = 0;
    auto operator<=>(const SequenceCost&) const = default;
    SequenceCost operator+(const SequenceCost& o) const {
        return {hands + o.hands, stops + o.stops, turned + o.turned};
    }
};

inline Holds held(Holds holds, std::size_t slot) {
    return holds >> (8 * slot) & 0xffU;
}
inline Holds with(Holds holds, std::size_t slot, Holds tool) {
    return (holds & ~(Holds{0xff} << (8 * slot))) | tool << (8 * slot);
}

struct SheetWay {
    std::size_t sheet = 0;
    Holds holds = 0; ///< at the end
    SequenceCost cost;
    std::vector<std::pair<PassMask, Holds>> stretches;
};

class SheetWays {
  public:
    SheetWays(const Job& job, Progress& progress);
    /// From now on `most` states go on from each set of passes: of fewer than `all_ways` the cheapest. No
    /// more seatings than `most_work` are weighed: it is the same on every machine.
    void keep(std::size_t most, std::int64_t most_work) {
        most_ = most, most_work_ = most_work, work_ = 0;
        ways_.clear();
    }
    /// Cancelled, or more would have to be weighed than may: what was found since is of no use.
    bool stopped() const { return progress_.cancelled() || work_ > most_work_; }
    std::int64_t work() const { return work_; } ///< seatings that were weighed

    std::size_t slots() const { return slots_; }
    std::int64_t swap() const { return swap_; } ///< milliseconds for a tool put in
    /// All that slots may hold can be gone through.
    bool few_slots() const { return slots_ <= 2; }

    /// From what the slots hold; the cheapest first. Kept.
    const std::vector<SheetWay>& ways(std::size_t sheet, Holds in);
    /// What the slots hold at the end of a way that began with `in`.
    Holds after(const SheetWay& way, Holds in) const { return told(way, way.holds, in); }
    /// The same after one stretch of it: `at` as the way says.
    Holds told(const SheetWay& way, Holds at, Holds in) const;
    /// Which slot holds what then: of alike ones, those with what goes, or else the first that is not needed,
    /// take what comes. `told`: of this stretch, `told_before`: of the one before, `before`: how they stood
    /// in truth.
    Holds stood(Holds told, Holds told_before, Holds before) const;
    /// With what alike slots hold in order.
    Holds ordered(Holds holds) const;
    /// What a sheet costs at least, whatever the slots hold before it.
    SequenceCost least_of(std::size_t sheet) const;
    /// A bound of it that is quick to have; without `swaps`: of all but the tools put in.
    SequenceCost least_around(std::size_t sheet, bool swaps) const;
    int least_stops(std::size_t sheet) const;
    /// Takes out states that are no better than going to another one's slots by hand.
    template<class States>
    void thin_out(States& states) const;

  private:
    /// Where tools that sit at the same time may sit: bits of the slots that they take, and what those hold
    /// then.
    struct Places {
        Holds over = 0, set = 0;
    };
    struct PassesTogether {
        PassMask mask = 0, needs = 0; ///< `needs`: others that must have run before
        std::int64_t hands = 0;
        std::vector<Holds> tools; ///< as they stand in a slot, each once
        std::vector<Places> places;
        bool uses(int tool) const {
            return std::find(tools.begin(), tools.end(), static_cast<Holds>(tool + 1)) != tools.end();
        }
    };
    struct Reached {
        Holds holds = 0;
        SequenceCost cost;
        PassMask from = 0;
        Holds before = 0;
    };
    /// One for each that slots may hold: the cheapest, of equal ones the first that was found.
    class Seatings {
      public:
        void add(const Reached& state) {
            if (2 * all.size() >= table_.size()) grow();
            std::uint32_t& known = find(state.holds);
            if (known == 0) {
                all.push_back(state);
                known = static_cast<std::uint32_t>(all.size());
            } else if (state.cost < all[known - 1].cost) {
                all[known - 1] = state;
            }
        }
        /// No more are added.
        void close() { table_ = {}; }
        std::vector<Reached> all;

      private:
        std::uint32_t& find(Holds holds) {
            for (std::size_t k = holds * 0x9e3779b1U;; ++k)
                if (std::uint32_t& number = table_[k & (table_.size() - 1)];
                    number == 0 || all[number - 1].holds == holds)
                    return number;
        }
        void grow() {
            table_.assign(std::max<std::size_t>(64, 2 * table_.size()), 0);
            for (std::uint32_t i = 0; i < all.size(); ++i)
                find(all[i].holds) = i + 1;
        }
        std::vector<std::uint32_t> table_; ///< index into `all`, from 1, by what slots hold; a power of two
    };
    bool alike(std::size_t a, std::size_t b) const { return alike_[a] == alike_[b]; }
    bool uses(std::size_t sheet, Holds tool) const;
    std::optional<PassesTogether> together(std::size_t sheet, PassMask mask) const;
    const std::vector<PassesTogether>& all_together(std::size_t sheet) const;
    std::vector<Places> places_of(const std::vector<Holds>& tools) const;
    template<class Each>
    void seat(const PassesTogether& passes, Holds holds, bool stay, Each each) const;
    /// Of states, the cheapest first, which ones are no better than going to another one's slots by hand.
    std::vector<char> beaten(const std::vector<std::pair<SequenceCost, Holds>>& by_cost) const;
    void thin_out_sorted(std::vector<Reached>& states, std::size_t most) const;
    std::vector<SheetWay> find_ways(std::size_t sheet, Holds in, std::size_t most) const;
    SequenceCost least_over(std::size_t sheet, bool hands_count) const;
    std::int64_t around(std::size_t sheet, PassMask passes) const;
    SequenceCost loading(Holds from, Holds to) const;

    const Job& job_;
    Progress& progress_;
    mutable std::int64_t work_ = 0;
    std::int64_t most_work_ = 0;
    std::size_t slots_;
    std::vector<std::size_t> alike_; ///< of each slot: the first that takes the same tools
    std::int64_t swap_;
    std::size_t most_ = all_ways;
    std::map<std::pair<std::size_t, Holds>, std::vector<SheetWay>> ways_;
    mutable std::vector<std::unordered_map<PassMask, std::int64_t>> around_;
    mutable std::vector<std::optional<SequenceCost>> least_; ///< of each sheet, when it has been asked for
    mutable std::vector<std::vector<PassesTogether>>
        together_; ///< of each sheet, when they have been asked for
};

template<class States>
void SheetWays::thin_out(States& states) const {
    std::vector<std::pair<SequenceCost, Holds>> by_cost;
    for (const auto& [holds, node] : states)
        by_cost.emplace_back(node.cost, holds);
    std::sort(by_cost.begin(), by_cost.end());
    const std::vector<char> out = beaten(by_cost);
    for (std::size_t i = 0; i < by_cost.size(); ++i)
        if (out[i]) states.erase(by_cost[i].second);
}

} // namespace dotlane
