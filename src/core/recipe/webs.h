// The strips of material between openings, and to the sheet's edge. Internal to recipe.
#pragma once

#include <optional>

#include "core/base/progress.h"
#include "core/geometry/region.h"

namespace dotlane {

struct Web {
    Point a, b; ///< where two openings, or an opening and the sheet's edge, come nearest
    Length width;
    std::size_t from = 0, to = 0; ///< rings of the openings; behind their last: the sheet's edge
};
/// Between different openings, and to the edge of `sheet` (when it is valid): all places narrower than
/// `least`, of each pair of edges the narrowest, and in front the narrowest of all, however wide.
std::vector<Web> webs(const Region& openings, const Box& sheet, Length least, Progress& progress);

/// Where material is narrower than `width`, between two openings or two parts of one's edge, as far as that
/// is a strip: the tip of a corner is none unless it is sharper than 11 degrees, nor then when no more than
/// twice that wide is what it ends. The middles of the strips, one for each point of an edge that lies at one.
std::vector<Point> webs_under(const Region& openings, Length width);

/// The openings, smaller just where a strip of material between them or to the sheet's edge is narrower. An
/// empty sheet: strips between openings alone.
Region widened(const Region& openings, const Box& sheet, Length least, Progress& progress);

/// Without as many of the openings as it takes until no strip is narrower: of two that are too near, the one
/// that is too near to more of them goes, else the smaller.
Region thinned_out(const Region& openings, const Box& sheet, Length least, Progress& progress);

/// By how much openings have to move away from a middle, as a share of their way from it, until no strip
/// between them is narrower: each with what lies within it. 0: they may stay; none when three times the way
/// would not do.
std::optional<double> spread_share(const Region& openings, Point middle, Length least, Progress& progress);
Region spread_by(const Region& openings, Point middle, double share);

} // namespace dotlane
