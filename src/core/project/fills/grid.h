// Squares of the spacing's size.
#pragma once

#include "core/project/fills/kind.h"

namespace dotlane {

struct GridFill {
    FillEdge edge = FillEdge::cut;
    bool operator==(const GridFill&) const = default;

    static constexpr FillRow row{.key = "grid", .name = "Grid", .about = "Squares, counted.", .open_mm = 5};
    friend void fields(GridFill& s, Fields& f) { edge_field(s.edge, f); }
    friend FillLines fill(const GridFill& style, const FillInput& in, Progress& progress);
};

} // namespace dotlane
