// Marks of a print, as the machine found them.
#pragma once

#include <vector>

#include "core/base/result.h"
#include "core/geometry/point.h"

namespace dotlane {

/// Three places as they were printed and three where they were found, all within 5 m of the mat's corner; or
/// none. Error "sheet.marks".
Result<void> check_found(const std::vector<Point>& found);

} // namespace dotlane
