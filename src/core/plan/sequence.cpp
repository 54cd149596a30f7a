#include "core/plan/sequence.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <map>
#include <optional>
#include <set>
#include <unordered_map>

namespace dotlane {
namespace {

using Holds = std::uint32_t;   ///< eight bits a slot: tool + 1, 0: empty, or `other`
constexpr Holds wished = 0xfe; ///< whatever is needed first
constexpr Holds other = 0xff;  ///< what sat there before, and is not of the sheet that runs
using Mask = std::uint32_t;

struct Cost {
    std::int64_t hands = 0; ///< milliseconds, so that sums are the same in any order
    int stops = 0, turned = 0;
    auto operator<=>(const Cost&) const = default;
    Cost operator+(const Cost& o) const { return {hands + o.hands, stops + o.stops, turned + o.turned}; }
};

Holds held(Holds holds, std::size_t slot) {
    return holds >> (8 * slot) & 0xffU;
}
Holds with(Holds holds, std::size_t slot, Holds tool) {
    return (holds & ~(Holds{0xff} << (8 * slot))) | tool << (8 * slot);
}

struct Way {
    Holds holds = 0; ///< at the end
    Cost cost;
    std::vector<std::pair<Mask, Holds>> stretches;
};

class Solver {
  public:
    Solver(const Job& job, Progress& progress)
        : job_(job)
        , progress_(progress)
        , slots_(job.fits.empty() ? 0 : job.fits.front().size()) {}

    Result<Sequence> solve();

  private:
    struct Node {
        Cost cost;
        std::size_t sheet = 0, way = 0;
        Holds before = 0;
    };
    using Reached = std::unordered_map<Holds, Node>;

    std::vector<std::pair<Holds, int>> seatings(Holds holds, const std::vector<int>& tools) const;
    const std::vector<Way>& ways(std::size_t sheet, Holds in);
    Holds after(const Way& way, Holds in) const;
    std::vector<Way> find_ways(std::size_t sheet, Holds in) const;
    std::int64_t around(std::size_t sheet, Mask passes) const;
    /// Takes out states that are no better than going to another one's slots by hand.
    template<class States>
    void thin_out(States& states) const;
    Cost loading(Holds from, Holds to) const;
    Cost least_of(std::size_t sheet) const;
    bool exact(Sequence& out);
    bool by_beam(Sequence& out);
    void put(Sequence& out, std::vector<std::pair<std::size_t, const Way*>> run) const;

    const Job& job_;
    Progress& progress_;
    std::size_t slots_;
    std::map<std::pair<std::size_t, Holds>, std::vector<Way>> ways_;
    mutable std::vector<std::unordered_map<Mask, std::int64_t>> around_;
};

/// What a state costs that has at hand what the other one has, tool by tool as each is needed.
Cost Solver::loading(Holds from, Holds to) const {
    std::int64_t swaps = 0;
    for (std::size_t s = 0; s < slots_; ++s)
        swaps += held(to, s) != 0 && held(from, s) != wished && held(to, s) != held(from, s) ? 1 : 0;
    return {swaps * std::llround(job_.swap * 1000), 0, 0};
}

template<class States>
void Solver::thin_out(States& states) const {
    constexpr std::size_t most_compared = 200;
    std::vector<std::pair<Cost, Holds>> by_cost, kept;
    for (const auto& [holds, node] : states)
        by_cost.emplace_back(node.cost, holds);
    std::sort(by_cost.begin(), by_cost.end());
    for (const auto& [cost, holds] : by_cost) {
        const bool beaten =
            std::any_of(kept.begin(), kept.end(), [&, cost = cost, holds = holds](const auto& k) {
                return k.first + loading(k.second, holds) < cost;
            });
        if (beaten)
            states.erase(holds);
        else if (kept.size() < most_compared)
            kept.emplace_back(cost, holds);
    }
}

/// The hands around a stretch; below 0: not in one go.
std::int64_t Solver::around(std::size_t sheet, Mask passes) const {
    const auto [it, fresh] = around_[sheet].try_emplace(passes, 0);
    if (fresh) {
        const double seconds = job_.sheets[sheet].hands(passes);
        it->second = seconds < 0 ? -1 : std::llround(seconds * 1000);
    }
    return it->second;
}

/// All ways to have these tools in slots that take them, with how many are put in; the other slots keep what
/// they hold.
std::vector<std::pair<Holds, int>> Solver::seatings(Holds holds, const std::vector<int>& tools) const {
    std::vector<std::pair<Holds, int>> out;
    std::vector<std::size_t> at(tools.size());
    const std::function<void(std::size_t, unsigned)> seat = [&](std::size_t k, unsigned taken) {
        if (k < tools.size()) {
            for (std::size_t s = 0; s < slots_; ++s)
                if (!(taken >> s & 1U) && job_.fits[static_cast<std::size_t>(tools[k])][s])
                    at[k] = s, seat(k + 1, taken | 1U << s);
            return;
        }
        Holds to = holds;
        int put_in = 0;
        for (std::size_t i = 0; i < tools.size(); ++i)
            for (std::size_t s = 0; s < slots_; ++s)
                if (held(to, s) == static_cast<Holds>(tools[i] + 1) && s != at[i]) to = with(to, s, 0);
        for (std::size_t i = 0; i < tools.size(); ++i) {
            const auto tool = static_cast<Holds>(tools[i] + 1);
            if (held(holds, at[i]) != tool && held(holds, at[i]) != wished) ++put_in;
            to = with(to, at[i], tool);
        }
        out.emplace_back(to, put_in);
    };
    seat(0, 0);
    return out;
}

std::vector<Way> Solver::find_ways(std::size_t sheet, Holds in) const {
    const auto& passes = job_.sheets[sheet].passes;
    const std::size_t n = passes.size();
    const bool free = n <= exact_passes;
    struct Step {
        Cost cost;
        Mask from = 0;
        Holds before = 0;
    };
    std::map<Mask, std::map<Holds, Step>> reached; // supersets are greater numbers
    reached[0][in] = {};
    const Mask all = n == 32 ? ~Mask{0} : (Mask{1} << n) - 1;
    const auto extend = [&](Mask done, const std::map<Holds, Step>& states, Mask stretch) {
        std::vector<int> tools;
        int turned = 0;
        for (std::size_t p = 0; p < n; ++p) {
            if (!(stretch >> p & 1U)) continue;
            if ((passes[p].after & ~(done | stretch)) != 0) return;
            if (std::find(tools.begin(), tools.end(), passes[p].tool) == tools.end())
                tools.push_back(passes[p].tool);
            turned += std::popcount(all & ~done & ~stretch & ((Mask{1} << p) - 1));
        }
        if (tools.size() > slots_) return;
        const std::int64_t hands = around(sheet, stretch);
        if (hands < 0) return;
        for (const auto& [holds, step] : states)
            for (const auto& [to, put_in] : seatings(holds, tools)) {
                const Cost cost =
                    step.cost + Cost{hands + put_in * std::llround(job_.swap * 1000), 1, turned};
                const auto [it, fresh] = reached[done | stretch].try_emplace(to, Step{cost, done, holds});
                if (!fresh && cost < it->second.cost) it->second = {cost, done, holds};
            }
    };
    for (auto at = reached.begin(); at != reached.end() && at->first != all; ++at) {
        const Mask done = at->first, left = all & ~done;
        thin_out(at->second);
        if (free) {
            for (Mask stretch = left; stretch != 0; stretch = (stretch - 1) & left)
                extend(done, at->second, stretch);
        } else { // in the usual order
            Mask stretch = 0;
            for (std::size_t p = 0; p < n; ++p)
                if (left >> p & 1U) extend(done, at->second, stretch |= Mask{1} << p);
        }
    }
    std::vector<Way> out;
    thin_out(reached[all]);
    for (const auto& [holds, step] : reached[all]) {
        Way way{holds, step.cost, {}};
        Mask mask = all;
        for (Holds h = holds; mask != 0;) {
            const Step& s = reached[mask].at(h);
            way.stretches.emplace_back(mask & ~s.from, h);
            mask = s.from, h = s.before;
        }
        std::reverse(way.stretches.begin(), way.stretches.end());
        out.push_back(std::move(way));
    }
    return out;
}

const std::vector<Way>& Solver::ways(std::size_t sheet, Holds in) {
    Holds like = in; // what is not of this sheet is all alike to it
    for (std::size_t slot = 0; slot < slots_; ++slot) {
        const Holds tool = held(in, slot);
        const auto& passes = job_.sheets[sheet].passes;
        if (tool != 0 && std::none_of(passes.begin(), passes.end(), [&](const JobPass& p) {
                return static_cast<Holds>(p.tool + 1) == tool;
            }))
            like = with(like, slot, other);
    }
    const auto [it, fresh] = ways_.try_emplace({sheet, like});
    if (fresh) it->second = find_ways(sheet, like);
    return it->second;
}

/// What the slots hold at the end of a way that began with `in`.
Holds Solver::after(const Way& way, Holds in) const {
    Holds out = way.holds;
    for (std::size_t slot = 0; slot < slots_; ++slot)
        if (held(out, slot) == other) out = with(out, slot, held(in, slot));
    return out;
}

/// What a sheet costs at least, whatever the slots hold before it.
Cost Solver::least_of(std::size_t sheet) const {
    Holds any = 0;
    for (std::size_t slot = 0; slot < slots_; ++slot)
        any = with(any, slot, wished);
    std::optional<Cost> least;
    for (const Way& way : find_ways(sheet, any))
        if (!least || way.cost < *least) least = way.cost;
    return *least;
}

bool Solver::exact(Sequence& out) {
    const std::size_t n = job_.sheets.size(), sets = std::size_t{1} << n;
    std::vector<Reached> reached(sets);
    // What no later sheet needs counts as nothing: it may sit where it is, or go.
    std::vector<std::set<int>> tools(n);
    for (std::size_t s = 0; s < n; ++s)
        for (const JobPass& pass : job_.sheets[s].passes)
            tools[s].insert(pass.tool);
    const auto needed = [&](Holds holds, std::size_t set) {
        for (std::size_t slot = 0; slot < slots_; ++slot) {
            const auto tool = static_cast<int>(held(holds, slot)) - 1;
            bool wanted = false;
            for (std::size_t s = 0; s < n && !wanted; ++s)
                wanted = !(set >> s & 1U) && tools[s].contains(tool);
            if (!wanted) holds = with(holds, slot, 0);
        }
        return holds;
    };
    reached[0][0] = {};
    for (std::size_t set = 0; set + 1 < sets; ++set) {
        if (progress_.cancelled()) return false;
        thin_out(reached[set]);
        for (const auto& [holds, node] : reached[set])
            for (std::size_t s = 0; s < n; ++s) {
                if (set >> s & 1U) continue;
                const int turned = std::popcount(~set & (sets - 1) & ((std::size_t{1} << s) - 1));
                const std::vector<Way>& all = ways(s, holds);
                for (std::size_t w = 0; w < all.size(); ++w) {
                    const Cost cost = node.cost + all[w].cost + Cost{0, 0, turned};
                    const std::size_t then = set | std::size_t{1} << s;
                    const auto [it, fresh] = reached[then].try_emplace(needed(after(all[w], holds), then),
                                                                       Node{cost, s, w, holds});
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
    std::vector<std::pair<std::size_t, const Way*>> run;
    Holds holds = best->first;
    for (std::size_t set = sets - 1; set != 0;) {
        const Node& node = reached[set].at(holds);
        run.emplace_back(node.sheet, &ways(node.sheet, node.before)[node.way]);
        set &= ~(std::size_t{1} << node.sheet);
        holds = node.before;
    }
    std::reverse(run.begin(), run.end());
    put(out, std::move(run));
    return true;
}

/// With many sheets: of the states with as many sheets run, the most promising go on.
bool Solver::by_beam(Sequence& out) {
    struct State {
        std::vector<bool> done;
        Holds holds = 0;
        Cost cost;
        Cost ahead; ///< at least, of what is left
        std::size_t before = 0, sheet = 0;
        const Way* way = nullptr;
    };
    const std::size_t n = job_.sheets.size();
    std::vector<Cost> least(n);
    Cost all;
    for (std::size_t s = 0; s < n; ++s)
        all = all + (least[s] = least_of(s));
    std::vector<std::vector<State>> layers(n + 1);
    layers[0].push_back({std::vector<bool>(n), 0, {}, all, 0, 0, nullptr});
    for (std::size_t count = 0; count < n; ++count) {
        if (progress_.cancelled()) return false;
        std::map<std::pair<std::vector<bool>, Holds>, State> next;
        for (std::size_t from = 0; from < layers[count].size(); ++from) {
            const State& state = layers[count][from];
            int turned = 0; // sheets that come later though they stand before
            for (std::size_t s = 0; s < n; ++s) {
                if (state.done[s]) continue;
                for (const Way& way : ways(s, state.holds)) {
                    State to{state.done,
                             after(way, state.holds),
                             state.cost + way.cost + Cost{0, 0, turned},
                             {state.ahead.hands - least[s].hands, state.ahead.stops - least[s].stops, 0},
                             from,
                             s,
                             &way};
                    to.done[s] = true;
                    const auto key = std::pair{to.done, to.holds};
                    const auto it = next.find(key);
                    if (it == next.end())
                        next.emplace(key, std::move(to));
                    else if (to.cost < it->second.cost)
                        it->second = std::move(to);
                }
                ++turned;
            }
        }
        auto& layer = layers[count + 1];
        for (auto& [key, state] : next)
            layer.push_back(std::move(state));
        const auto promise = [](const State& a) { return a.cost + a.ahead; };
        std::stable_sort(layer.begin(), layer.end(),
                         [&](const State& a, const State& b) { return promise(a) < promise(b); });
        if (layer.size() <= beam) continue;
        // The usual order goes on beside them, as it may end as well.
        const auto usual = std::min_element(layer.begin(), layer.end(), [](const State& a, const State& b) {
            return std::tie(a.cost.turned, a.cost) < std::tie(b.cost.turned, b.cost);
        });
        if (usual - layer.begin() >= static_cast<std::ptrdiff_t>(beam)) layer[beam - 1] = *usual;
        layer.resize(beam);
    }
    std::vector<std::pair<std::size_t, const Way*>> run;
    std::size_t at = 0;
    for (std::size_t count = n; count > 0; --count) {
        const State& state = layers[count][at];
        run.emplace_back(state.sheet, state.way);
        at = state.before;
    }
    std::reverse(run.begin(), run.end());
    put(out, std::move(run));
    return true;
}

void Solver::put(Sequence& out, std::vector<std::pair<std::size_t, const Way*>> run) const {
    Cost cost;
    Holds now = 0;
    for (const auto& [sheet, way] : run) {
        cost = cost + way->cost;
        for (const auto& [mask, holds] : way->stretches) {
            Stretch stretch{sheet, {}, {}};
            for (std::size_t p = 0; p < job_.sheets[sheet].passes.size(); ++p)
                if (mask >> p & 1U) stretch.passes.push_back(p);
            const Holds before = now;
            for (std::size_t s = 0; s < slots_; ++s) {
                const bool stays = held(holds, s) == 0 || held(holds, s) == other;
                bool moved = false; // to another slot
                for (std::size_t k = 0; k < slots_; ++k)
                    moved |= held(holds, k) == held(before, s);
                now = with(now, s, !stays ? held(holds, s) : moved ? 0 : held(before, s));
                stretch.holds.push_back(static_cast<int>(held(now, s)) - 1);
            }
            out.stretches.push_back(std::move(stretch));
        }
    }
    out.hands = static_cast<double>(cost.hands) / 1000;
    out.stops = cost.stops;
}

Result<Sequence> Solver::solve() {
    around_.resize(job_.sheets.size());
    Sequence out;
    if (job_.sheets.empty()) return out;
    for (const JobSheet& sheet : job_.sheets)
        for (const JobPass& pass : sheet.passes) {
            const auto& row = job_.fits[static_cast<std::size_t>(pass.tool)];
            if (std::find(row.begin(), row.end(), true) == row.end())
                return fail("plan.no-slot", say("A tool fits into no slot of this machine."));
        }
    const bool small = job_.sheets.size() <= exact_sheets;
    if (!(small ? exact(out) : by_beam(out))) return fail("cancelled", say("Planning was cancelled."));
    out.proven = small && std::all_of(job_.sheets.begin(), job_.sheets.end(), [](const JobSheet& sheet) {
                     return sheet.passes.size() <= exact_passes;
                 });
    if (out.proven) {
        out.least = out.hands;
    } else { // each sheet by itself with all slots as it wishes them, or each tool put in once
        std::set<int> used;
        std::int64_t least = 0, around = 0;
        for (std::size_t s = 0; s < job_.sheets.size(); ++s) {
            least += least_of(s).hands;
            Job still{{job_.sheets[s]}, job_.fits, 0}; // swaps left out
            Solver alone(still, progress_);
            alone.around_.resize(1);
            around += alone.least_of(0).hands;
            for (const JobPass& pass : job_.sheets[s].passes)
                used.insert(pass.tool);
        }
        const std::int64_t swap = std::llround(job_.swap * 1000);
        least = std::max(least + swap, around + std::ssize(used) * swap); // the first tool is put in
        out.least = std::min(out.hands, static_cast<double>(least) / 1000);
    }
    return out;
}

} // namespace

Result<Sequence> least_hands(const Job& job, Progress& progress) {
    return Solver(job, progress).solve();
}

} // namespace dotlane
