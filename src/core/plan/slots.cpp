#include "core/plan/slots.h"

#include <map>

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

} // namespace

Result<SlotPlan> assign_slots(const std::vector<SlotNeed>& needs,
                              const std::vector<std::vector<bool>>& fits) {
    SlotPlan plan;
    if (needs.empty()) return plan;
    const std::size_t slots = fits.front().size();
    std::vector<std::map<Holds, Reached>> layers(needs.size() + 1);
    layers[0][Holds(slots, -1)] = {};
    std::map<int, std::vector<Holds>> choices;
    for (std::size_t i = 0; i < needs.size(); ++i) {
        const int tool = needs[i].tool;
        auto& options = choices[tool];
        if (options.empty()) {
            Holds holds(slots, -1);
            fillings(fits, tool, 0, holds, options);
            if (options.empty()) return fail("plan.no-slot", "A tool fits into no slot of this machine.");
        }
        for (const auto& [holds, reached] : layers[i]) {
            const auto offer = [&](const Holds& to, bool stop) {
                const Reached next{reached.stops + (stop ? 1 : 0),
                                   reached.changes + changes_between(holds, to), holds, stop};
                const auto [it, fresh] = layers[i + 1].try_emplace(to, next);
                if (!fresh && next.better_than(it->second)) it->second = next;
            };
            if (!needs[i].sheet_begins && slot_of(holds, tool) >= 0) {
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
