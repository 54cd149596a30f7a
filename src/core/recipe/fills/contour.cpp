#include "core/project/fills/contour.h"

#include <algorithm>

#include "core/recipe/contour_rings.h"
#include "core/recipe/toned_lines.h"

namespace dotlane {

FillLines fill(const ContourFill& style, const FillInput& in, Progress& progress) {
    FillLines out;
    for (const Region& piece : pieces(in.region)) {
        Contours contours = contours_of(piece, in.spacing, in.tip, progress);
        out.rows += contours.rings.size(), out.pieces += contours.rings.size();
        Polylines lines;
        if (in.ends == FillEnds::apart || in.tone)
            for (Ring& ring : contours.rings)
                lines.push_back({std::move(ring), true});
        else
            lines = wound(contours, piece, in.spacing, progress);
        if (!style.inwards) {
            std::reverse(lines.begin(), lines.end());
            for (Polyline& line : lines)
                if (!line.closed) std::reverse(line.points.begin(), line.points.end());
        }
        out.lines.insert(out.lines.end(), std::make_move_iterator(lines.begin()),
                         std::make_move_iterator(lines.end()));
    }
    if (in.tone) return toned_lines(out.lines, in, progress);
    return out;
}

} // namespace dotlane
