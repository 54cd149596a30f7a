// What a maker wishes of the order of a run, and lanes made two or one so that they can run apart or
// together.
#pragma once

#include "core/commands/command.h"

namespace dotlane {

/// All wishes at once, in place of those there were; `{}`: none. Errors: those of set_wishes.
struct WishOrder {
    PlanWishes wishes;
};
Result<Done> apply(const WishOrder& command, Project& project);

/// The wishes with one more, or one less.
PlanWishes with_rule(PlanWishes wishes, LaneRule rule);
PlanWishes without_rule(PlanWishes wishes, LaneId before, LaneId after);
/// `place` 0: nowhere in particular. Whoever was pinned there is not any more.
PlanWishes with_pin(PlanWishes wishes, SheetId sheet, int place);
/// One of the planner's own rules holds, or does not.
PlanWishes with_kept(PlanWishes wishes, const std::string& rule, bool holds);

/// The rules that go with a lane, a sentence each.
std::vector<Phrase> rules_lost_with(const Project& project, LaneId lane);

/// The lines of one part leave a lane for one of their own, with the same action, tool and colour: it runs
/// by itself. Errors: "edit.missing", "lane.whole" (all lines of the lane are of that part).
struct SplitLane {
    LaneId lane;
    PartId part;
};
Result<Done> apply(const SplitLane& command, Project& project);

/// All lines and steps of one lane go to another of the same action; it goes. Errors: "edit.missing",
/// "lane.other" (the two do not do the same).
struct MergeLanes {
    LaneId from, into;
};
Result<Done> apply(const MergeLanes& command, Project& project);

} // namespace dotlane
