// Line sets as layers that lie on one another. Internal to recipe.
#pragma once

#include "core/recipe/hidden.h"
#include "core/recipe/step.h"

namespace dotlane {

/// A line set: its closed lines in the order in which they lie.
struct Ply {
    const WorkSet* set;
    const FlatLine* foremost = nullptr; ///< that stands for all that is kept of them; null: it has no area
    Region whole, seen, kept;           ///< `kept` is left to those who knock out
};

struct Plies {
    std::vector<Ply> layers; ///< in the order of the sets
    std::vector<std::size_t>
        by_rank;           ///< of layers with an area, each where its foremost line lies; lowest first
    int open = 0;          ///< lines that bound no area
    bool by_turns = false; ///< a layer lies above another and below it too
};

/// Of the sets that bound an area, each where its foremost line lies; the lowest first.
std::vector<std::size_t> layer_ranks(const std::vector<const WorkSet*>& of);

/// `order`: of the sets, numbered from 1, the lowest first; empty: as they are drawn. Ends
/// early when cancelled.
Plies plies_of(const std::vector<const WorkSet*>& of, const std::vector<int>& order, Progress& progress);

} // namespace dotlane
