#include "core/checks/project_checks.h"

#include <algorithm>
#include <set>

#include "core/project/format.h"

namespace dotlane {

std::optional<Finding> near_limit(std::uint64_t bytes) {
    if (bytes < static_cast<std::uint64_t>(project_bytes_near * project_max_bytes)) return {};
    const std::string mb = std::to_string(bytes >> 20), most = std::to_string(project_max_bytes >> 20);
    return Finding{"project.near-limit",
                   bytes > project_max_bytes ? Grade::error : Grade::caution,
                   say("The project takes about %1 MB of the %2 MB that a project file may have; beyond that "
                       "it cannot be saved. Simplify its drawings, or move parts to another project.",
                       mb, most),
                   {{"mb", mb}},
                   {}};
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
            out.push_back(
                {"lane.no-tool",
                 grade,
                 say("Lane \"%1\" names the tool \"%2\", which is not in the catalog.", lane.name, lane.tool),
                 {{"lane", lane.name}}});
        } else if (std::find(tool->actions.begin(), tool->actions.end(), lane.action) ==
                   tool->actions.end()) {
            out.push_back({"lane.wrong-tool",
                           grade,
                           say("A %1 cannot %2. Give lane \"%3\" another tool.", word(*tool),
                               word(lane.action), lane.name),
                           {{"lane", lane.name}, {"tool", tool->name}}});
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
    const std::string n = std::to_string(have), wanted = std::to_string(part.quantity);
    const FindingPlace place{part.id, {}, {}, {}, {}};
    if (!some)
        out.push_back({"part.unplaced",
                       Grade::caution,
                       say("\"%1\" lies on no sheet, so it is not made.", part.name),
                       {{"part", part.name}},
                       place,
                       {"part.place", say("Place it")}});
    else if (missing > 0)
        out.push_back({"part.pieces-missing",
                       Grade::caution,
                       say_n(missing, "%n [piece|pieces] of \"%1\" [lies|lie] on no sheet yet.", part.name),
                       {{"part", part.name}, {"count", std::to_string(missing)}},
                       place,
                       {"part.place", say("Place them")}});
    else if (have != part.quantity)
        out.push_back({"part.count",
                       have < part.quantity ? Grade::caution : Grade::hint,
                       say_n(static_cast<std::size_t>(part.quantity), "%n of \"%1\" [is|are] wanted, %2.",
                             part.name, say_n(static_cast<std::size_t>(have), "%n [lies|lie] on the sheets")),
                       {{"part", part.name}, {"wanted", wanted}, {"placed", n}},
                       place,
                       {"part.want-placed", say("Want %1", n)}});
    else if (whole && evaluated.apart.size() > 1)
        out.push_back({"part.in-one",
                       Grade::hint,
                       say("\"%1\" lies on its sheet in one arrangement; its %2 pieces may lie apart.",
                           part.name, evaluated.apart.size()),
                       {{"part", part.name}, {"count", std::to_string(evaluated.apart.size())}},
                       place,
                       {"part.lay-apart", say("Lay them apart")}});
}

} // namespace

Findings placed_findings(const Project& project, const EvaluatedParts& parts) {
    Findings out;
    for (const Part& part : project.parts)
        count_placed(project, *parts.at(part.id), out);
    return out;
}

} // namespace dotlane
