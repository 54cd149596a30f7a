// Choosing lines: what the bench's clicks and the CLI's options mean.
#pragma once

#include <optional>

#include "core/recipe/evaluate.h"

namespace dotlane {

/// The line nearest to `at` within `reach`, inside of filled shapes included; topmost first.
std::optional<LineId> line_at(const EvaluatedPart& evaluated, Point at, Length reach);
/// Where a lane's letter sends lines: the project's first lane of that action, or the one after the lane they
/// are all in already, round and round. None when there is no lane of that action.
LaneId lane_for_letter(const Project& project, const EvaluatedPart& evaluated,
                       const std::vector<LineId>& lines, Action action);
/// Lines wholly inside the box.
std::vector<LineId> lines_in_box(const EvaluatedPart& evaluated, const Box& box);
/// Lines with the stroke and fill colour of the given one; lines that were never drawn in a colour: of its
/// role.
std::vector<LineId> lines_of_same_colour(const EvaluatedPart& evaluated, LineId like);
/// Lines wholly inside the given line's area, without it.
std::vector<LineId> lines_inside(const EvaluatedPart& evaluated, LineId outline);

} // namespace dotlane
