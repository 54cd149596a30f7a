#include "core/project/fills/triangles.h"

#include <cmath>

#include "core/recipe/lattice.h"

namespace dotlane {

FillLines fill(const TrianglesFill& style, const FillInput& in, Progress& progress) {
    if (style.edge == FillEdge::cut) return families({degrees(0), degrees(60), degrees(120)}, in, progress);
    const Frame frame = frame_of(in);
    const double height = in_mm(in.spacing), side = height * 2 / std::sqrt(3.0);
    std::vector<Ring> cells;
    const Span rows = span_of(frame.box.y0, frame.box.y1, height);
    for (long k = rows.first; k < rows.last; ++k) {
        // Corners of row k lie half a side further to the left with each row.
        const double top = static_cast<double>(k) * height, bottom = top + height;
        const double shift = -static_cast<double>(k) * side / 2, below = shift - side / 2;
        const Span columns = span_of(frame.box.x0 - shift, frame.box.x1 - shift, side);
        for (long i = columns.first; i <= columns.last + 1; ++i) {
            const double x = static_cast<double>(i) * side;
            cells.push_back({{shift + x, top}, {shift + x + side, top}, {below + x + side, bottom}});
            cells.push_back({{shift + x, top}, {below + x + side, bottom}, {below + x, bottom}});
        }
    }
    return whole_cells(cells, frame, in, progress);
}

} // namespace dotlane
