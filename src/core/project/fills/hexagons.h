// Honeycomb; the spacing is from one flat to the other.
#pragma once

#include "core/project/fills/kind.h"

namespace dotlane {

struct HexagonsFill {
    FillEdge edge = FillEdge::cut;
    bool operator==(const HexagonsFill&) const = default;

    static constexpr FillRow row{
        .key = "hexagons", .name = "Hexagons", .about = "Honeycomb.", .open_mm = 5, .dense = 5};
    friend void fields(HexagonsFill& s, Fields& f) { edge_field(s.edge, f); }
    friend FillLines fill(const HexagonsFill& style, const FillInput& in, Progress& progress);
};

} // namespace dotlane
