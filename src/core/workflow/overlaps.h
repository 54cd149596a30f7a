// What lies on one another on a sheet, by true outlines: what is cut through is an error, what is only marked
// over a caution. A part in the hole of another, or two that interlock, overlap in nothing but their boxes.
#pragma once

#include <map>
#include <memory>

#include "core/workflow/workshop.h"

namespace dotlane {

/// What a part, or an arrangement of its pieces, needs of the sheet; part coordinates.
struct Footprint {
    Region material; ///< what its cut outlines leave, holes open
    Polylines cuts;  ///< that part material
    Polylines marks; ///< all other runs, strokes of fills left out
    Region inked;    ///< around what has no cut outline: what its closed marks bound
};
Footprint footprint_of(const Project& project, const EvaluatedPart& part, int piece);

/// Keeps footprints while their parts stay the same.
class Footprints {
  public:
    std::shared_ptr<const Footprint> of(const Project& project, std::shared_ptr<const EvaluatedPart> part,
                                        int piece);
    void keep_only(const std::map<PartId, std::shared_ptr<const EvaluatedPart>>& parts);

  private:
    struct Entry {
        std::shared_ptr<const EvaluatedPart> part;
        std::map<LaneId, Action> actions;
        std::map<int, std::shared_ptr<const Footprint>> pieces;
    };
    std::map<PartId, Entry> entries_;
};

/// "sheet.cut-through" (error) and "sheet.overlap" (caution), each once for a pair. Overlaps of under 0.05 mm
/// are edges that touch.
Findings check_overlaps(const Project& project, const Derived& derived, Footprints& footprints);

} // namespace dotlane
