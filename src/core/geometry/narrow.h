// Where an area is narrower than its material bears: whole pieces, necks between wider parts, slivers that
// hang on at one end.
//
// Method: what no disc of the least width can reach (the area less its morphological opening; J. Serra, Image
// Analysis and Mathematical Morphology, 1982) falls into spots. A spot that touches the rest in two places is
// a neck. One that touches it in one place is a sliver when it is long and thin; otherwise it is a corner,
// which every sharp one has.
#pragma once

#include <vector>

#include "core/base/progress.h"
#include "core/geometry/region.h"

namespace dotlane {

struct NarrowPlace {
    enum class Kind { piece, small_piece, neck, sliver } kind = Kind::piece;
    Box box;      ///< of the narrow spot, or of the piece
    Length width; ///< at the narrowest; of a small piece, the square root of its area
    Region area;
};

struct NarrowPlaces {
    std::vector<NarrowPlace> places; ///< by their left edges
    std::size_t unchecked = 0;       ///< pieces with more points than are looked into
};

/// Ends early with what it has when cancelled. `least_size`: pieces whose square root of area is below it are
/// small; 0: none is.
NarrowPlaces narrow_places(const Region& region, Length least_width, Length least_size,
                           std::size_t most_points = 20'000, Progress& progress = no_progress());

/// Of one piece: necks that are narrower, and limbs that hang on at one end and are longer than 2.5 times as
/// far as they join it: a corner is none unless it is sharper than 26 degrees.
std::vector<NarrowPlace> narrow_limbs(const Region& piece, Length width);

/// Whether a disc of that width finds room somewhere in it: whether something is left when its edge moves in
/// by half of it.
bool is_wider_than(const Region& region, Length width);

} // namespace dotlane
