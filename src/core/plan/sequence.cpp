#include "core/plan/sequence.h"

#include <algorithm>
#include <bit>
#include <bitset>
#include <cmath>
#include <limits>
#include <optional>
#include <random>
#include <set>
#include <tuple>

#include "core/plan/order_walks.h"
#include "core/plan/sheet_ways.h"

namespace dotlane {
namespace {

constexpr std::size_t beam_before_exact = 100; ///< finds what most jobs' least order is, or nearly
/// Of seatings and ways, before an exact search is given up: a tenth of a microsecond each, or less.
constexpr std::int64_t weighed_at_first = 3'000'000, weighed_at_best = 150'000'000;

class Solver {
  public:
    Solver(const Job& job, Progress& progress)
        : job_(job)
        , progress_(progress)
        , ways_(job, progress)
        , slots_(ways_.slots()) {}

    Result<Sequence> solve(Effort effort);

  private:
    struct Node {
        SequenceCost cost;
        std::size_t sheet = 0, way = 0;
        Holds before = 0;
    };
    using Reached = std::unordered_map<Holds, Node>;

    /// Whether the sheet may be the so-manieth, and no other one must.
    bool may_run(std::size_t sheet, int place) const {
        const int wanted = job_.sheets[sheet].place;
        return wanted != 0 ? wanted == place : !taken_.contains(place);
    }
    /// Of a sheet, from what the slots hold, that are gone on from.
    std::size_t ways_in_beam(Effort effort) const {
        // With few slots so many lose nothing that was seen on random jobs, and take half the time of all.
        if (effort == Effort::first) return ways_.few_slots() ? 24 : 4;
        return ways_.few_slots() ? all_ways : 12;
    }
    std::size_t states_in_beam(Effort effort) const {
        return ways_.few_slots() ? (effort == Effort::first ? 14 : 300) : effort == Effort::first ? 10 : 100;
    }
    /// What a sheet takes at least: in many slots by what is quick to have.
    SequenceCost alone(std::size_t sheet) const {
        return ways_.few_slots() ? ways_.least_of(sheet) : ways_.least_around(sheet, true);
    }
    enum class Exact { solved, given_up, cancelled };
    /// Given up when more than `most_work` would have to be weighed.
    Exact exact(Sequence& out, std::int64_t most_work);
    bool by_beam(Sequence& out, std::size_t most, SequenceCost* taken = nullptr);
    /// The sheets as they are run, each with what the slots hold before it.
    using Run = std::vector<std::pair<const SheetWay*, Holds>>;
    void put(Sequence& out, const Run& run) const;
    /// Milliseconds that no order takes less than; `out` becomes a better one when it is found on the way.
    std::int64_t bound(Sequence& out, Effort effort);

    const Job& job_;
    Progress& progress_;
    SheetWays ways_;
    std::size_t slots_;
    std::set<int> taken_; ///< places that sheets must have
};

Solver::Exact Solver::exact(Sequence& out, std::int64_t most_work) {
    const std::size_t n = job_.sheets.size(), sets = std::size_t{1} << n;
    std::vector<Reached> reached(sets);
    // What no later sheet needs counts as nothing: it may sit where it is, or go. And what is dearer than an
    // order that is known, with the least that must still come, leads nowhere.
    Sequence known;
    SequenceCost most;
    ways_.keep(all_ways, most_work);
    const auto given_up = [&] { return progress_.cancelled() ? Exact::cancelled : Exact::given_up; };
    if (!by_beam(known, beam_before_exact, &most)) return given_up();
    std::vector<std::int64_t> around(sets), whole(sets); // at least, of the sheets that are left
    std::vector<std::bitset<256>> wanted(sets);          // tools of theirs
    std::vector<std::int64_t> tools(sets);               // how many
    std::vector<int> stops(sets);                        // of the sheets that are left, at least
    for (std::size_t s = 0; s < n; ++s) {
        const std::int64_t still = ways_.least_around(s, false).hands, alone = ways_.least_of(s).hands;
        const int halts = ways_.least_stops(s);
        for (std::size_t set = 0; set < sets; ++set) {
            if (set >> s & 1U) continue;
            around[set] += still, whole[set] += alone, stops[set] += halts;
            for (const JobPass& pass : job_.sheets[s].passes)
                wanted[set].set(static_cast<std::size_t>(pass.tool) + 1);
        }
    }
    for (std::size_t set = 0; set < sets; ++set)
        tools[set] = static_cast<std::int64_t>(wanted[set].count());
    if (ways_.stopped()) return given_up();
    reached[0][0] = {};
    std::int64_t tried = 0;
    for (std::size_t set = 0; set + 1 < sets; ++set) {
        if (ways_.stopped() || tried + ways_.work() > most_work) return given_up();
        ways_.thin_out(reached[set]);
        for (const auto& [holds, node] : reached[set])
            for (std::size_t s = 0; s < n; ++s) {
                if (set >> s & 1U || !may_run(s, std::popcount(set) + 1)) continue;
                const int turned = std::popcount(~set & (sets - 1) & ((std::size_t{1} << s) - 1));
                const std::size_t then = set | std::size_t{1} << s;
                const std::int64_t room = most.hands - node.cost.hands,
                                   least = std::max(around[then], whole[then]);
                const std::vector<SheetWay>& all = ways_.ways(s, holds);
                for (std::size_t w = 0; w < all.size() && all[w].cost.hands + least <= room; ++w) {
                    ++tried;
                    Holds kept = ways_.after(all[w], holds);
                    std::int64_t missing = tools[then];
                    for (std::size_t slot = 0; slot < slots_; ++slot)
                        if (wanted[then].test(held(kept, slot)))
                            --missing;
                        else
                            kept = with(kept, slot, 0);
                    kept = ways_.ordered(kept);
                    const SequenceCost cost = node.cost + all[w].cost + SequenceCost{0, 0, turned};
                    const SequenceCost ahead{std::max(around[then] + missing * ways_.swap(), whole[then]),
                                             stops[then], 0};
                    if (most < cost + ahead) continue;
                    const auto [it, fresh] = reached[then].try_emplace(kept, Node{cost, s, w, holds});
                    Node& there = it->second;
                    // Of equal ones always the same, in whichever order a map gives them.
                    if (!fresh && std::tie(cost, s, holds) < std::tie(there.cost, there.sheet, there.before))
                        there = {cost, s, w, holds};
                }
            }
    }
    const Reached& last = reached[sets - 1];
    const auto best = std::min_element(last.begin(), last.end(), [](const auto& a, const auto& b) {
        return std::tie(a.second.cost, a.first) < std::tie(b.second.cost, b.first);
    });
    Run run;
    Holds holds = best->first;
    for (std::size_t set = sets - 1; set != 0;) {
        const Node& node = reached[set].at(holds);
        run.emplace_back(&ways_.ways(node.sheet, node.before)[node.way], node.before);
        set &= ~(std::size_t{1} << node.sheet);
        holds = node.before;
    }
    std::reverse(run.begin(), run.end());
    put(out, run);
    return Exact::solved;
}

/// With many sheets: of the states with as many sheets run, the most promising go on.
bool Solver::by_beam(Sequence& out, std::size_t most, SequenceCost* taken) {
    struct State {
        std::vector<bool> done;
        std::uint64_t key = 0; ///< of what is done
        Holds holds = 0;
        SequenceCost cost;
        SequenceCost ahead; ///< at least, of what is left
        std::size_t before = 0, sheet = 0;
        const SheetWay* way = nullptr;
    };
    const std::size_t n = job_.sheets.size();
    std::vector<SequenceCost> least(n);
    std::vector<std::uint64_t> keys(n);
    std::mt19937_64 engine(n); // always the same
    SequenceCost all;
    for (std::size_t s = 0; s < n; ++s)
        all = all + (least[s] = alone(s)), keys[s] = engine();
    std::vector<std::vector<State>> layers(n + 1);
    layers[0].push_back({std::vector<bool>(n), 0, 0, {}, all, 0, 0, nullptr});
    const auto promise = [](const State& a) { return a.cost + a.ahead; };
    const auto better = [&](const State& a, const State& b) {
        return std::tuple(promise(a), a.key, a.holds) < std::tuple(promise(b), b.key, b.holds);
    };
    const auto same = [](const State& a, const State& b) { return a.key == b.key && a.holds == b.holds; };
    for (std::size_t count = 0; count < n; ++count) {
        if (ways_.stopped() || layers[count].empty()) return false;
        // Without what is done: of few it is wanted. Those that cannot be among the `most` are not kept.
        std::vector<State>& layer = layers[count + 1];
        std::optional<State> usual; // the usual order goes on beside them, as it may end as well
        std::optional<SequenceCost> worst;
        const auto thin_out = [&] {
            std::stable_sort(layer.begin(), layer.end(), [](const State& a, const State& b) {
                return std::tie(a.key, a.holds, a.cost) < std::tie(b.key, b.holds, b.cost);
            });
            layer.erase(std::unique(layer.begin(), layer.end(), same), layer.end());
            std::sort(layer.begin(), layer.end(), better);
            if (layer.size() < most) return;
            layer.resize(most);
            worst = promise(layer.back());
        };
        for (std::size_t from = 0; from < layers[count].size(); ++from) {
            const State& state = layers[count][from];
            int turned = 0; // sheets that come later though they stand before
            for (std::size_t s = 0; s < n; ++s) {
                if (state.done[s]) continue;
                if (may_run(s, static_cast<int>(count) + 1)) {
                    const SequenceCost ahead{state.ahead.hands - least[s].hands,
                                             state.ahead.stops - least[s].stops, 0};
                    for (const SheetWay& way : ways_.ways(s, state.holds)) {
                        const SequenceCost cost = state.cost + way.cost + SequenceCost{0, 0, turned};
                        const bool straight =
                            !usual || std::tie(cost.turned, cost) < std::tie(usual->cost.turned, usual->cost);
                        if (!straight && worst && *worst < cost + ahead) continue;
                        const State then{
                            {},  state.key ^ keys[s], ways_.after(way, state.holds), cost, ahead, from, s,
                            &way};
                        if (straight) usual = then;
                        if (!worst || !(*worst < cost + ahead)) layer.push_back(then);
                    }
                    if (layer.size() > 4 * most + 1024) thin_out();
                }
                ++turned;
            }
        }
        thin_out();
        if (layer.size() == most &&
            std::none_of(layer.begin(), layer.end(), [&](const State& a) { return same(a, *usual); }))
            layer[most - 1] = *usual;
        for (State& state : layer) {
            state.done = layers[count][state.before].done;
            state.done[state.sheet] = true;
        }
    }
    if (ways_.stopped() || layers[n].empty()) return false;
    Run run;
    std::size_t at = 0;
    if (taken) *taken = layers[n].front().cost;
    for (std::size_t count = n; count > 0; --count) {
        const State& state = layers[count][at];
        run.emplace_back(state.way, layers[count - 1][state.before].holds);
        at = state.before;
    }
    std::reverse(run.begin(), run.end());
    put(out, run);
    return true;
}

void Solver::put(Sequence& out, const Run& run) const {
    SequenceCost cost;
    Holds now = 0;
    for (const auto& [way, in] : run) {
        cost = cost + way->cost;
        Holds before = in;
        for (const auto& [mask, holds] : way->stretches) {
            Stretch stretch{way->sheet, {}, {}};
            for (std::size_t p = 0; p < job_.sheets[way->sheet].passes.size(); ++p)
                if (mask >> p & 1U) stretch.passes.push_back(p);
            const Holds told = ways_.told(*way, holds, in);
            now = ways_.stood(told, before, now);
            before = told;
            for (std::size_t s = 0; s < slots_; ++s)
                stretch.holds.push_back(static_cast<int>(held(now, s)) - 1);
            out.stretches.push_back(std::move(stretch));
        }
    }
    out.hands = static_cast<double>(cost.hands) / 1000;
    out.stops = cost.stops;
}

/// Each sheet by itself with all slots as it wishes them, or each tool put in once; or, where that leaves
/// much open and there is time for it, walks over all sheets.
std::int64_t Solver::bound(Sequence& out, Effort effort) {
    const std::int64_t hands = std::llround(out.hands * 1000);
    std::set<int> used;
    std::int64_t least = 0, around = 0;
    for (std::size_t s = 0; s < job_.sheets.size(); ++s) {
        least += alone(s).hands;
        around += ways_.least_around(s, false).hands;
        for (const JobPass& pass : job_.sheets[s].passes)
            used.insert(pass.tool);
    }
    least = std::max(least + ways_.swap(), around + std::ssize(used) * ways_.swap()); // the first is put in
    if (least >= hands) return hands;
    if (effort == Effort::first) return least;
    const OrderWalk walk = walk_orders(
        job_, ways_, hands, [this](std::size_t sheet, int place) { return may_run(sheet, place); },
        progress_);
    if (walk.better.empty()) return std::max(least, walk.least);
    Run run;
    for (const OrderWalk::Step& step : walk.better)
        run.emplace_back(&ways_.ways(step.sheet, step.before)[step.way], step.before);
    out = {};
    put(out, run);
    return std::max(least, walk.least);
}

Result<Sequence> Solver::solve(Effort effort) {
    Sequence out;
    if (job_.sheets.empty()) return out;
    for (const JobSheet& sheet : job_.sheets)
        for (const JobPass& pass : sheet.passes) {
            const auto& row = job_.fits[static_cast<std::size_t>(pass.tool)];
            if (std::find(row.begin(), row.end(), true) == row.end())
                return fail("plan.no-slot", say("A tool fits into no slot of this machine."));
        }
    for (const JobSheet& sheet : job_.sheets)
        if (sheet.place != 0 &&
            (sheet.place < 0 || sheet.place > std::ssize(job_.sheets) || !taken_.insert(sheet.place).second))
            return fail("plan.places", say("Two sheets cannot run in the same place."));
    Exact solved = Exact::given_up;
    if (job_.sheets.size() <= exact_sheets)
        solved = exact(out, effort == Effort::first ? weighed_at_first : weighed_at_best);
    if (solved == Exact::given_up) {
        ways_.keep(ways_in_beam(effort), std::numeric_limits<std::int64_t>::max());
        if (!by_beam(out, states_in_beam(effort))) solved = Exact::cancelled;
    }
    if (solved == Exact::cancelled) return fail("cancelled", say("Planning was cancelled."));
    const bool all_orders = std::all_of(job_.sheets.begin(), job_.sheets.end(), [](const JobSheet& sheet) {
        return sheet.passes.size() <= exact_passes;
    });
    out.least = out.hands;
    if (solved != Exact::solved || !all_orders) out.least = static_cast<double>(bound(out, effort)) / 1000;
    if (progress_.cancelled()) return fail("cancelled", say("Planning was cancelled."));
    out.proven = all_orders && out.least == out.hands;
    return out;
}

} // namespace

Result<Sequence> least_hands(const Job& job, Progress& progress, Effort effort) {
    return Solver(job, progress).solve(effort);
}

} // namespace dotlane
