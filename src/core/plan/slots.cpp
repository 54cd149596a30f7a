#include "core/plan/slots.h"

#include <algorithm>
#include <map>
#include <numeric>
#include <optional>

namespace dotlane {
namespace {

using Holds = std::vector<int>;

struct Reached {
    int stops = 0, changes = 0;
    Holds from;
    bool stop = false;
    bool better_than(const Reached& o) const {
        return stops != o.stops ? stops < o.stops : changes < o.changes;
    }
};

int slot_of(const Holds& holds, int tool) {
    for (std::size_t s = 0; s < holds.size(); ++s)
        if (holds[s] == tool) return static_cast<int>(s);
    return -1;
}

int changes_between(const Holds& a, const Holds& b) {
    int n = 0;
    for (std::size_t s = 0; s < a.size(); ++s)
        n += b[s] >= 0 && a[s] != b[s];
    return n;
}

/// Everything the slots could hold that includes `tool`.
void fillings(const std::vector<std::vector<bool>>& fits, int tool, std::size_t slot, Holds& holds,
              std::vector<Holds>& out) {
    if (slot == holds.size()) {
        if (slot_of(holds, tool) >= 0) out.push_back(holds);
        return;
    }
    holds[slot] = -1;
    fillings(fits, tool, slot + 1, holds, out);
    for (std::size_t t = 0; t < fits.size(); ++t) {
        bool taken = false;
        for (std::size_t s = 0; s < slot; ++s)
            taken |= holds[s] == static_cast<int>(t);
        if (!fits[t][slot] || taken) continue;
        holds[slot] = static_cast<int>(t);
        fillings(fits, tool, slot + 1, holds, out);
    }
    holds[slot] = -1;
}

/// Puts `tools` into slots that take them, leaving as many as can be where they are. Empty when they do not
/// fit.
std::optional<Holds> seated(const std::vector<int>& tools, const Holds& before,
                            const std::vector<std::vector<bool>>& fits) {
    std::vector<std::size_t> slots(before.size());
    std::iota(slots.begin(), slots.end(), 0U);
    std::optional<Holds> best;
    int fewest = 0;
    do { // at most four slots: 24 ways
        Holds to = before;
        bool ok = true;
        for (std::size_t t = 0; t < tools.size() && ok; ++t) {
            ok = fits[static_cast<std::size_t>(tools[t])][slots[t]];
            for (int& held : to)
                if (held == tools[t]) held = -1; // it moves
            if (ok) to[slots[t]] = tools[t];
        }
        for (const int tool : tools)
            ok = ok && slot_of(to, tool) >= 0;
        const int changes = changes_between(before, to);
        if (ok && (!best || changes < fewest)) best = to, fewest = changes;
    } while (std::next_permutation(slots.begin(), slots.end()));
    return best;
}

/// Each stop makes ready for as many passes as can follow without another. Since a stop may change every
/// slot, no other choice can do with fewer stops; changes are few, not proven fewest.
SlotPlan reach_furthest(const std::vector<SlotNeed>& needs, const std::vector<std::vector<bool>>& fits,
                        std::size_t slots) {
    SlotPlan plan;
    Holds holds(slots, -1);
    for (std::size_t i = 0; i < needs.size();) {
        std::vector<int> tools{needs[i].tool};
        Holds to = *seated(tools, holds, fits);
        std::size_t end = i + 1;
        for (; end < needs.size() && !needs[end].hands; ++end) {
            if (std::find(tools.begin(), tools.end(), needs[end].tool) != tools.end()) continue;
            tools.push_back(needs[end].tool);
            const auto more = tools.size() <= slots ? seated(tools, holds, fits) : std::nullopt;
            if (!more) break;
            to = *more;
        }
        plan.stops += 1;
        plan.changes += changes_between(holds, to);
        for (std::size_t k = i; k < end; ++k)
            plan.passes.push_back({k == i, slot_of(to, needs[k].tool), to});
        holds = to;
        i = end;
    }
    return plan;
}

/// Ways to fill the slots, as a bound on the states of the exact search.
double state_count(const std::vector<std::vector<bool>>& fits, std::size_t slots) {
    double total = 1;
    for (std::size_t s = 0; s < slots; ++s)
        total *= 1 + static_cast<double>(
                         std::count_if(fits.begin(), fits.end(), [s](const auto& row) { return row[s]; }));
    return total;
}

} // namespace

Result<SlotPlan> assign_slots(const std::vector<SlotNeed>& needs,
                              const std::vector<std::vector<bool>>& fits) {
    SlotPlan plan;
    if (needs.empty()) return plan;
    const std::size_t slots = fits.front().size();
    for (const SlotNeed& need : needs) {
        const auto& row = fits[static_cast<std::size_t>(need.tool)];
        if (std::find(row.begin(), row.end(), true) == row.end())
            return fail("plan.no-slot", say("A tool fits into no slot of this machine."));
    }
    if (state_count(fits, slots) > 2000) return reach_furthest(needs, fits, slots);
    std::vector<std::map<Holds, Reached>> layers(needs.size() + 1);
    layers[0][Holds(slots, -1)] = {};
    std::map<int, std::vector<Holds>> choices;
    for (std::size_t i = 0; i < needs.size(); ++i) {
        const int tool = needs[i].tool;
        auto& options = choices[tool];
        if (options.empty()) {
            Holds holds(slots, -1);
            fillings(fits, tool, 0, holds, options);
        }
        for (const auto& entry : layers[i]) {
            const Holds& holds = entry.first;
            const Reached& reached = entry.second;
            const auto offer = [&](const Holds& to, bool stop) {
                const Reached next{reached.stops + (stop ? 1 : 0),
                                   reached.changes + changes_between(holds, to), holds, stop};
                const auto [it, fresh] = layers[i + 1].try_emplace(to, next);
                if (!fresh && next.better_than(it->second)) it->second = next;
            };
            if (!needs[i].hands && slot_of(holds, tool) >= 0) {
                offer(holds, false);
                continue; // stopping where no stop is needed never helps: the same change can be made later
            }
            for (const Holds& to : options) {
                // Nothing is taken out for an empty slot: a tool that sits there harms nobody.
                bool idle_removal = false;
                for (std::size_t s = 0; s < slots; ++s)
                    idle_removal |= to[s] < 0 && holds[s] >= 0 && slot_of(to, holds[s]) < 0;
                if (!idle_removal) offer(to, true);
            }
        }
    }
    Holds at;
    const Reached* best = nullptr;
    for (const auto& [holds, reached] : layers.back())
        if (!best || reached.better_than(*best)) best = &reached, at = holds;
    plan.stops = best->stops;
    plan.changes = best->changes;
    plan.passes.resize(needs.size());
    for (std::size_t i = needs.size(); i-- > 0;) {
        const Reached& r = layers[i + 1].at(at);
        plan.passes[i] = {r.stop, slot_of(at, needs[i].tool), at};
        at = r.from;
    }
    return plan;
}

} // namespace dotlane
