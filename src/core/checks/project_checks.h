// Findings about the project as a whole: its lanes, how many of each part lie on the sheets, how large it is.
#pragma once

#include <map>
#include <memory>
#include <optional>

#include "core/catalog/catalog.h"
#include "core/recipe/evaluate.h"

namespace dotlane {

using EvaluatedParts = std::map<PartId, std::shared_ptr<const EvaluatedPart>>;

/// "project.near-limit" when a project's file is about so large that it soon cannot be saved; an error
/// beyond.
std::optional<Finding> near_limit(std::uint64_t bytes);
/// "lane.no-tool", "lane.wrong-tool": errors for lanes that something runs in, hints for others.
Findings lane_findings(const Project& project, const Catalog& catalog, const EvaluatedParts& parts);
/// Wanted against what lies on the sheets: "part.unplaced", "part.pieces-missing" (remedy "part.place"),
/// "part.count" (remedy "part.want-placed"), "part.in-one" (remedy "part.lay-apart").
Findings placed_findings(const Project& project, const EvaluatedParts& parts);

/// How often the part lies on the sheets: whole, or with all its pieces.
int placed_copies(const Project& project, const EvaluatedPart& part);
/// The arrangements of a part that lie on the sheets less often than the part is wanted, each as often as it
/// is missing; none for a part that lies as one.
std::vector<int> missing_pieces(const Project& project, const EvaluatedPart& part);

} // namespace dotlane
