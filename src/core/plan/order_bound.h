// A bound from below of the hands' time that many sheets take, whatever their order. Internal to plan; see
// sequence.h.
//
// Method: walks that run as many sheets as there are. They know what the slots hold, but not which sheets
// have run: only that none comes again right behind itself, or behind one other. (Christofides, Mingozzi and
// Toth 1981 relax the states of a tour so.) Each sheet has a price, which a walk is given back for running
// it: the cheapest walk and the sum of the prices are no more than any order takes, whatever the prices. They
// begin at the least that each sheet takes, and move towards the sheets that the cheapest walk leaves out,
// away from those it runs twice (Held and Karp 1971). Both sources from memory.
#pragma once

#include <cstdint>

#include "core/base/progress.h"
#include "core/plan/sheet_ways.h"

namespace dotlane {

/// Milliseconds; 0 when too much would have to be weighed to tell (a count, the same on every machine) or
/// when cancelled. `known`: what some order takes; no more is returned. The ways over sheets of more than
/// `exact_passes` are those in the usual order, here as elsewhere. Changes what `ways` keeps.
std::int64_t order_bound(const Job& job, SheetWays& ways, std::int64_t known, const Progress& progress);

} // namespace dotlane
