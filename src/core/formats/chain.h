// What formats without paths need: pieces whose ends meet become one line.
#pragma once

#include "core/project/drawing.h"

namespace dotlane {

/// Open lines of one contour, of the same group and stroke colour, are joined where exactly two ends lie
/// within `reach` of each other; rings close. The order of the first pieces is kept.
std::vector<DrawnLine> chained(std::vector<DrawnLine> lines, Length reach);

/// The page becomes the drawing's own box, moved to the origin.
void settle_page(Drawing& drawing);

} // namespace dotlane
