// How often lines cross themselves: what areas are computed of costs as much as there are crossings, and a
// few thousand long strokes can have millions.
#pragma once

#include <cstddef>

#include "core/geometry/polyline.h"

namespace dotlane {

/// The number of places where edges of the lines properly cross one another, or `most` + 1 when there are
/// more, or when even counting them would take long. Closing edges count, those of open lines with
/// `close_open` too.
std::size_t crossings(const Polylines& lines, bool close_open, std::size_t most);

} // namespace dotlane
