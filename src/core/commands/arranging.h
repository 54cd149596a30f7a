// What can be done with what lies on a sheet: moved, turned, mirrored, lined up, spread, grouped, copied,
// taken off. What is grouped with what is named goes along, and a group keeps its arrangement.
#pragma once

#include <optional>

#include "core/commands/command.h"
#include "core/derive/derived.h"
#include "core/sheets/arrange.h"

namespace dotlane {

/// What is needed to arrange these placements; those that are not there (any more) are left out.
std::vector<Lying> lying(const Project& project, const Derived& derived, const std::vector<PlacementId>& ids);

/// What it is lined up with, or spread over.
enum class Frame {
    reach,  ///< what the tool reaches of the sheet
    stock,  ///< the sheet of stock
    others, ///< the box of all of them
    lead,   ///< one of those that lie there
};

/// Errors of all of these: "place.missing" when one lies on no sheet, "place.piece" when none of them is
/// there any more, "place.sheets" when they lie on several sheets.
struct Placed {
    std::vector<PlacementId> placed;
};

/// To the right and down on the sheet.
struct ShiftPlaced : Placed {
    Length right, down;
};
Result<Done> apply(const ShiftPlaced& command, Project& project);

/// Clockwise about their common middle, as one.
struct TurnPlaced : Placed {
    Angle by;
};
Result<Done> apply(const TurnPlaced& command, Project& project, const Catalog& catalog,
                   const Derived& derived);

/// Left to right about their common middle, as one.
struct MirrorPlaced : Placed {};
Result<Done> apply(const MirrorPlaced& command, Project& project, const Catalog& catalog,
                   const Derived& derived);

/// An edge or the middle of each goes to that of the frame. `lead`: with Frame::lead.
struct LineUp : Placed {
    Frame with = Frame::reach;
    PlacementId lead = {};
    Across across = Across::leave;
    Down down = Down::leave;
};
Result<Done> apply(const LineUp& command, Project& project, const Catalog& catalog, const Derived& derived);

/// Equal gaps between them; the outermost stay, or go to the edges of the sheet's stock or reach. Errors:
/// "arrange.few", "arrange.tight".
struct Spread : Placed {
    Way way = Way::across;
    Frame with = Frame::others;
};
Result<Done> apply(const Spread& command, Project& project, const Catalog& catalog, const Derived& derived);

/// From now on they are moved together. Errors: those of group_placements.
struct GroupPlaced : Placed {};
Result<Done> apply(const GroupPlaced& command, Project& project);
struct UngroupPlaced : Placed {};
Result<Done> apply(const UngroupPlaced& command, Project& project);

/// Copies in the same arrangement and in groups of their own, put at a free place of their sheet as one.
struct CopyPlaced : Placed {
    Length gap = mm(5); ///< from what lies there
};
Result<Done> apply(const CopyPlaced& command, Project& project, const Catalog& catalog,
                   const Derived& derived);

/// They lie nowhere then. What is grouped with them stays.
struct TakeOff : Placed {};
Result<Done> apply(const TakeOff& command, Project& project);

/// Where one lies. What is not given stays; `left` and `top` are those of its box on the sheet, `turn` is
/// about its middle, mirrored is what is seen.
struct ChangePlaced {
    PlacementId placed;
    std::optional<Length> left = {}, top = {};
    std::optional<Angle> turn = {};
    std::optional<bool> mirrored = {};
};
Result<Done> apply(const ChangePlaced& command, Project& project, const Catalog& catalog,
                   const Derived& derived);

/// More of one, in a grid whose first place is its own. Error "place.range".
struct CopyInGrid {
    PlacementId placed;
    GridOptions grid;
};
Result<Done> apply(const CopyInGrid& command, Project& project, const Catalog& catalog,
                   const Derived& derived);

} // namespace dotlane
