// Parallel fill of a region.
//
// General: the region is turned so that the lines run level; every edge is walked once and leaves one
// crossing on each line it meets, so the work is proportional to edges plus crossings, whatever the number of
// lines. Joined ends follow the region's own edge between two neighbouring crossings; such a join lies on the
// boundary of the (inset) region by construction and can never leave it or bridge a hole. Where a run would
// end, it is linked to the nearest other one along the same edge, if that is within `reach`: over ink that is
// there or along the edge, instead of a lift.
//
// Contract: the result lies in the closed region. Lines are `spacing` apart. With Phase::centred the bundle
// is centred on the region's extent across the lines, which leaves the same rest on both sides; with
// Phase::origin line k lies at (k + 1/2) * spacing from the origin, so that neighbouring regions line up;
// with Phase::through one line runs through a given point. A line along the very edge of the region is left
// out.
#pragma once

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/base/units.h"
#include "core/geometry/region.h"
#include "core/project/fills/kind.h"
#include "core/recipe/line_net.h"

namespace dotlane {

struct HatchOptions {
    enum class Phase { centred, origin, through };
    Length spacing = mm(0.4); ///< > 0
    Angle angle;              ///< of the lines against the x axis
    FillEnds ends = FillEnds::joined;
    bool alternate = true; ///< separate lines only: every other row runs backwards
    Phase phase = Phase::centred;
    Length reach = mm(10); ///< joined only: longest way along the edge that is gone instead of a lift; >= 0
    Point through;         ///< Phase::through only: a line runs through it
    Length least;          ///< `add_rows` only: shorter lines are left out
};

struct HatchResult {
    Polylines lines;        ///< one for each run of the tool without a lift
    std::size_t rows = 0;   ///< hatch lines that met the region
    std::size_t pieces = 0; ///< straight fill pieces before joining
    Length filled;          ///< length of the straight pieces alone
};

/// Adds the lines to a net over the region's rings, numbering rows from `row` on, which is moved on.
void add_rows(NetMaker& to, const Region& region, const HatchOptions& options, std::uint32_t& row);

HatchResult hatch(const Region& region, const HatchOptions& options, Progress& progress = no_progress());

} // namespace dotlane
