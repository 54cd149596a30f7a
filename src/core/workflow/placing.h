// Where a part goes when nobody says where.
#pragma once

#include <optional>

#include "core/workflow/workshop.h"

namespace dotlane {

struct PlacementSpot {
    Length left, top;
    Angle turn;
    bool fits = false; ///< false: there is no free place; the spot is the usable area's corner
};

/// A free place on the sheet, as near to its top-left usable corner as there is, `gap` from other parts. The
/// part is turned by a quarter when it only fits so; a given `turn` is kept.
PlacementSpot free_spot(const Project& project, const Catalog& catalog, const Derived* derived, SheetId sheet,
                        PartId part, std::optional<Angle> turn = {}, Length gap = mm(5));

} // namespace dotlane
