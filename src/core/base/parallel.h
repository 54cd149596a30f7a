// Independent pieces of one piece of work, done on as many cores as there are. The order of what they give is
// that of their numbers, so the result does not depend on the cores.
#pragma once

#include <cstddef>
#include <functional>

namespace dotlane {

/// Calls `work(i)` for each i below `count`, on several threads at once when `cost` (about the number of
/// points that are worked on) is worth them. The calls must not touch what another one writes. What one
/// throws is thrown again, when all have ended.
void in_parallel(std::size_t count, std::size_t cost, const std::function<void(std::size_t)>& work);

} // namespace dotlane
