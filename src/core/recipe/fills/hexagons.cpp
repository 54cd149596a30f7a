#include "core/project/fills/hexagons.h"

#include <cmath>

#include "core/recipe/lattice.h"

namespace dotlane {

FillLines fill(const HexagonsFill& style, const FillInput& in, Progress& progress) {
    const Frame frame = frame_of(in);
    const double wide = in_mm(in.spacing), side = wide / std::sqrt(3.0), pitch = 1.5 * side;
    const Span rows = span_of(frame.box.y0, frame.box.y1, pitch),
               halves = span_of(frame.box.x0, frame.box.x1, wide / 2);
    // Row k zigzags about its height; its lower points hang on upright sides to the upper points of the next
    // row.
    const auto lower = [](long k, long i) { return (k + i) % 2 != 0; };
    const auto at = [&](long k, long i) {
        const double y = static_cast<double>(k) * pitch;
        return Point{static_cast<double>(i) * wide / 2, lower(k, i) ? y + side / 4 : y - side / 4};
    };
    if (style.edge == FillEdge::whole) {
        std::vector<Ring> cells;
        for (long k = rows.first; k < rows.last; ++k)
            for (long i = halves.first; i + 2 <= halves.last; ++i)
                if (lower(k, i))
                    cells.push_back({at(k, i), at(k, i + 1), at(k, i + 2), at(k + 1, i + 2), at(k + 1, i + 1),
                                     at(k + 1, i)});
        return whole_cells(cells, frame, in, progress);
    }
    std::vector<PatternLine> lines;
    for (long k = rows.first; k <= rows.last; ++k) {
        PatternLine row{{}, static_cast<std::uint32_t>(k - rows.first)};
        for (long i = halves.first; i <= halves.last; ++i)
            row.line.points.push_back(at(k, i));
        lines.push_back(std::move(row));
        for (long i = halves.first; k < rows.last && i <= halves.last; ++i)
            if (lower(k, i))
                lines.push_back({{{at(k, i), at(k + 1, i)}, false},
                                 static_cast<std::uint32_t>(rows.count() + k - rows.first),
                                 false});
    }
    return woven(std::move(lines), frame, in, progress);
}

} // namespace dotlane
