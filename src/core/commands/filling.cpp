#include "core/commands/filling.h"

#include <algorithm>

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

} // namespace dotlane
