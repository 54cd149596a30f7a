// Where a part goes when nobody says where.
#pragma once

#include <optional>

#include "core/derive/workshop.h"
#include "core/sheets/arrange.h"

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
/// Places it where there is room: on the sheet, on other sheets of the same stock and mat that come after it,
/// or on a further one that is added. What fits on no such sheet lies on the first, for the checks to say so.
Result<std::vector<PlacementId>> place_free(Project& project, const Catalog& catalog, const Derived& derived,
                                            SheetId sheet, const PlaceWish& wish);
/// Settles placements of a file before version 6, when there are any: what lies on the sheets looks the same
/// and holds on to its source from now on.
void settle_placements(Project& project, Workshop& workshop);

/// What is needed to arrange these placements; those that are not there (any more) are left out.
std::vector<Lying> lying(const Project& project, const Derived& derived, const std::vector<PlacementId>& ids);

/// Places these pieces, the largest first, where there is room. Errors as of `place`.
Result<std::vector<PlacementId>> place_pieces(Project& project, const Catalog& catalog,
                                              const Derived& derived, SheetId sheet, PartId part,
                                              std::vector<int> pieces, Length gap = mm(5));

/// Places all of them on the sheet. Errors as of `place`.
Result<std::vector<PlacementId>> place_all(Project& project, SheetId sheet,
                                           const std::vector<Placement>& places);

/// Copies of what lies there, in the same arrangement and in groups of their own, put at a free place as one.
Result<std::vector<PlacementId>> place_copies(Project& project, const Catalog& catalog,
                                              const Derived& derived, SheetId sheet,
                                              const std::vector<Lying>& of, Length gap = mm(5));

/// Takes the whole arrangements of a part off their sheets and places its pieces one by one, beginning on the
/// first of those sheets. Error "remedy.none" when there are none.
Result<void> lay_out_pieces(Project& project, const Catalog& catalog, const Derived& derived, PartId part);

} // namespace dotlane
