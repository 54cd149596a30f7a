// Rings that have nothing to do with each other, told apart before they are united or offset: a sweep over
// all at once costs every vertex a look at every edge at its height, a sweep over each cluster only at its
// own.
//
// Two rings belong together when an edge of one comes near the box of the other. A ring that lies well inside
// another, away from its edges, does not belong to it; it only has to know how often the other winds around
// it.
#pragma once

#include <array>
#include <vector>

#include "core/geometry/polyline.h"

namespace dotlane {

struct ClusterRing {
    const std::vector<Point>* points = nullptr; ///< not empty
    bool closed = true;
    int kind = 0; ///< 0 or 1: windings are counted for each
};

struct Cluster {
    std::vector<std::uint32_t> rings; ///< indices, ascending
    Box box;
    bool mixed = false; ///< holds rings of both kinds
    /// How often the closed rings of all other clusters wind around this one, by kind; positive for rings of
    /// positive area. Around clean rings that are all of one kind, those of that kind are not counted.
    std::array<int, 2> around{};
};

/// What is known of rings of one kind: `clean` ones are simple and do not cross, though they may touch in
/// points, so only rings of different kinds can belong together.
enum class Known { nothing, clean };

/// `reach`, mm: boxes grown by it must stay clear of each other's edges. >= 0
std::vector<Cluster> clusters(const std::vector<ClusterRing>& rings, double reach,
                              Known known = Known::nothing);

/// How many pairs of rings lie in one another by their boxes, counted up to `most`: what `clusters` costs, in
/// time and memory, when rings are nested deeply.
std::size_t nested_pairs(const std::vector<ClusterRing>& rings, std::size_t most);

} // namespace dotlane
