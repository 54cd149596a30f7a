// How often each place of a surface is inked, at the tip's real width. Pure.
#pragma once

#include <cstdint>

#include "core/base/progress.h"
#include "core/geometry/region.h"

namespace dotlane {

/// A picture of squares: to be shown as it is, row by row from the top.
struct Heat {
    enum Ink : std::uint8_t { none, bare, once, twice, over };
    Box box;           ///< that the squares cover, mm
    double square = 0; ///< mm
    long columns = 0, rows = 0;
    std::vector<std::uint8_t> ink; ///< of each square: none (outside, without ink), bare (of the surface),
                                   ///< once, twice or more often, over (the edge)
    /// So much of the surface, or beyond it, is inked like that.
    Area of(Ink ink) const;
};

/// Strokes that run with the tip over a surface. Squares are just under 0.05 mm wide, or so wide that there
/// are no more than thirty million. A stroke that turns inks the place of its corner once; where it comes
/// back to, twice. Nothing when the surface and the strokes are empty, or cancelled.
Heat heat_of(const Region& surface, const Polylines& strokes, Length tip, Progress& progress = no_progress());

} // namespace dotlane
