// Where parts lie on their sheet, and whether everything lies where the machine can reach.
#pragma once

#include "core/base/finding.h"
#include "core/catalog/catalog.h"
#include "core/project/project.h"

namespace dotlane {

/// Part coordinates (finished size) to sheet coordinates.
Affine placement_transform(const Placement& placement, const Extent& extent);
/// The box on the sheet that a placement covers.
Box placed_box(const Placement& placement, const Extent& extent);
/// The same placement moved so that the top-left corner of its box on the sheet lies there.
Placement with_box_at(Placement placement, const Extent& extent, Length left, Length top);

/// The same placement turned to `turn` about the middle of its box.
Placement turned_about_middle(const Placement& placement, const Extent& extent, Angle turn);

/// A grid of copies: the first place is the given placement's own. Errors: "place.range".
struct GridOptions {
    int columns = 1, rows = 1; ///< 1..200 each
    Length gap = mm(5);        ///< >= 0
};
Result<std::vector<Placement>> grid(const Placement& first, const Extent& extent, const GridOptions& options);

/// The area the tool may reach: the mat's usable area within the stock when the stock is smaller than the mat
/// (it is laid on the mat's top-left usable corner).
Box usable_area(const Mat& mat, const Stock& stock);
/// Where the stock lies on the mat.
Box stock_area(const Mat& mat, const Stock& stock);

/// Error findings for everything outside the usable area (by how much, on which side). `boxes` gives the ink
/// box of each placed part, in the order of the placements.
Findings check_layout(const Sheet& sheet, const Machine& machine, const Mat& mat, const Stock& stock,
                      const std::vector<Box>& boxes, const std::vector<Phrase>& names);

} // namespace dotlane
