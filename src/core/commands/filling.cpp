#include "core/commands/filling.h"

#include <algorithm>

#include "core/checks/brought_fills.h"
#include "core/commands/lanes.h"

namespace dotlane {
namespace {

LaneId lane_of(Project& project, const Catalog& catalog, const Part& part,
               const std::vector<LineSetId>& sets) {
    for (const LineSetId id : sets)
        if (const LineSet* set = find(part, id))
            if (const Lane* lane = find(project, set->lane); lane && row(lane->action).marks) return lane->id;
    for (const Lane& lane : project.lanes)
        if (row(lane.action).marks) return lane.id;
    return lane_for(project, catalog, Action::draw, {}, Colour{});
}

} // namespace

Result<StepId> fill_sets(Project& project, const Catalog& catalog, PartId part_id, StepWhat fill,
                         std::vector<LineSetId> sets) {
    const Part* part = find(project, part_id);
    if (!part) return fail("edit.missing", say("There is no such part in this project."));
    const LaneId lane = lane_of(project, catalog, *part, sets);
    if (const Lane* l = find(project, lane)) suit(fill, l->action);
    return add_maker(project, part_id, lane, std::move(fill), sets, false);
}

Result<void> fill_anew(Project& project, const Catalog& catalog, const EvaluatedPart& evaluated,
                       const Finding& finding) {
    const auto gone = [] { return fail("remedy.none", say("The fill is gone.")); };
    Part* part = find(project, finding.place.part);
    const LineSet* set = part ? find(*part, finding.place.line_set) : nullptr;
    if (!set) return gone();
    const LaneId lane = set->lane;
    const std::vector<BroughtFill> all = brought_fills(evaluated);
    const auto fill =
        std::find_if(all.begin(), all.end(), [&](const BroughtFill& f) { return f.set == set->id; });
    if (fill == all.end() || fill->outlines.empty()) return gone();
    const auto lines = gather(project, part->id, fill->lines, "fill as drawn");
    if (!lines) return tl::make_unexpected(lines.error());
    const auto outlines = gather(project, part->id, fill->outlines, "filled anew");
    if (!outlines) return tl::make_unexpected(outlines.error());
    const bool aside = find(*part, *outlines)->set_aside;
    FillStep what;
    what.angle = fill->angle, what.rule = FillStep::Rule::even_odd;
    what.spacing = std::clamp(fill->spacing / fill->grown, mm(0.05), mm(50));
    const auto step = fill_sets(project, catalog, part->id, what, {*outlines});
    if (!step) return tl::make_unexpected(step.error());
    if (lane) find(*part, *step)->lane = lane;
    if (const auto ok = set_aside(project, part->id, *outlines, aside); !ok) return ok;
    return set_aside(project, part->id, *lines, true);
}

} // namespace dotlane
