#include "core/derive/laid.h"

namespace dotlane {

Phrase placed_name(const Project& project, const Placement& p) {
    const std::string& part = find(project, p.part)->name;
    return p.piece > 0 ? say("%1 (piece %2)", part, p.piece) : as_is(part);
}

const PlacedPart* part_at(const LaidSheet& laid, Point p, double within) {
    const PlacedPart* in_box = nullptr;
    for (auto placed = laid.parts.rbegin(); placed != laid.parts.rend(); ++placed) {
        if (!placed->box.grown(within).contains(p)) continue;
        if (placed->footprint->meets(placed->to_sheet.inverse()(p), within)) return &*placed;
        if (!in_box) in_box = &*placed;
    }
    return in_box;
}

} // namespace dotlane
