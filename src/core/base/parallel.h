// Independent pieces of one piece of work, done on as many cores as there are. The order of what they give is
// that of their numbers, so the result does not depend on the cores.
#pragma once

#include <cstddef>
#include <functional>
#include <vector>

namespace dotlane {

/// Calls `work(i)` for each i below `count`, on several threads at once when `cost` (about the number of
/// points that are worked on) is worth them. The calls must not touch what another one writes. What one
/// throws is thrown again, when all have ended.
void in_parallel(std::size_t count, std::size_t cost, const std::function<void(std::size_t)>& work);
/// One call for each cost. What costs more than all others together goes first and alone, so that it can
/// share itself out.
void in_parallel(const std::vector<std::size_t>& costs, const std::function<void(std::size_t)>& work);

} // namespace dotlane
