// Lines that lie on one another.
#pragma once

#include "core/geometry/polyline.h"

namespace dotlane {

/// Lines nearer than this all along are one line twice: below any tool's width.
inline constexpr Length same_line = mm(0.02);

/// For each line the index of an earlier one that it lies on, or -1. Direction and start do not matter.
std::vector<std::ptrdiff_t> doubles_of(const std::vector<const Polyline*>& lines, Length reach = same_line);

} // namespace dotlane
