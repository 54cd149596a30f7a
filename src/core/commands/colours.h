// Near colours of a drawing that count as one, so that each needs no sheet of its own.
#pragma once

#include "core/commands/command.h"
#include "core/project/drawing.h"

namespace dotlane {

struct ColourGroup {
    Colour shown;                ///< of its members the one that covers most
    std::vector<Colour> members; ///< `shown` first, the others by what they cover
    std::vector<LineId> lines;   ///< in the order of the drawing
    double farthest = 0;         ///< CIEDE2000 from `shown` to a member
};
/// Colours of the drawing's lines (of the fill, else of the stroke): those that cover most take in what
/// differs from them by no more than `within`, so that no chain of near colours runs from one to a far one.
/// In the order of their first lines; lines without a colour are in none.
std::vector<ColourGroup> colour_groups(const Drawing& drawing, double within);

/// From now on colours of the part that differ by no more than `within` (CIEDE2000, 0..50) count as one: when
/// it is taken apart by colour, and in steps whose layers are colours. Colours stay as they were drawn.
/// Errors: "colours.range", "colours.none" (a part that is computed).
struct JoinColours {
    PartId part;
    double within = 0;
};
Result<Done> apply(const JoinColours& command, Project& project);

} // namespace dotlane
