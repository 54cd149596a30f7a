#include "core/recipe/fill.h"

namespace dotlane {

void FillLines::add(FillLines other) {
    lines.insert(lines.end(), std::make_move_iterator(other.lines.begin()),
                 std::make_move_iterator(other.lines.end()));
    rows += other.rows, pieces += other.pieces, cells += other.cells, edge_cells += other.edge_cells;
}

FillLines filled(const FillStyle& style, const FillInput& in, Progress& progress) {
    return std::visit([&](const auto& s) { return fill(s, in, progress); }, style);
}

} // namespace dotlane
