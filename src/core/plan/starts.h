// Where closed lines that are run in a given order begin. Internal to plan.
#pragma once

#include <vector>

#include "core/base/progress.h"
#include "core/plan/route.h"

namespace dotlane {

/// Where a line that is run so begins, and ends.
Point first_point(const Polylines& lines, const RoutedLine& how);
Point last_point(const Polylines& lines, const RoutedLine& how);

/// Travel of the lines in this order, rest to rest; mm.
double travel_of(const Polylines& lines, const std::vector<std::uint32_t>& order,
                 const std::vector<RoutedLine>& how, Point rest);

/// Sets the starts of the closed ones among `order`, in `how`: the least travel of all choices, by dynamic
/// programming along the order (of lines with many points, first over every few of them). Never more
/// travel than before.
void begin_best(const Polylines& lines, const std::vector<std::uint32_t>& order, Point rest,
                std::vector<RoutedLine>& how, Progress& progress);

} // namespace dotlane
