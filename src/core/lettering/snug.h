// Bringing neighbouring letters together until they overlap, so that a word can be cut as one piece.
#pragma once

#include "core/geometry/region.h"

namespace dotlane {

struct SnugFit {
    bool possible = false; ///< false: no shift makes them overlap without closing a counter
    Length shift;          ///< to the left for the right letter; 0 when they overlap enough as they stand
};
/// The least shift of `right` to the left at which the two overlap by `overlap`, measured level where they
/// come nearest to each other, and no counter of either is entered by the other. Levels are taken every
/// `step`.
SnugFit snug_fit(const Region& left, const Region& right, Length overlap, Length step = mm(0.05));

} // namespace dotlane
