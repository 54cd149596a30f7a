// Lines up and spreads what lies on a sheet. Placements of one group keep their arrangement and count as one.
#pragma once

#include <optional>
#include <vector>

#include "core/base/result.h"
#include "core/project/project.h"
#include "core/sheets/layout.h"

namespace dotlane {

struct Lying {
    Placement placement;
    Extent extent; ///< of the part or its arrangement
    Box box;       ///< on the sheet
};

using Across = AlignStep::Across;
using Down = AlignStep::Down;
using Way = DistributeStep::Way;

/// What follows a frame: an edge or the middle of each (or of its group) goes to that of the frame.
std::vector<Placement> aligned(const std::vector<Lying>& chosen, const Box& frame, Across across, Down down);

/// Equal gaps between them, in the order in which they lie. The outermost stay where they are, or go to the
/// edges of the frame when there is one. Errors: "arrange.few" (under three, under two with a frame),
/// "arrange.tight" when they do not fit in (says how much is missing).
Result<std::vector<Placement>> distributed(const std::vector<Lying>& chosen, Way way,
                                           const std::optional<Box>& frame = {});

/// Turned clockwise about their common middle, as one.
std::vector<Placement> turned(const std::vector<Lying>& chosen, Angle by);
/// Mirrored left to right about their common middle, as one.
std::vector<Placement> mirrored(const std::vector<Lying>& chosen);

/// Box of all of them.
Box box_of(const std::vector<Lying>& chosen);

} // namespace dotlane
