// Findings of a single part that need to know its lanes and the stocks: lines twice, gaps, pieces too thin,
// too large.
#pragma once

#include "core/catalog/catalog.h"
#include "core/project/project.h"
#include "core/recipe/evaluate.h"

namespace dotlane {

/// Ends of cut lines that are nearer than this, but do not meet, are a gap that nobody meant.
inline constexpr Length gap_under = mm(0.2);
/// Cut pieces that are thinner than this everywhere tear on the mat (common practice).
inline constexpr Length thin_under = mm(0.8);

/// Each finding names its place. Codes: "lines.doubled" (remedy "clean.doubled"), "lines.two-lanes",
/// "lines.gaps", "piece.thin", "text.small" (remedy "text.legible"), "part.too-large".
Findings check_part(const Project& project, const Catalog& catalog, const EvaluatedPart& part);

} // namespace dotlane
