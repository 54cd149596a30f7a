#include "core/plan/sheet_ways.h"

#include <bit>
#include <cmath>
#include <set>
#include <tuple>

namespace dotlane {
namespace {

constexpr Holds wished = 0xfe; ///< whatever is needed first
constexpr Holds others = 0xf8; ///< and on: the first, second, ... of what sat there before and is not of the
                               ///< sheet that runs

} // namespace

SheetWays::SheetWays(const Job& job, Progress& progress)
    : job_(job)
    , progress_(progress)
    , slots_(job.fits.empty() ? 0 : job.fits.front().size())
    , swap_(std::llround(job.swap * 1000))
    , around_(job.sheets.size())
    , least_(job.sheets.size())
    , together_(job.sheets.size()) {
    for (std::size_t s = 0; s < slots_; ++s) {
        std::size_t first = 0;
        while (std::any_of(job.fits.begin(), job.fits.end(),
                           [&](const std::vector<bool>& row) { return row[first] != row[s]; }))
            ++first;
        alike_.push_back(first);
    }
}

Holds SheetWays::ordered(Holds holds) const {
    for (std::size_t s = 1; s < slots_; ++s) {
        if (alike_[s] == s) continue;
        std::size_t at = s;
        for (std::size_t before = s; before-- > alike_[s];)
            if (alike(before, s) && held(holds, before) > held(holds, at)) {
                const Holds greater = held(holds, before);
                holds = with(with(holds, before, held(holds, at)), at, greater);
                at = before;
            }
    }
    return holds;
}

/// What a state costs that has at hand what the other one has, tool by tool as each is needed.
SequenceCost SheetWays::loading(Holds from, Holds to) const {
    std::int64_t swaps = 0;
    for (std::size_t s = 0; s < slots_; ++s) {
        bool there = held(to, s) == 0 || held(from, s) == wished;
        for (std::size_t k = alike_[s]; k < slots_ && !there; ++k)
            there = alike(k, s) && held(from, k) == held(to, s);
        swaps += there ? 0 : 1;
    }
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

/// None when they cannot run in one go.
std::optional<SheetWays::PassesTogether> SheetWays::together(std::size_t sheet, PassMask mask) const {
    const auto& passes = job_.sheets[sheet].passes;
    PassesTogether out{mask, 0, 0, {}, {}};
    for (std::size_t p = 0; p < passes.size(); ++p) {
        if (!(mask >> p & 1U)) continue;
        out.needs |= passes[p].after & ~mask;
        if (out.uses(passes[p].tool)) continue;
        if (out.tools.size() == slots_) return std::nullopt;
        out.tools.push_back(static_cast<Holds>(passes[p].tool + 1));
    }
    out.hands = around(sheet, mask);
    if (out.hands < 0) return std::nullopt;
    out.places = places_of(out.tools);
    return out;
}

/// Of sheets with few passes; the greatest mask first.
const std::vector<SheetWays::PassesTogether>& SheetWays::all_together(std::size_t sheet) const {
    std::vector<PassesTogether>& out = together_[sheet];
    if (!out.empty()) return out;
    for (PassMask mask = (PassMask{1} << job_.sheets[sheet].passes.size()) - 1; mask != 0; --mask)
        if (auto one = together(sheet, mask)) out.push_back(*one);
    return out;
}

/// All ways to have these tools in slots that take them.
std::vector<SheetWays::Places> SheetWays::places_of(const std::vector<Holds>& tools) const {
    std::vector<Places> out;
    const auto seat = [&](const auto& on, std::size_t k, Places places) -> void {
        if (k == tools.size()) return out.push_back(places);
        for (std::size_t s = 0; s < slots_; ++s)
            if (held(places.over, s) == 0 && job_.fits[tools[k] - 1][s])
                on(on, k + 1, {with(places.over, s, 0xff), with(places.set, s, tools[k])});
    };
    seat(seat, 0, {});
    return out;
}

/// What the slots hold when the passes' tools sit, and how many are put in for that; slots that they do not
/// take keep what they hold. `stay`: what sits there stays where it is, unless the others find no place then.
template<class Each>
void SheetWays::seat(const PassesTogether& passes, Holds holds, bool stay, Each each) const {
    Holds own = 0; // slots with one of these tools
    for (std::size_t s = 0; s < slots_; ++s)
        for (const Holds tool : passes.tools)
            if (held(holds, s) == tool) own = with(own, s, 0xff);
    const auto stays = [&](const Places& p) { return (own & ~p.over) == 0 && ((holds ^ p.set) & own) == 0; };
    stay = stay && std::any_of(passes.places.begin(), passes.places.end(), stays);
    // To another slot like the one where it sits leads nowhere.
    const auto strays = [&](const Places& p) {
        for (std::size_t s = 0; s < slots_; ++s)
            for (std::size_t k = alike_[s]; k < slots_ && held(own, s) != 0; ++k)
                if (k != s && alike(k, s) && held(p.set, k) == held(holds, s)) return true;
        return false;
    };
    for (const Places& places : passes.places) {
        if (stay ? !stays(places) : strays(places)) continue;
        int put_in = 0;
        for (std::size_t s = 0; s < slots_; ++s)
            put_in += held(places.over, s) != 0 && held(holds, s) != held(places.set, s) &&
                      held(holds, s) != wished;
        each(ordered((holds & ~own & ~places.over) | places.set), put_in);
    }
}

std::vector<char> SheetWays::beaten(const std::vector<std::pair<SequenceCost, Holds>>& by_cost) const {
    constexpr std::size_t most_compared = 200;
    std::vector<char> out(by_cost.size());
    std::vector<std::size_t> kept;
    for (std::size_t i = 0; i < by_cost.size(); ++i) {
        out[i] = std::any_of(kept.begin(), kept.end(), [&](std::size_t k) {
            return by_cost[k].first + loading(by_cost[k].second, by_cost[i].second) < by_cost[i].first;
        });
        if (!out[i] && kept.size() < most_compared) kept.push_back(i);
    }
    return out;
}

/// Those that are worth going on from, the `most` cheapest of them; by what the slots hold.
void SheetWays::thin_out_sorted(std::vector<Reached>& states, std::size_t most) const {
    std::sort(states.begin(), states.end(), [](const Reached& a, const Reached& b) {
        return std::tie(a.cost, a.holds) < std::tie(b.cost, b.holds);
    });
    std::vector<std::pair<SequenceCost, Holds>> by_cost;
    by_cost.reserve(states.size());
    for (const Reached& state : states)
        by_cost.emplace_back(state.cost, state.holds);
    const std::vector<char> out = beaten(by_cost);
    std::size_t kept = 0;
    for (std::size_t i = 0; i < states.size() && kept < most; ++i)
        if (!out[i]) states[kept++] = states[i];
    states.resize(kept);
    std::sort(states.begin(), states.end(),
              [](const Reached& a, const Reached& b) { return a.holds < b.holds; });
}

/// Of the ways over a sheet: `most` states go on from each set of passes.
std::vector<SheetWay> SheetWays::find_ways(std::size_t sheet, Holds in, std::size_t most) const {
    const auto& passes = job_.sheets[sheet].passes;
    const std::size_t n = passes.size();
    const bool free = n <= exact_passes;
    std::map<PassMask, Seatings> reached; // supersets are greater numbers
    reached[0].add({in, {}, 0, 0});
    const PassMask all = n == 32 ? ~PassMask{0} : (PassMask{1} << n) - 1;
    // What needs no other tool and nothing first is as well run now as later, where not all ways are tried:
    // of more passes only those that follow in the usual order can be.
    const auto could_run_more = [&](PassMask done, const PassesTogether& now) {
        for (std::size_t p = 0; p < n; ++p)
            if (!((done | now.mask) >> p & 1U) && (passes[p].after & ~(done | now.mask)) == 0 &&
                now.uses(passes[p].tool) && around(sheet, now.mask | PassMask{1} << p) >= 0)
                return true;
        return false;
    };
    const auto extend = [&](PassMask done, const std::vector<Reached>& states, const PassesTogether& now) {
        if ((now.needs & ~done) != 0 || (free && most != all_ways && could_run_more(done, now))) return;
        int turned = 0;
        for (PassMask left = now.mask; left != 0; left &= left - 1)
            turned += std::popcount(all & ~done & ~now.mask & ((left & (~left + 1)) - 1));
        Seatings& there = reached[done | now.mask];
        for (const Reached& step : states)
            seat(now, step.holds, most != all_ways, [&](Holds to, int put_in) {
                ++work_;
                there.add(
                    {to, step.cost + SequenceCost{now.hands + put_in * swap_, 1, turned}, done, step.holds});
            });
    };
    for (auto at = reached.begin(); at != reached.end() && at->first != all; ++at) {
        if (stopped()) return {};
        const PassMask done = at->first, left = all & ~done;
        at->second.close();
        std::vector<Reached>& states = at->second.all;
        thin_out_sorted(states, most);
        if (free) {
            for (const PassesTogether& now : all_together(sheet))
                if ((now.mask & done) == 0) extend(done, states, now);
        } else { // in the usual order
            PassMask stretch = 0;
            for (std::size_t p = 0; p < n; ++p)
                if (left >> p & 1U)
                    if (const auto now = together(sheet, stretch |= PassMask{1} << p))
                        extend(done, states, *now);
        }
    }
    std::vector<SheetWay> out;
    thin_out_sorted(reached[all].all, most);
    for (const Reached& step : reached[all].all) {
        SheetWay way{sheet, step.holds, step.cost, {}};
        PassMask mask = all;
        for (Holds h = step.holds; mask != 0;) {
            const auto& states = reached[mask].all;
            const Reached& s = *std::lower_bound(states.begin(), states.end(), h,
                                                 [](const Reached& a, Holds b) { return a.holds < b; });
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

bool SheetWays::uses(std::size_t sheet, Holds tool) const {
    const auto& passes = job_.sheets[sheet].passes;
    return std::any_of(passes.begin(), passes.end(),
                       [&](const JobPass& p) { return static_cast<Holds>(p.tool + 1) == tool; });
}

const std::vector<SheetWay>& SheetWays::ways(std::size_t sheet, Holds in) {
    Holds like = in, next = others; // what is not of this sheet is all alike to it
    for (std::size_t slot = 0; slot < slots_; ++slot)
        if (held(in, slot) != 0 && !uses(sheet, held(in, slot))) like = with(like, slot, next++);
    like = ordered(like);
    const auto [it, fresh] = ways_.try_emplace({sheet, like});
    if (fresh) it->second = find_ways(sheet, like, most_);
    return it->second;
}

Holds SheetWays::told(const SheetWay& way, Holds at, Holds in) const {
    std::vector<Holds> foreign;
    for (std::size_t slot = 0; slot < slots_; ++slot)
        if (held(in, slot) != 0 && !uses(way.sheet, held(in, slot))) foreign.push_back(held(in, slot));
    for (std::size_t slot = 0; slot < slots_; ++slot)
        if (const Holds tool = held(at, slot); tool >= others) at = with(at, slot, foreign[tool - others]);
    return ordered(at);
}

/// What a sheet costs at least, whatever the slots hold before it.
SequenceCost SheetWays::least_of(std::size_t sheet) const {
    std::optional<SequenceCost>& least = least_[sheet];
    if (least) return *least;
    Holds any = 0;
    for (std::size_t slot = 0; slot < slots_; ++slot)
        any = with(any, slot, wished);
    const std::vector<SheetWay> ways = find_ways(sheet, any, all_ways); // the cheapest first
    if (stopped() || ways.empty()) return {};
    return *(least = ways.front().cost);
}

/// Without the swaps what the slots held does not count, only what can be seated together.
SequenceCost SheetWays::least_over(std::size_t sheet, bool hands_count) const {
    const auto& passes = job_.sheets[sheet].passes;
    const std::size_t n = passes.size();
    const PassMask all = n == 32 ? ~PassMask{0} : (PassMask{1} << n) - 1;
    std::map<PassMask, SequenceCost> least{{0, {}}}; // supersets are greater numbers
    const auto extend = [&](PassMask done, const SequenceCost& before, const PassesTogether& now) {
        if ((now.needs & ~done) != 0 || now.places.empty()) return;
        const SequenceCost cost = before + SequenceCost{hands_count ? now.hands : 0, 1, 0};
        const auto [it, fresh] = least.try_emplace(done | now.mask, cost);
        if (!fresh && cost < it->second) it->second = cost;
    };
    for (auto at = least.begin(); at != least.end() && at->first != all; ++at) {
        const PassMask done = at->first, left = all & ~done;
        PassMask stretch = 0;
        if (n <= exact_passes) {
            for (const PassesTogether& now : all_together(sheet))
                if ((now.mask & done) == 0) extend(done, at->second, now);
        } else { // in the usual order, as ways are found
            for (std::size_t p = 0; p < n; ++p)
                if (left >> p & 1U)
                    if (const auto now = together(sheet, stretch |= PassMask{1} << p))
                        extend(done, at->second, *now);
        }
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

Holds SheetWays::stood(Holds told, Holds told_before, Holds before) const {
    const auto has = [&](Holds holds, Holds tool, std::size_t like) {
        for (std::size_t s = 0; s < slots_; ++s)
            if (alike(s, like) && held(holds, s) == tool) return true;
        return false;
    };
    Holds now = before;
    // What is wanted in a slot of another kind leaves the one it is in.
    for (std::size_t s = 0; s < slots_; ++s)
        for (std::size_t k = 0; k < slots_; ++k)
            if (held(told, k) != 0 && held(told, k) == held(now, s) && !alike(k, s)) now = with(now, s, 0);
    for (std::size_t k = 0; k < slots_; ++k) {
        const Holds comes = held(told, k);
        if (comes == 0 || has(now, comes, k)) continue;
        const auto free = [&](std::size_t s) {
            return alike(s, k) && (held(now, s) == 0 || !has(told, held(now, s), s));
        };
        const auto goes = [&](std::size_t s) {
            return held(now, s) != 0 && has(told_before, held(now, s), s);
        };
        std::optional<std::size_t> place;
        for (std::size_t s = 0; s < slots_; ++s)
            if (free(s) && (!place || (goes(s) && !goes(*place)))) place = s;
        DOTLANE_CHECK(place); // alike slots are as many as what they hold
        now = with(now, *place, comes);
    }
    return now;
}

} // namespace dotlane
