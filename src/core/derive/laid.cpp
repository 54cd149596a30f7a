#include "core/derive/laid.h"

namespace dotlane {

std::string placed_name(const Project& project, const Placement& p) {
    return find(project, p.part)->name + (p.piece > 0 ? " (piece " + std::to_string(p.piece) + ")" : "");
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
