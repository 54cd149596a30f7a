#include "core/plan/meanwhile.h"

#include <set>

namespace dotlane {
namespace {

/// Mats of a kind that sheets lie on while a leg runs: what is in the machine, and what comes again.
int in_use(const std::vector<Leg>& legs, std::size_t leg, const Phrase& mat) {
    std::set<const SheetWork*> lie{legs[leg].sheet};
    for (std::size_t i = 0; i < leg; ++i)
        for (std::size_t k = leg + 1; k < legs.size(); ++k)
            if (legs[i].sheet == legs[k].sheet) lie.insert(legs[i].sheet);
    return static_cast<int>(
        std::count_if(lie.begin(), lie.end(), [&](const SheetWork* s) { return s->sheet.mat == mat; }));
}

} // namespace

std::vector<Meanwhile> meanwhile(const std::vector<Leg>& legs, const Machine& machine, int mats) {
    std::vector<Meanwhile> out(legs.size());
    if (mats < 2) return out;
    const auto any = [&](std::size_t from, std::size_t to, const SheetWork* sheet) {
        return std::any_of(legs.begin() + static_cast<std::ptrdiff_t>(from),
                           legs.begin() + static_cast<std::ptrdiff_t>(to),
                           [sheet](const Leg& leg) { return leg.sheet == sheet; });
    };
    for (std::size_t i = 0; i < legs.size(); ++i) {
        Duration work;
        if (i > 0 && out[i].prepared && !any(i, legs.size(), legs[i - 1].sheet)) {
            out[i].lifts_off = true;
            work += machine.unload_sheet - machine.feed;
        }
        if (i + 1 < legs.size()) {
            const SheetWork* const next = legs[i + 1].sheet;
            if (!any(0, i + 1, next) && in_use(legs, i, next->sheet.mat) < mats) {
                out[i].prepares = next;
                out[i + 1].prepared = true;
                work += machine.load_sheet - machine.feed;
            }
            out[i].time = std::min(work, legs[i].runs);
            out[i + 1].left_over = work - out[i].time;
        } else {
            out[i].time = work; // the machine is waited for in any case
        }
    }
    return out;
}

} // namespace dotlane
