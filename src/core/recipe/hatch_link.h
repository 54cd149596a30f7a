// Links the runs of a joined fill along the region's edge, so that the tool lifts less often. Internal to
// recipe.
#pragma once

#include "core/geometry/region.h"

namespace dotlane {

/// Where a run ends: on which ring, and how far along it.
struct RunEnd {
    std::uint32_t ring = 0;
    double along_mm = 0;
};

/// A run of the tool; both its ends lie on the region's edge.
struct FillRun {
    std::vector<Point> points;
    RunEnd head, tail;
};

/// Links runs whose ends are at most `reach` apart along one ring, the nearest first, until none is left. The
/// way follows the ring, over ink that is there already or along the edge: it never leaves the region.
/// Lengths of the rings' points from their first one: see `ring_lengths`.
std::vector<FillRun> linked(std::vector<FillRun> runs, const std::vector<Ring>& rings,
                            const std::vector<std::vector<double>>& lengths, double reach_mm);

/// For each ring the length from its first point to each of its points, and last the whole way round.
std::vector<std::vector<double>> ring_lengths(const std::vector<Ring>& rings);

} // namespace dotlane
