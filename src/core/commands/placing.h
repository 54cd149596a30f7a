// Where a part goes when nobody says where, and where it is said.
#pragma once

#include <optional>

#include "core/commands/command.h"
#include "core/derive/workshop.h"
#include "core/sheets/layout.h"

namespace dotlane {

/// What is to be placed, and how much freedom there is.
struct PlaceWish {
    PartId part;
    int piece = 0;             ///< one arrangement of a part whose pieces may lie apart
    std::optional<Angle> turn; ///< none: turned by a quarter when it only fits so
    bool mirrored = false;
    Length gap = mm(5);      ///< from other parts
    GridOptions copies = {}; ///< placed as one block
};
struct PlacementSpot {
    Placement placement; ///< of the first copy; it has no id yet
    bool fits = false;   ///< false: there is no free place; the spot is the usable area's corner
};

/// A free place on the sheet, as near to its top-left usable corner as there is.
PlacementSpot free_spot(const Project& project, const Catalog& catalog, const Derived* derived, SheetId sheet,
                        const PlaceWish& wish);
/// Top-left corner of a free place of that size, mm; the usable area's when there is none. Error
/// "place.missing": there is no such sheet.
Result<Point> free_corner(const Project& project, const Catalog& catalog, const Derived& derived,
                          SheetId sheet, double width, double height, Length gap);

/// With `left` or `top` (of its box on the sheet; 0 for the one that is not given) it lies there, whatever
/// else does, and nothing is turned unasked. Otherwise it is placed where there is room: on the sheet, on
/// other sheets of the same stock and mat that come after it, or on a further one that is added; what fits on
/// no such sheet lies on the first, for the checks to say so. A part whose pieces may lie apart is placed by
/// PlacePieces then, unless copies or a piece are asked for. Errors: "place.missing", "place.piece",
/// "place.range".
struct PlacePart {
    SheetId sheet;
    PlaceWish wish;
    std::optional<Length> left = {}, top = {};
};
Result<Done> apply(const PlacePart& command, Project& project, const Catalog& catalog,
                   const Derived& derived);

/// Pieces that may lie apart, the largest first, each where there is room. `pieces` empty: those that lie on
/// the sheets less often than the part is wanted; when none is missing, each once more if `again`, else none.
/// Error "place.piece" when they lie as one, "place.missing".
struct PlacePieces {
    SheetId sheet;
    PartId part;
    std::vector<int> pieces = {};
    bool again = false;
    Length gap = mm(5);
};
Result<Done> apply(const PlacePieces& command, Project& project, const Catalog& catalog,
                   const Derived& derived);

/// Takes the whole arrangements of a part off their sheets and places its pieces one by one, beginning on the
/// first of those sheets. Error "remedy.none" when there are none.
struct LayOutPieces {
    PartId part;
};
Result<Done> apply(const LayOutPieces& command, Project& project, const Catalog& catalog,
                   const Derived& derived);

/// Settles placements of a file before version 6, when there are any: what lies on the sheets looks the same
/// and holds on to its source from now on.
void settle_placements(Project& project, Workshop& workshop);

} // namespace dotlane
