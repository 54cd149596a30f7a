// Every edge of a ring moved along its normal and joined again at the corners: the ring's inside, grown or
// shrunk, is then where that winds positively. For the sources of this folder only.
//
// Why: what is passed over while the edges move adds one to the winding, and takes one away where edges have
// moved through one another beside an inner corner. Of the parts of a ring that lie within reach of a place,
// each adds one in all: along it the distance to the place has one least value more than greatest ones (Morse
// theory, on a line). Only a ring all of which lies within reach adds none; no place is within reach of all
// of one that is wider or higher than twice the reach. The inner corners of smaller rings are led through the
// corner itself, which takes nothing away. Chords of round corners fall short of the reach, so no more is
// taken away than lies within what they cover.
#pragma once

#include <optional>

#include "core/geometry/grid.h"

namespace dotlane {

class MovedEdges {
  public:
    /// All in steps of the grid. `by`: outwards of rings of positive area. `mitre_limit`: corners run on so
    /// far, times `by`, and are squared beyond; without it they are round, no farther than `arc_tolerance`
    /// from the arc.
    MovedEdges(double by, std::optional<double> mitre_limit, double arc_tolerance);
    /// The ring has three points or more, none where the one before is.
    ClipperLib::Path operator()(const ClipperLib::Path& ring) const;

  private:
    double by_, covered_;               ///< how far, and how far chords cover
    std::optional<double> least_mitre_; ///< 1 + cosine of the sharpest corner that runs on
    double steps_a_radian_ = 0, sine_ = 0, cosine_ = 1;
};

} // namespace dotlane
