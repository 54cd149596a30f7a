// Whether an outline fits what the machine reaches of a mat and a stock, turned by any angle.
#pragma once

#include <optional>
#include <vector>

#include "core/catalog/catalog.h"
#include "core/geometry/polyline.h"

namespace dotlane {

/// The corners of the convex hull of the points, by Andrew's monotone chain (A. M. Andrew, Another efficient
/// algorithm for convex hulls in two dimensions, 1979); empty for no points.
std::vector<Point> hull_of(std::vector<Point> points);
std::vector<Point> hull_of(const std::vector<const Polylines*>& lines);

enum class FitWay { straight, quarter, angled };
/// How an outline fits a rectangle: as it is, turned by a quarter, or turned by any angle between two.
struct TurnedFit {
    FitWay way = FitWay::straight;
    Angle from, to; ///< the angles at which it fits; equal unless angled
    Angle best;     ///< that with the most room left
};
/// `width`, `height` > 0, mm. None when it fits at no angle; a range of angles narrower than 0.01 degree may
/// be missed.
std::optional<TurnedFit> fit_within(const std::vector<Point>& hull, double width, double height);

struct SheetFit {
    const Stock* stock;
    const Mat* mat;
    TurnedFit turned;
};
/// The sizes of the catalog's stocks that take the outline within what the machine reaches on one of its
/// mats: for each the mat on which it is turned least. The smallest first.
std::vector<SheetFit> sheet_fits(const Catalog& catalog, const Machine& machine,
                                 const std::vector<Point>& hull);
/// The largest area that the machine reaches on any of its mats with any stock.
Box largest_reach(const Catalog& catalog, const Machine& machine);

} // namespace dotlane
