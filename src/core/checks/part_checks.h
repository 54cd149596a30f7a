// Findings of a single part that need to know its lanes and the stocks: lines twice, gaps, pieces too thin,
// too large.
#pragma once

#include "core/catalog/catalog.h"
#include "core/project/project.h"
#include "core/recipe/evaluate.h"

namespace dotlane {

/// Ends of cut lines that are nearer than this, but do not meet, are a gap that nobody meant.
inline constexpr Length gap_under = mm(0.2);
/// The stocks that a part is cut from: of the sheets it lies on; before it lies on any, its own.
std::vector<const Stock*> stocks_of(const Project& project, const Catalog& catalog, PartId part);

/// By a step that is on: what it was made for no longer tells its size.
bool resized(const Part& part);

/// Each finding names its place. Codes: "lines.doubled" (remedy "clean.doubled"), "lines.two-lanes",
/// "lines.gaps" and "lines.open" (remedy "clean.close"), "lines.fill-resized" (remedy "fill.anew"), those of
/// piece_checks.h and fit_checks.h, "badge.over". `scope`: a project of which only this part, the actions of
/// its lanes, the machine and the unit are read. `stocks`: that it is cut from. Ends early with what it has
/// when cancelled.
Findings check_part(const Project& scope, const Catalog& catalog, const EvaluatedPart& part,
                    const std::vector<const Stock*>& stocks, Progress& progress = no_progress());

} // namespace dotlane
