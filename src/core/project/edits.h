// Pure edit functions: each takes a project, changes it, and leaves it untouched when it answers with an
// error. They keep the document's rules: ids unique, every line of a source in exactly one line set, every
// reference to something that exists.
#pragma once

#include "core/base/result.h"
#include "core/project/project.h"

namespace dotlane {

template<class IdType>
IdType fresh_id(Project& project) {
    return IdType{project.next_id++};
}

/// Line ids are given out here. All lines start in one unassigned line set.
PartId add_part(Project& project, std::string name, Source source);
/// Error "part.used" while another part takes its outline or its lines.
Result<void> remove_part(Project& project, PartId part);
/// The factor must lie in 1e-4..1e4.
Result<void> scale_part(Project& project, PartId part, double factor);

/// Takes a note of the source away. Error "edit.missing" when there is none with this code and message.
Result<void> dismiss_note(Project& project, PartId part, const std::string& code, const Phrase& message);
/// Errors: "part.name" (empty), "part.quantity" (not 1..9999).
Result<void> rename_part(Project& project, PartId part, std::string name);
Result<void> set_quantity(Project& project, PartId part, int quantity);

LaneId add_lane(Project& project, Lane lane);
/// Replaces the lane of the same id. Errors: "lane.repeats" unless repeats is 1..8, "lane.run" unless how its
/// lines are run is in range.
Result<void> change_lane(Project& project, const Lane& lane);
/// The order in which lanes run; empty for the usual one. Error "edit.missing" for an unknown lane,
/// "lane.twice".
Result<void> set_pass_order(Project& project, std::vector<LaneId> order);
/// Errors: "edit.missing" (lane, sheet), "order.circle" (rules that cannot all be kept), "order.rule" (the
/// planner has none of this key), "order.place" (no place from 1, or one given twice).
Result<void> set_wishes(Project& project, PlanWishes wishes);
/// Line sets and steps that used it lose their lane; rules that name it go.
Result<void> remove_lane(Project& project, LaneId lane);

/// Moves lines to a lane (or to "no lane" with LaneId{}), splitting and merging line sets as needed. The set
/// that receives them is the one of that lane in this part whose name is `set_name`, or the first one when
/// empty.
Result<void> assign(Project& project, PartId part, const std::vector<LineId>& lines, LaneId lane,
                    std::string set_name = {});
/// Splits the lines off into a line set of their own under this name; their lane stays.
Result<LineSetId> gather(Project& project, PartId part, const std::vector<LineId>& lines, std::string name);
Result<void> set_aside(Project& project, PartId part, LineSetId set, bool aside);

/// A step of a kind that makes lines gets a line set for them. Errors: "step.no-lines", "step.range",
/// "part.circle".
Result<StepId> add_step(Project& project, PartId part, Step step);
Result<void> change_step(Project& project, PartId part, const Step& step);
/// Error "step.used" while a later step works on its lines.
Result<void> remove_step(Project& project, PartId part, StepId step);

/// To this place of the recipe, 0 the first. Error "step.order" when a step would work on lines that are made
/// later.
Result<void> move_step(Project& project, PartId part, StepId step, int to);

/// Adds a step that makes lines of line sets. Unless `keep_sources`, these are set aside: only what is made
/// is run.
Result<StepId> add_maker(Project& project, PartId part, LaneId lane, StepWhat what,
                         const std::vector<LineSetId>& of, bool keep_sources);
/// Removes a step; line sets that were set aside for it and that no other step uses are run again.
Result<void> remove_maker(Project& project, PartId part, StepId step);

/// The drawing of a part that came from a file with fewer of its lines, or with lines that were moved. Line
/// sets lose what is gone; those left empty go unless a step works on them. Errors: "drawing.number", "no
/// such line" for one that the part did not have.
Result<void> change_drawing(Project& project, PartId part, std::shared_ptr<const Drawing> drawing);

/// A part whose lines are computed. It has no line sets yet: see add_role.
PartId add_made_part(Project& project, std::string name, SourceSpec spec);
/// Errors: "source.kind" (another kind), "field.range", "part.circle" (it would follow itself).
Result<void> change_spec(Project& project, PartId part, SourceSpec spec);
/// The line set of a role; made when there is none.
Result<LineSetId> add_role(Project& project, PartId part, std::string role, LaneId lane, bool aside);
/// Sends a whole line set, of the source or of a step, to a lane (or to "no lane"); it is run from then on.
Result<void> set_lane(Project& project, PartId part, LineSetId set, LaneId lane);

SheetId add_sheet(Project& project, std::string name, std::string stock, std::string mat);
/// Name, stock and mat of a sheet; its placements stay.
Result<void> change_sheet(Project& project, SheetId sheet, std::string name, std::string stock,
                          std::string mat);
Result<void> remove_sheet(Project& project, SheetId sheet);
Result<PlacementId> place(Project& project, SheetId sheet, Placement placement);
Result<void> change_placement(Project& project, const Placement& placement);
Result<void> change_placements(Project& project, const std::vector<Placement>& placements);
Result<void> remove_placement(Project& project, PlacementId placement);
/// From now on they are moved together; or each by itself again. They lie on one sheet. Errors:
/// "edit.missing", "place.group" for fewer than two or several sheets.
Result<void> group_placements(Project& project, const std::vector<PlacementId>& placements);
Result<void> ungroup_placements(Project& project, const std::vector<PlacementId>& placements);

/// Whether every number that the file holds is finite and in bounds. Error "project.number" with the part.
Result<void> check_numbers(const Project& project);
/// Checks the rules above; used after reading a file. The message names the first one broken.
Result<void> check_rules(const Project& project);

} // namespace dotlane
