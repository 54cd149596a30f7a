// What styles draw that are lighter and darker from place to place. Internal to recipe.
#pragma once

#include "core/recipe/fill.h"
#include "core/recipe/thinned.h"

namespace dotlane {

/// Places on a staggered lattice in the region, each strayed by up to so much of the pitch, row by row.
/// Ends early when cancelled.
std::vector<Candidate> lattice_of(const Region& region, double pitch, double stray, std::uint32_t seed,
                                  const Progress& progress);

/// Of lines that stand the spacing apart, the stretches that make it as dark as `in.tone` says.
FillLines toned_lines(const Polylines& lines, const FillInput& in, Progress& progress);
/// Dots that do, in an order that makes a short way.
FillLines toned_dots(const FillInput& in, std::uint32_t seed, Progress& progress);
/// One restless line through each piece that does. `wild`: how far it strays from a lattice, 0..1.
FillLines toned_scribble(const FillInput& in, double wild, std::uint32_t seed, Progress& progress);

} // namespace dotlane
