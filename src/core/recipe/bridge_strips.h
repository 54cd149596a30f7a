// What a bridge takes of its opening. Internal to recipe.
#pragma once

#include "core/geometry/crops.h"
#include "core/geometry/nearest_edge.h"
#include "core/geometry/region_index.h"
#include "core/recipe/bridges.h"

namespace dotlane {

/// What the bridge takes away of its opening: the piece of the strip that its middle lies in, and what more
/// of the strip lies in material. `index`: of the opening. `follow`: its edges, when the bridge's sides are
/// to lie square to the stroke that it crosses, so that they open towards the outside of a bend; null: the
/// sides are parallel.
Region taken_by(const Bridge& bridge, const Crops& opening, const RegionIndex& index,
                const NearestEdge* follow);

/// Whether there is as much material as wished to both sides all along.
bool wide_enough(const Bridge& bridge, const NearestEdge& edges);

} // namespace dotlane
