// Findings of a single part that depend on the tips of the tools that run its lines: apart from the others,
// so that another tool for a lane does not look for doubles and thin places again.
#pragma once

#include "core/catalog/catalog.h"
#include "core/project/project.h"
#include "core/recipe/evaluate.h"

namespace dotlane {

/// Each finding names its place. Codes: "text.small" (remedy "text.legible"), "lines.tear".
/// `scope`: a project of which only this part and the actions and tools of its lanes are read.
Findings check_tips(const Project& scope, const Catalog& catalog, const EvaluatedPart& part);

} // namespace dotlane
