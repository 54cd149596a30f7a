#include "core/plan/sheet_ways.h"

#include <bit>
#include <cmath>
#include <set>

namespace dotlane {
namespace {

constexpr Holds wished = 0xfe; ///< whatever is needed first
constexpr Holds other = 0xff;  ///< what sat there before, and is not of the sheet that runs

/// The cheapest of them, of equal ones those whose slots have lower numbers.
template<class States>
void keep_cheapest(States& states, std::size_t most) {
    if (states.size() <= most) return;
    std::vector<std::pair<SequenceCost, Holds>> by_cost;
    for (const auto& [holds, state] : states)
        by_cost.emplace_back(state.cost, holds);
    std::sort(by_cost.begin(), by_cost.end());
    for (std::size_t i = most; i < by_cost.size(); ++i)
        states.erase(by_cost[i].second);
}

} // namespace

SheetWays::SheetWays(const Job& job, Progress& progress)
    : job_(job)
    , progress_(progress)
    , slots_(job.fits.empty() ? 0 : job.fits.front().size())
    , swap_(std::llround(job.swap * 1000))
    , around_(job.sheets.size()) {}

/// What a state costs that has at hand what the other one has, tool by tool as each is needed.
SequenceCost SheetWays::loading(Holds from, Holds to) const {
    std::int64_t swaps = 0;
    for (std::size_t s = 0; s < slots_; ++s)
        swaps += held(to, s) != 0 && held(from, s) != wished && held(to, s) != held(from, s) ? 1 : 0;
    return {swaps * swap_, 0, 0};
}

/// The hands around a stretch; below 0: not in one go.
std::int64_t SheetWays::around(std::size_t sheet, PassMask passes) const {
    const auto [it, fresh] = around_[sheet].try_emplace(passes, 0);
    if (fresh) {
        const double seconds = job_.sheets[sheet].hands(passes);
        it->second = seconds < 0 ? -1 : std::llround(seconds * 1000);
    }
    return it->second;
}

/// All ways to have these tools in slots that take them, with how many are put in; the other slots keep what
/// they hold.
/// `stay`: what sits there stays where it is, unless the others find no place then.
std::vector<std::pair<Holds, int>> SheetWays::seatings(Holds holds, const std::vector<int>& tools,
                                                       bool stay) const {
    std::vector<std::pair<Holds, int>> out;
    std::vector<std::size_t> at(tools.size());
    const auto sits = [&](int tool, std::size_t s) { return held(holds, s) == static_cast<Holds>(tool + 1); };
    const auto seat = [&](const auto& on, std::size_t k, unsigned taken) -> void {
        if (k < tools.size()) {
            for (std::size_t s = 0; stay && s < slots_; ++s)
                if (sits(tools[k], s) && !(taken >> s & 1U)) {
                    at[k] = s;
                    return on(on, k + 1, taken | 1U << s);
                }
            for (std::size_t s = 0; s < slots_; ++s)
                if (stay && std::any_of(tools.begin(), tools.end(), [&](int tool) { return sits(tool, s); }))
                    continue;
                else if (!(taken >> s & 1U) && job_.fits[static_cast<std::size_t>(tools[k])][s])
                    at[k] = s, on(on, k + 1, taken | 1U << s);
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
    seat(seat, 0, 0);
    return out.empty() && stay ? seatings(holds, tools, false) : out;
}

/// Of the ways over a sheet: `most` states go on from each set of passes.
std::vector<SheetWay> SheetWays::find_ways(std::size_t sheet, Holds in, std::size_t most) const {
    const auto& passes = job_.sheets[sheet].passes;
    const std::size_t n = passes.size();
    const bool free = n <= exact_passes;
    struct Reached {
        SequenceCost cost;
        PassMask from = 0;
        Holds before = 0;
    };
    std::map<PassMask, std::map<Holds, Reached>> reached; // supersets are greater numbers
    reached[0][in] = {};
    const PassMask all = n == 32 ? ~PassMask{0} : (PassMask{1} << n) - 1;
    // What needs no other tool and nothing first is as well run now as later, where not all ways are tried.
    const auto could_run_more = [&](PassMask done, PassMask stretch, const std::vector<int>& tools) {
        for (std::size_t p = 0; p < n; ++p)
            if (!((done | stretch) >> p & 1U) && (passes[p].after & ~(done | stretch)) == 0 &&
                std::find(tools.begin(), tools.end(), passes[p].tool) != tools.end() &&
                around(sheet, stretch | PassMask{1} << p) >= 0)
                return true;
        return false;
    };
    const auto extend = [&](PassMask done, const std::map<Holds, Reached>& states, PassMask stretch) {
        std::vector<int> tools;
        int turned = 0;
        for (std::size_t p = 0; p < n; ++p) {
            if (!(stretch >> p & 1U)) continue;
            if ((passes[p].after & ~(done | stretch)) != 0) return;
            if (std::find(tools.begin(), tools.end(), passes[p].tool) == tools.end())
                tools.push_back(passes[p].tool);
            turned += std::popcount(all & ~done & ~stretch & ((PassMask{1} << p) - 1));
        }
        if (tools.size() > slots_) return;
        const std::int64_t hands = around(sheet, stretch);
        if (hands < 0 || (most != all_ways && could_run_more(done, stretch, tools))) return;
        for (const auto& [holds, step] : states)
            for (const auto& [to, put_in] : seatings(holds, tools, most != all_ways)) {
                ++work_;
                const SequenceCost cost = step.cost + SequenceCost{hands + put_in * swap_, 1, turned};
                const auto [it, fresh] = reached[done | stretch].try_emplace(to, Reached{cost, done, holds});
                if (!fresh && cost < it->second.cost) it->second = {cost, done, holds};
            }
    };
    for (auto at = reached.begin(); at != reached.end() && at->first != all; ++at) {
        if (stopped()) return {};
        const PassMask done = at->first, left = all & ~done;
        thin_out(at->second);
        keep_cheapest(at->second, most);
        if (free) {
            for (PassMask stretch = left; stretch != 0; stretch = (stretch - 1) & left)
                extend(done, at->second, stretch);
        } else { // in the usual order
            PassMask stretch = 0;
            for (std::size_t p = 0; p < n; ++p)
                if (left >> p & 1U) extend(done, at->second, stretch |= PassMask{1} << p);
        }
    }
    std::vector<SheetWay> out;
    thin_out(reached[all]);
    keep_cheapest(reached[all], most);
    for (const auto& [holds, step] : reached[all]) {
        SheetWay way{holds, step.cost, {}};
        PassMask mask = all;
        for (Holds h = holds; mask != 0;) {
            const Reached& s = reached[mask].at(h);
            way.stretches.emplace_back(mask & ~s.from, h);
            mask = s.from, h = s.before;
        }
        std::reverse(way.stretches.begin(), way.stretches.end());
        out.push_back(std::move(way));
    }
    std::stable_sort(out.begin(), out.end(),
                     [](const SheetWay& a, const SheetWay& b) { return a.cost < b.cost; });
    return out;
}

const std::vector<SheetWay>& SheetWays::ways(std::size_t sheet, Holds in) {
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
    if (fresh) it->second = find_ways(sheet, like, most_);
    return it->second;
}

/// What the slots hold at the end of a way that began with `in`.
Holds SheetWays::after(const SheetWay& way, Holds in) const {
    Holds out = way.holds;
    for (std::size_t slot = 0; slot < slots_; ++slot)
        if (held(out, slot) == other) out = with(out, slot, held(in, slot));
    return out;
}

/// What a sheet costs at least, whatever the slots hold before it.
SequenceCost SheetWays::least_of(std::size_t sheet) const {
    Holds any = 0;
    for (std::size_t slot = 0; slot < slots_; ++slot)
        any = with(any, slot, wished);
    std::optional<SequenceCost> least;
    for (const SheetWay& way : find_ways(sheet, any, all_ways))
        if (!least || way.cost < *least) least = way.cost;
    return least.value_or(SequenceCost{});
}

/// Without the swaps what the slots held does not count, only what can be seated together.
SequenceCost SheetWays::least_over(std::size_t sheet, bool hands_count) const {
    const auto& passes = job_.sheets[sheet].passes;
    const std::size_t n = passes.size();
    const PassMask all = n == 32 ? ~PassMask{0} : (PassMask{1} << n) - 1;
    const auto together = [&](PassMask stretch) {
        std::vector<int> tools;
        for (std::size_t p = 0; p < n; ++p)
            if (stretch >> p & 1U && std::find(tools.begin(), tools.end(), passes[p].tool) == tools.end())
                tools.push_back(passes[p].tool);
        return tools.size() <= slots_ && !seatings(0, tools, false).empty();
    };
    std::map<PassMask, SequenceCost> least{{0, {}}}; // supersets are greater numbers
    const auto extend = [&](PassMask done, const SequenceCost& before, PassMask stretch) {
        for (std::size_t p = 0; p < n; ++p)
            if (stretch >> p & 1U && (passes[p].after & ~(done | stretch)) != 0) return;
        const std::int64_t hands = around(sheet, stretch);
        if (hands < 0 || !together(stretch)) return;
        const SequenceCost cost = before + SequenceCost{hands_count ? hands : 0, 1, 0};
        const auto [it, fresh] = least.try_emplace(done | stretch, cost);
        if (!fresh && cost < it->second) it->second = cost;
    };
    for (auto at = least.begin(); at != least.end() && at->first != all; ++at) {
        const PassMask done = at->first, left = all & ~done;
        PassMask stretch = 0;
        if (n <= exact_passes)
            for (stretch = left; stretch != 0; stretch = (stretch - 1) & left)
                extend(done, at->second, stretch);
        else // in the usual order, as ways are found
            for (std::size_t p = 0; p < n; ++p)
                if (left >> p & 1U) extend(done, at->second, stretch |= PassMask{1} << p);
    }
    return least.at(all);
}

int SheetWays::least_stops(std::size_t sheet) const {
    return least_over(sheet, false).stops;
}

SequenceCost SheetWays::least_around(std::size_t sheet, bool swaps) const {
    // However the slots stand before it: what does not sit there then is put in.
    std::set<int> tools;
    for (const JobPass& pass : job_.sheets[sheet].passes)
        tools.insert(pass.tool);
    const std::int64_t put_in =
        std::max<std::int64_t>(std::ssize(tools) - static_cast<std::int64_t>(slots_), 0);
    return least_over(sheet, true) + SequenceCost{swaps ? put_in * swap_ : 0, 0, 0};
}

Holds SheetWays::stood(Holds at, Holds before) const {
    Holds now = before;
    for (std::size_t s = 0; s < slots_; ++s) {
        const bool stays = held(at, s) == 0 || held(at, s) == other;
        bool moved = false; // to another slot
        for (std::size_t k = 0; k < slots_; ++k)
            moved |= held(at, k) == held(before, s);
        now = with(now, s, !stays ? held(at, s) : moved ? 0 : held(before, s));
    }
    return now;
}

} // namespace dotlane
