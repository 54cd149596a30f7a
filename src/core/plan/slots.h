// Which tool sits in which slot and when hands must change it: fewest stops, then fewest tools changed.
//
// Method: dynamic programming over the passes; a state is what the slots hold. Exact for the given order of
// passes. A stop can change every slot at once, and loading a sheet or laying on foil is a stop in any case,
// so changes are gathered there. With very many tools (over 2,000 ways to fill the slots) each stop reaches
// as far as it can instead, which still needs the fewest stops.
#pragma once

#include <string>
#include <vector>

#include "core/base/result.h"

namespace dotlane {

struct SlotNeed {
    int tool = 0;       ///< index of the physical tool
    bool hands = false; ///< hands are needed before this pass in any case: a sheet is loaded, foil is laid on
};

struct SlotPlan {
    struct Entry {
        bool stop = false;      ///< hands are needed before this pass
        int slot = 0;           ///< where this pass's tool sits
        std::vector<int> holds; ///< what each slot holds during the pass; -1 is empty
    };
    std::vector<Entry> passes;
    int stops = 0;   ///< including those that load sheets
    int changes = 0; ///< tools put in
};

/// `fits[tool][slot]` says which slot takes which tool. Error "plan.no-slot": a tool fits nowhere.
Result<SlotPlan> assign_slots(const std::vector<SlotNeed>& needs, const std::vector<std::vector<bool>>& fits);

} // namespace dotlane
