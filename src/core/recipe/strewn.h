// Points strewn evenly over a region (blue noise). Internal to recipe.
//
// Method: darts that keep a least distance, thrown until nothing fits any more, on cells that are quartered
// where they are not covered yet (M. Ebeida and others, A Simple Algorithm for Maximal Poisson-Disk Sampling,
// 2012). A saturated throw has 0.6965 points on the square of the distance (random sequential adsorption of
// discs covers 0.547: E. L. Hinrichsen, J. Feder and T. Jossang 1986), which is 0.777 of the distance in a
// hexagonal packing of as many; it is thrown a little closer, and what is too many is taken away.
#pragma once

#include "core/base/progress.h"
#include "core/geometry/region.h"

namespace dotlane {

/// `count` points, fewer where the region is too small for so many. The least distance between two of them is
/// at least 0.7 of that of a hexagonal packing of as many on the region's area. The same seed gives the same
/// points, in an order that makes a short way (D. Hilbert 1891).
std::vector<Point> strewn(const Region& region, std::size_t count, std::uint32_t seed, Progress& progress);

/// Puts points of the box into such an order.
void short_way(std::vector<Point>& points, const Box& box);

} // namespace dotlane
