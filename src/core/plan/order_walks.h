// Of many sheets: a bound from below of the hands' time, whatever their order, and a search for a better
// order that it leads. Internal to plan; see sequence.h.
//
// Bound: walks that run as many sheets as there are. They know what the slots hold, but not which sheets have
// run: only that none comes again right behind itself, or behind one other. (Christofides, Mingozzi and Toth
// 1981 relax the states of a tour so.) Each sheet has a price, which a walk is given back for running it: the
// cheapest walk and the sum of the prices are no more than any order takes, whatever the prices. They begin
// at the least that each sheet takes, and move towards the sheets that the cheapest walk leaves out, away
// from those it runs twice (Held and Karp 1971). Both sources from memory.
//
// Search: orders are built sheet by sheet. What a walk would still take from there, at these prices, tells
// which go on: the best of those that have run as many sheets, and none that cannot become better than the
// order that is known. When no other one had to be left out, what is found is the least.
#pragma once

#include <cstdint>
#include <functional>
#include <vector>

#include "core/base/progress.h"
#include "core/plan/sheet_ways.h"

namespace dotlane {

struct OrderWalk {
    struct Step {
        std::size_t sheet = 0;
        Holds before = 0;
        std::size_t way = 0; ///< of `SheetWays::ways(sheet, before)`
    };
    std::int64_t least = 0;   ///< milliseconds; 0: too much would have to be weighed (a count), or cancelled
    std::vector<Step> better; ///< an order that takes fewer than the known one; empty: none was found
    std::int64_t hands = 0;   ///< milliseconds that it takes
};

/// `known`: milliseconds that some order takes; `may_run`: whether the sheet may be the so-manieth, from 1.
/// The ways over sheets of more than `exact_passes` are those in the usual order, here as elsewhere. Makes
/// `ways` keep all of them.
OrderWalk walk_orders(const Job& job, SheetWays& ways, std::int64_t known,
                      const std::function<bool(std::size_t sheet, int place)>& may_run,
                      const Progress& progress);

} // namespace dotlane
