// Equilateral triangles; the spacing is their height.
#pragma once

#include "core/project/fills/kind.h"

namespace dotlane {

struct TrianglesFill {
    FillEdge edge = FillEdge::cut;
    bool operator==(const TrianglesFill&) const = default;

    static constexpr FillRow row{
        .key = "triangles", .name = "Triangles", .about = "Equilateral triangles.", .open_mm = 5};
    friend void fields(TrianglesFill& s, Fields& f) { edge_field(s.edge, f); }
    friend FillLines fill(const TrianglesFill& style, const FillInput& in, Progress& progress);
};

} // namespace dotlane
