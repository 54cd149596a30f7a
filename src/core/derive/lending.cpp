#include "core/derive/lending.h"

#include <algorithm>
#include <set>

#include "core/recipe/step.h"

namespace dotlane {
namespace {

Borrowed outlined(std::vector<Region> areas) {
    Borrowed out;
    out.outline = without_holes(united(areas));
    out.face = out.outline;
    out.areas = std::move(areas);
    return out;
}

/// The part and all whose lines it takes, of others or through others.
void visit(const Project& project, const Part& part, std::set<PartId>& seen) {
    if (!seen.insert(part.id).second) return;
    for (const PartId from : borrows_from(part))
        if (const Part* lender = find(project, from)) visit(project, *lender, seen);
}

} // namespace

Borrowed lend(const std::map<LaneId, Action>& actions, double scale, const EvaluatedPart& evaluated) {
    std::set<LineSetId> cut, run;
    for (const RunSet& set : evaluated.runs) {
        const auto action = actions.find(set.lane);
        if (set.ink || action == actions.end()) continue;
        run.insert(set.set);
        if (action->second == Action::cut) cut.insert(set.set);
    }
    const auto of = [&](const std::set<LineSetId>& sets) {
        std::vector<Region> areas;
        Polylines open;
        for (const FlatLine& line : evaluated.lines) {
            if (!sets.contains(line.set)) continue;
            if (Region area = area_of(line); !area.empty()) areas.push_back(std::move(area));
            for (const Polyline& c : line.contours) // one letter can have both: an i's dot and its stem
                if (!c.closed && !line.filled && c.points.size() > 1) open.push_back(c);
        }
        return std::pair(std::move(areas), std::move(open));
    };
    auto [areas, open] = of(cut);
    if (areas.empty() && open.empty()) std::tie(areas, open) = of(run);
    if (areas.empty() && !cut.empty()) areas = of(run).first; // an outline, though only open lines are cut
    Borrowed out = outlined(std::move(areas));
    out.open = std::move(open);
    if (evaluated.face) out.face = transformed(region_of(*evaluated.face), Affine::scaling(scale, scale));
    return out;
}

Borrowed lend(const SourceLines& source, double scale) {
    std::vector<Region> areas;
    for (const DrawnLine& line : source.drawing->lines)
        if (line.group != role::guide && fillable(line))
            areas.push_back(transformed(region_of(line.shape), Affine::scaling(scale, scale)));
    return outlined(std::move(areas));
}

Result<void> choose_lender(const Project& project, PartId* of, PartId self, PartId wished) {
    if (!of || *of) return {};
    const auto takes_of_self = [&](const Part& part) {
        std::set<PartId> seen;
        visit(project, part, seen);
        return seen.contains(self);
    };
    const Part* best = nullptr;
    for (const Part& part : project.parts)
        if ((!best || best->id != wished) && (!self || !takes_of_self(part))) best = &part;
    if (!best)
        return fail("source.part",
                    say("There is no part yet whose outline it could take: make or open one first."));
    *of = best->id;
    return {};
}

} // namespace dotlane
