// How often lines cross themselves: what areas are computed of costs as much as there are crossings, and a
// few thousand long strokes can have millions.
#pragma once

#include <cstddef>
#include <cstdint>
#include <optional>

#include "core/geometry/polyline.h"

namespace dotlane {

/// The number of places where edges of the lines properly cross one another, or `most` + 1 when there are
/// more, or when even counting them would take long. Closing edges count, those of open lines with
/// `close_open` too.
std::size_t crossings(const Polylines& lines, bool close_open, std::size_t most);

struct Crossing {
    Point at;           ///< mm
    std::uint32_t a, b; ///< which of the lines; the same where a line crosses itself
};
/// The same places; nothing when there are more than `most`.
std::optional<std::vector<Crossing>> crossings_found(const Polylines& lines, bool close_open,
                                                     std::size_t most);

} // namespace dotlane
