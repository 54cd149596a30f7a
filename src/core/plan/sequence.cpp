#include "core/plan/sequence.h"

#include <algorithm>
#include <bit>
#include <cmath>
#include <map>
#include <unordered_map>

namespace dotlane {
namespace {

using Holds = std::uint32_t; ///< eight bits a slot: tool + 1, or 0
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
    using Layer = std::unordered_map<Holds, Node>;

    std::vector<std::pair<Holds, int>> seatings(Holds holds, const std::vector<int>& tools) const;
    const std::vector<Way>& ways(std::size_t sheet, Holds in);
    std::vector<Way> find_ways(std::size_t sheet, Holds in) const;
    std::int64_t around(std::size_t sheet, Mask passes) const;
    std::int64_t least_of(std::size_t sheet);
    bool exact(Sequence& out);
    bool by_beam(Sequence& out);
    void put(Sequence& out, std::vector<std::pair<std::size_t, const Way*>> run) const;

    const Job& job_;
    Progress& progress_;
    std::size_t slots_;
    std::map<std::pair<std::size_t, Holds>, std::vector<Way>> ways_;
    mutable std::vector<std::unordered_map<Mask, std::int64_t>> around_;
};

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
            if (held(holds, at[i]) != tool) ++put_in;
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
    const auto [it, fresh] = ways_.try_emplace({sheet, in});
    if (fresh) it->second = find_ways(sheet, in);
    return it->second;
}

/// What the hands do around a sheet's stretches at least, however its tools come into the slots.
std::int64_t Solver::least_of(std::size_t sheet) {
    Job free = {{job_.sheets[sheet]}, job_.fits, 0};
    Solver alone(free, progress_);
    alone.around_.resize(1);
    std::int64_t least = -1;
    for (const Way& way : alone.ways(0, 0))
        if (least < 0 || way.cost.hands < least) least = way.cost.hands;
    return least;
}

bool Solver::exact(Sequence& out) {
    const std::size_t n = job_.sheets.size(), sets = std::size_t{1} << n;
    std::vector<Layer> reached(sets);
    reached[0][0] = {};
    for (std::size_t set = 0; set + 1 < sets; ++set) {
        if (progress_.cancelled()) return false;
        for (const auto& [holds, node] : reached[set])
            for (std::size_t s = 0; s < n; ++s) {
                if (set >> s & 1U) continue;
                const int turned = std::popcount(~set & (sets - 1) & ((std::size_t{1} << s) - 1));
                const std::vector<Way>& all = ways(s, holds);
                for (std::size_t w = 0; w < all.size(); ++w) {
                    const Cost cost = node.cost + all[w].cost + Cost{0, 0, turned};
                    const auto [it, fresh] =
                        reached[set | std::size_t{1} << s].try_emplace(all[w].holds, Node{cost, s, w, holds});
                    Node& there = it->second;
                    // Of equal ones always the same, in whichever order a map gives them.
                    if (!fresh && std::tie(cost, s, holds) < std::tie(there.cost, there.sheet, there.before))
                        there = {cost, s, w, holds};
                }
            }
    }
    const Layer& last = reached[sets - 1];
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
        std::int64_t ahead = 0; ///< at least, of what is left
        std::size_t before = 0, sheet = 0;
        const Way* way = nullptr;
    };
    const std::size_t n = job_.sheets.size();
    std::vector<std::int64_t> least(n);
    std::int64_t all = 0;
    for (std::size_t s = 0; s < n; ++s)
        all += least[s] = least_of(s);
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
                             way.holds,
                             state.cost + way.cost + Cost{0, 0, turned},
                             state.ahead - least[s],
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
        const auto promise = [](const State& a) {
            return std::tuple{a.cost.hands + a.ahead, a.cost.stops, a.cost.turned};
        };
        std::stable_sort(layer.begin(), layer.end(),
                         [&](const State& a, const State& b) { return promise(a) < promise(b); });
        if (layer.size() > beam) layer.resize(beam);
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
    for (const auto& [sheet, way] : run) {
        cost = cost + way->cost;
        for (const auto& [mask, holds] : way->stretches) {
            Stretch stretch{sheet, {}, {}};
            for (std::size_t p = 0; p < job_.sheets[sheet].passes.size(); ++p)
                if (mask >> p & 1U) stretch.passes.push_back(p);
            for (std::size_t s = 0; s < slots_; ++s)
                stretch.holds.push_back(static_cast<int>(held(holds, s)) - 1);
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
    } else { // each sheet by itself, and each tool put in once
        std::vector<bool> used(job_.fits.size());
        std::int64_t least = 0;
        for (std::size_t s = 0; s < job_.sheets.size(); ++s) {
            least += least_of(s);
            for (const JobPass& pass : job_.sheets[s].passes)
                used[static_cast<std::size_t>(pass.tool)] = true;
        }
        least += std::count(used.begin(), used.end(), true) * std::llround(job_.swap * 1000);
        out.least = std::min(out.hands, static_cast<double>(least) / 1000);
    }
    return out;
}

} // namespace

Result<Sequence> least_hands(const Job& job, Progress& progress) {
    return Solver(job, progress).solve();
}

} // namespace dotlane
