// A scribble whose ink is brought to what is wished. Internal to recipe.
//
// Method: corners of the way are taken in, left out and shifted, and stretches between two of them gone the
// other way around (2-opt: G. Croes 1958), whenever that makes the windows of `tone_windows.h` less bad.
// Where nothing of that helps any more and some windows are still off, some corners around the worst are left
// out or taken in at random and what is around is mended anew; that stays when all is less bad then, and is
// put back otherwise (iterated local search: H. Lourenco, O. Martin and T. Stutzle 2003). The same seed gives
// the same way.
#pragma once

#include "core/recipe/thinned.h"

namespace dotlane {

/// `way`: open, through places of the lattice and along the piece's edge; its two ends stay. `lattice`:
/// places in the piece that may be taken in. As it is when cancelled.
Polyline mended_scribble(const Polyline& way, const std::vector<Candidate>& lattice, const Region& piece,
                         Length tip, const Tone& tone, std::uint32_t seed, Progress& progress);

} // namespace dotlane
