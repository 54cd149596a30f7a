// What lies on a sheet, and where.
#pragma once

#include "core/derive/footprint.h"
#include "core/sheets/layout.h"

namespace dotlane {

struct PlacedPart {
    Placement placement;
    Affine to_sheet;
    Box box;          ///< on the sheet, of the part's own box turned with it
    Box outline;      ///< on the sheet, of the lines themselves: smaller when the part is turned askew
    Phrase name = {}; ///< as placed_name says
    std::shared_ptr<const Footprint> footprint = nullptr; ///< in part coordinates
};

struct LaidSheet {
    SheetId sheet;
    std::vector<PlacedPart> parts;
    Box usable, stock;
    Length mat_width, mat_height;
};

/// "Lantern sleeve", "Bunting letters (piece 3)".
Phrase placed_name(const Project& project, const Placement& placement);

/// What a point of the sheet meets: the topmost part whose material, outline or lines lie there, within so
/// many mm; failing that the topmost whose box does. Null when there is none.
const PlacedPart* part_at(const LaidSheet& laid, Point p, double within);

} // namespace dotlane
