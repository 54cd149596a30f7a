// Courses of bricks.
#pragma once

#include "core/project/fills/kind.h"

namespace dotlane {

struct BricksFill {
    enum class Bond { running, third, stacked };
    Length brick = mm(9); ///< length of one, 0.2..500 mm; the spacing is its height
    Bond bond = Bond::running;
    FillEdge edge = FillEdge::cut;
    bool operator==(const BricksFill&) const = default;

    static constexpr FillRow row{
        .key = "bricks", .name = "Bricks", .about = "Courses of bricks.", .open_mm = 4, .dense = 4};
    friend void fields(BricksFill& s, Fields& f) {
        f.length({"brick", "brick length", "The spacing is its height"}, s.brick, mm(0.2), mm(500));
        f.one_of({"bond", "bond", "How far each course is shifted: half a brick, a third, not at all"},
                 s.bond, {"running", "third", "stacked"});
        edge_field(s.edge, f);
    }
    friend FillLines fill(const BricksFill& style, const FillInput& in, Progress& progress);
};

} // namespace dotlane
