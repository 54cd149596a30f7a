// What a part, or an arrangement of its pieces, needs of the sheet: for what lies on one another, what lies
// out of reach and what a press meets. Part coordinates.
#pragma once

#include <map>
#include <mutex>
#include <optional>

#include "core/geometry/region_index.h"
#include "core/recipe/evaluate.h"

namespace dotlane {

class Footprint {
  public:
    using Actions = std::map<LaneId, Action>; ///< of the lanes that it runs in
    Footprint(std::shared_ptr<const EvaluatedPart> part, int piece, Actions actions);

    const EvaluatedPart& part() const { return *part_; }
    /// Whether there is something to lie there: see is_there.
    bool there() const { return there_; }
    const Extent& extent() const { return extent_; }

    // What follows is made when it is first asked for, on any thread.
    /// Hull of all lines; the corners of the box where there are none.
    const std::vector<Point>& hull() const;
    struct Ground {
        Region material;   ///< what its cut outlines leave, holes open
        Polylines cuts;    ///< that part material
        Polylines marks;   ///< all other runs, strokes of fills left out
        Region inked;      ///< around what has no cut outline: what its closed marks bound
        RegionIndex index; ///< of the material, or of what is inked
    };
    const Ground& ground() const;
    /// Whether the point meets it, or a line of it is nearer than `within` mm.
    bool meets(Point p, double within) const;

  private:
    std::shared_ptr<const EvaluatedPart> part_;
    int piece_;
    Actions actions_;
    bool there_;
    Extent extent_;
    mutable std::once_flag hull_made_, ground_made_;
    mutable std::vector<Point> hull_;
    mutable std::optional<Ground> ground_;
};

} // namespace dotlane
