#include "core/project/fills/grid.h"

#include "core/recipe/lattice.h"

namespace dotlane {

FillLines fill(const GridFill& style, const FillInput& in, Progress& progress) {
    const Frame frame = frame_of(in);
    FillLines out;
    if (style.edge == FillEdge::cut) {
        out = families({degrees(0), degrees(90)}, in, progress);
        const CellCount count = squares_in(in.outline ? *in.outline : in.region, frame, in.spacing);
        out.cells = count.whole, out.edge_cells = count.cut;
        return out;
    }
    const double s = in_mm(in.spacing);
    std::vector<Ring> cells;
    const Span rows = span_of(frame.box.y0, frame.box.y1, s),
               columns = span_of(frame.box.x0, frame.box.x1, s);
    for (long k = rows.first; k < rows.last; ++k)
        for (long i = columns.first; i < columns.last; ++i) {
            const double x = static_cast<double>(i) * s, y = static_cast<double>(k) * s;
            cells.push_back({{x, y}, {x + s, y}, {x + s, y + s}, {x, y + s}});
        }
    return whole_cells(cells, frame, in, progress);
}

} // namespace dotlane
