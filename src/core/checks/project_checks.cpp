#include "core/checks/project_checks.h"

#include <algorithm>
#include <set>

#include "core/checks/findings.h"
#include "core/project/format.h"

namespace dotlane {

std::optional<Finding> near_limit(std::uint64_t bytes) {
    if (bytes < static_cast<std::uint64_t>(project_bytes_near * project_max_bytes)) return {};
    auto told =
        checks::project_near_limit({}, std::to_string(bytes >> 20), std::to_string(project_max_bytes >> 20));
    return graded(std::move(told), bytes > project_max_bytes ? Grade::error : Grade::caution);
}

Findings lane_findings(const Project& project, const Catalog& catalog, const EvaluatedParts& parts) {
    Findings out;
    std::set<LaneId> used;
    for (const auto& [id, part] : parts)
        for (const RunSet& run : part->runs)
            used.insert(run.lane);
    for (const Lane& lane : project.lanes) {
        const Tool* tool = catalog.tool(lane.tool);
        // A lane that nothing is sent to keeps nothing from being made.
        const Grade grade = used.contains(lane.id) ? Grade::error : Grade::hint;
        if (!tool) {
            out.push_back(graded(checks::lane_no_tool({}, lane.name, lane.tool), grade));
        } else if (std::find(tool->actions.begin(), tool->actions.end(), lane.action) ==
                   tool->actions.end()) {
            out.push_back(
                graded(checks::lane_wrong_tool({}, lane.name, word(*tool), word(lane.action)), grade));
        }
    }
    return out;
}

namespace {

/// By arrangement; 0: whole.
std::map<int, int> placed_of(const Project& project, PartId part) {
    std::map<int, int> out;
    for (const Sheet& sheet : project.sheets)
        for (const Placement& p : sheet.placements)
            if (p.part == part) ++out[p.piece];
    return out;
}

} // namespace

int placed_copies(const Project& project, const EvaluatedPart& part) {
    auto placed = placed_of(project, part.part);
    int rarest = part.apart.empty() ? 0 : placed[part.apart.front().number];
    for (const Arrangement& a : part.apart)
        rarest = std::min(rarest, placed[a.number]);
    return placed[0] + rarest;
}

std::vector<int> missing_pieces(const Project& project, const EvaluatedPart& part) {
    const Part* wanted = find(project, part.part);
    auto placed = placed_of(project, part.part);
    std::vector<int> out;
    if (wanted)
        for (const Arrangement& a : part.apart)
            out.insert(out.end(),
                       static_cast<std::size_t>(std::max(0, wanted->quantity - placed[0] - placed[a.number])),
                       a.number);
    return out;
}

namespace {

/// Wanted against what lies on the sheets.
void count_placed(const Project& project, const EvaluatedPart& evaluated, Findings& out) {
    const Part& part = *find(project, evaluated.part);
    const int have = placed_copies(project, evaluated);
    const auto missing = missing_pieces(project, evaluated).size();
    bool some = false, whole = false;
    for (const Sheet& sheet : project.sheets)
        for (const Placement& p : sheet.placements)
            if (p.part == part.id) (p.piece == 0 ? whole : some) = true;
    some |= whole;
    const FindingPlace place{part.id, {}, {}, {}, {}};
    if (!some)
        out.push_back(checks::part_unplaced(place, part.name));
    else if (missing > 0)
        out.push_back(checks::part_pieces_missing(place, part.name, Count{missing}));
    else if (have != part.quantity)
        out.push_back(
            graded(checks::part_count(place, part.name, Count{part.quantity}, std::to_string(have),
                                      say_n(static_cast<std::size_t>(have), "%n [lies|lie] on the sheets")),
                   have < part.quantity ? Grade::caution : Grade::hint));
    else if (whole && evaluated.apart.size() > 1)
        out.push_back(checks::part_in_one(place, part.name, Count{evaluated.apart.size()}));
}

} // namespace

Findings placed_findings(const Project& project, const EvaluatedParts& parts) {
    Findings out;
    for (const Part& part : project.parts)
        count_placed(project, *parts.at(part.id), out);
    return out;
}

} // namespace dotlane
