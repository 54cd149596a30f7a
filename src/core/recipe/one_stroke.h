// The lines of a fill as one stroke for each piece of the region. Internal to recipe.
//
// General: lines and the edge between their ends form a graph in which each end meets one line and two arcs
// of the edge. A stroke that runs every line once needs arcs, some of them twice, so that all but two ends
// meet an even number of ways (L. Euler 1736) and all is connected: a rural postman's problem (C. S. Orloff
// 1974) in the plane.
//
// Method: around a ring, arcs that are gone once alternate with those that are not, as every end has one
// line; only the two ends of the stroke break the alternation, both on one ring. What is left to choose is
// one bit a ring and these two places. Between neighbouring lines whose two arcs alternate in step, one of
// the arcs is gone twice (extra way); out of step they make a serpentine, without extra way. The bits are
// chosen so that most are out of step, the two places by sweeps around each ring; exact where the region has
// one ring and its branches form a tree (the stroke's ends are the two that lie farthest apart), near it
// otherwise. Then arcs that connect what is still apart are added, the shortest first (J. Kruskal 1956), each
// gone to and fro.
//
// Lines that begin inside (rays, spirals) may leave an odd number of ends on a ring. The stroke's ends serve
// two such rings; a line between any two more of them is gone twice.
//
// Time: linear in the number of lines, but for a sort of the arcs that connect.
#pragma once

#include "core/base/progress.h"
#include "core/recipe/line_net.h"

namespace dotlane {

/// One for each connected piece of the region that has lines: each line once (but see above), arcs of the
/// edge between them. Loose lines that begin on a line's bend are gone to and fro from there; others are
/// strokes of their own.
Polylines one_stroke(const LineNet& net, Progress& progress = no_progress());

} // namespace dotlane
