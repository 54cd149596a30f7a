// From the lines of a pass to the way of the carriage: where closed lines may begin, overcut, lead-in, what a
// drag knife needs, and the offset of a tip that touches beside its axis.
//
// A drag knife hangs a little behind its axis and turns as it is dragged. So that its tip follows the line,
// the axis runs ahead of it by the trail, and swings around each corner with the tip as its centre. Common
// practice of the trade; where the machine does not do it by itself.
#pragma once

#include "core/geometry/polyline.h"
#include "core/machine/program.h"
#include "core/plan/route.h"
#include "core/project/running.h"

namespace dotlane {

struct ToolPath {
    Point offset; ///< mm: where the tip touches, seen from where a plain tool's would
    Length trail; ///< that is made up for; 0: nothing to do
    LineRun run;
    bool operator==(const ToolPath&) const = default;
};

/// Lines with the places at which closed ones may begin, which become points of theirs.
struct Beginnings {
    Polylines lines;
    Starts starts; ///< of each line the points it may begin at; empty: any
};
Beginnings beginnings(Polylines lines, LineStart start);

/// The strokes of a pass, in running order, as the carriage goes. Open at its end is what was closed and is
/// run on further than that. `repeats`: times that all of them are run, one time after the other.
void as_carriage(std::vector<Stroke>& strokes, const ToolPath& path, int repeats = 1);

} // namespace dotlane
