// With a spare mat, hands lay the next sheet on it and lift the last one off while the machine runs: at the
// stop between them the mats only change places.
#pragma once

#include <vector>

#include "core/plan/work.h"

namespace dotlane {

/// What a stop has to do with it.
struct Meanwhile {
    bool prepared = false;  ///< the sheet that it loads lies on its mat already
    bool lifts_off = false; ///< the sheet that it unloads is lifted off once the machine runs again
    const SheetWork* prepares = nullptr; ///< laid on a spare mat once the machine runs again
    Duration left_over; ///< of what was begun before it, for which the machine did not run long enough
    Duration time;      ///< of the hands while the machine runs after it
};

/// A sheet in the machine from one stop to the next.
struct Leg {
    const SheetWork* sheet = nullptr;
    Duration runs; ///< of the machine, until the next stop
};

/// One for each leg, of the stop at its beginning. `mats`: of each kind at hand; with one, nothing is done
/// meanwhile. A sheet that comes again stays on its mat until it has run for the last time.
std::vector<Meanwhile> meanwhile(const std::vector<Leg>& legs, const Machine& machine, int mats);

} // namespace dotlane
