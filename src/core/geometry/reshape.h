// Changes of single lines: fewer points, softer corners, dashes.
#pragma once

#include "core/base/units.h"
#include "core/geometry/polyline.h"

namespace dotlane {

/// Fewest points of the line that stay within `by` of it (Douglas, Peucker 1973). Ends stay; of a closed line
/// the start and the point farthest from it.
Polyline simplified(const Polyline& line, Length by);

struct CornerChange {
    Polyline line;
    int changed = 0;   ///< corners that were softened
    int shortened = 0; ///< of them, how many found no room for the whole radius
};
/// Corners where the line turns by more than `sharper_than` are cut back: by `size` along both sides for a
/// chamfer, or by what a fillet arc of radius `size` needs, size * tan(turn / 2). What is cut reaches at most
/// half way to the next corner. Arcs are cubics, within 0.03 % of the radius for turns of up to 90 degrees
/// and 0.2 % beyond, flattened to `flatness`.
CornerChange softened(const Polyline& line, Length size, bool chamfer, Angle sharper_than,
                      Length flatness = default_flatness);

struct DashRule {
    Length dash, gap;      ///< > 0; the gap is stretched or shrunk so that the dashes come out even
    Length setback;        ///< taken off both ends of an open line
    bool gap_ends = false; ///< open lines begin and end on half a gap instead of a dash
};
/// Open lines begin and end on a whole dash, or on half a gap; closed ones have as many dashes as gaps. A
/// line too short for two dashes is one dash. `gap` receives the gap really used (0 when there is none).
Polylines dashed(const Polyline& line, const DashRule& rule, Length* gap = nullptr);

struct PlaceOnLine {
    Point at, along; ///< `along`: the way the line runs there, of length 1
};
/// `gaps` places of a closed line, evenly spaced along it from its start; one more of an open one, whose ends
/// are among them. `gaps` > 0, and the line has a length.
std::vector<PlaceOnLine> evenly_along(const Polyline& line, std::size_t gaps);

/// The stretch of a line between two distances from its start, mm; `to` may exceed the length of a closed
/// line.
Polyline stretch(const Polyline& line, double from, double to);

} // namespace dotlane
