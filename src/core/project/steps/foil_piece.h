// The pieces of foil to lay over what is foiled, as lines to draw before: where each goes, and how large it
// is to be cut from the roll.
#pragma once

#include "core/project/roles.h"
#include "core/project/steps/kind.h"

namespace dotlane {

struct FoilPieceStep {
    Length margin = mm(6);  ///< around the lines, to be held down by, 0..100 mm
    Length gather = mm(25); ///< lines that are nearer than this share a piece, 0..1000 mm
    Length whole = mm(5);   ///< sides are rounded up to this, as they are measured by hand, 0: not, 0..50 mm
    bool operator==(const FoilPieceStep&) const = default;

    const char* role() const { return role::placement; } // drawn: the hot tip would foil it

    static constexpr StepRow row{.key = "foil-piece",
                                 .name = "Piece of foil",
                                 .about = "Where foil is laid over lines, and how large its pieces are.",
                                 .wanted = StepRow::Wanted::place,
                                 .makes = true,
                                 .by_role = true,
                                 .foiled = true};
    friend void fields(FoilPieceStep& s, Fields& f) {
        f.length({"margin", "margin", "Around the lines, to be held down by"}, s.margin, mm(0), mm(100));
        f.length({"gather", "one piece up to", "Lines that lie nearer share a piece"}, s.gather, mm(0),
                 mm(1000));
        f.length({"whole", "rounded up to", "Sides as they are measured by hand; 0: exact"}, s.whole, mm(0),
                 mm(50));
    }
    friend StepOutcome run(const FoilPieceStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
