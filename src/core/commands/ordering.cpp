#include "core/commands/ordering.h"

#include <algorithm>

#include "core/base/text.h"
#include "core/commands/lanes.h"
#include "core/project/edits.h"

namespace dotlane {
namespace {

Phrase words(const Project& project, const PlanWishes& wishes) {
    std::vector<Phrase> out;
    out.push_back(wishes.school == School::tools ? say("each tool runs over all sheets before the next")
                                                 : say("each sheet is finished before the next"));
    for (const LaneRule& rule : wishes.rules)
        out.push_back(say("%1 runs before %2", plate(project, rule.before), plate(project, rule.after)));
    for (const SheetPin& pin : wishes.pins)
        out.push_back(say("\"%1\" runs as number %2", find(project, pin.sheet)->name, pin.place));
    for (const std::string& key : wishes.off)
        if (const OrderRule* rule = order_rule(key))
            out.push_back(say("\"%1\" does not hold", say(rule->words)));
    if (wishes.mats > 1)
        out.push_back(
            say("of each kind %1 mats are at hand: sheets are laid while the machine runs", wishes.mats));
    return joined(out, "; ");
}

/// Whether anything of it runs in the lane.
bool uses(const Part& part, LaneId lane) {
    const auto in = [lane](const auto& thing) { return thing.lane == lane; };
    return std::any_of(part.sets.begin(), part.sets.end(), in) ||
           std::any_of(part.steps.begin(), part.steps.end(), in);
}

void send(Part& part, LaneId from, LaneId to) {
    for (LineSet& set : part.sets)
        if (set.lane == from) set.lane = to;
    for (Step& step : part.steps)
        if (step.lane == from) step.lane = to;
}

} // namespace

Result<Done> apply(const WishOrder& command, Project& project) {
    if (const auto ok = set_wishes(project, command.wishes); !ok) return tl::make_unexpected(ok.error());
    return Done{say("The run: %1.", words(project, project.wishes))};
}

PlanWishes with_rule(PlanWishes wishes, LaneRule rule) {
    wishes = without_rule(std::move(wishes), rule.before, rule.after);
    wishes.rules.push_back(std::move(rule));
    return wishes;
}

PlanWishes without_rule(PlanWishes wishes, LaneId before, LaneId after) {
    std::erase_if(wishes.rules,
                  [&](const LaneRule& rule) { return rule.before == before && rule.after == after; });
    return wishes;
}

PlanWishes with_pin(PlanWishes wishes, SheetId sheet, int place) {
    std::erase_if(wishes.pins, [&](const SheetPin& pin) { return pin.sheet == sheet || pin.place == place; });
    if (place != 0) wishes.pins.push_back({sheet, place});
    return wishes;
}

PlanWishes with_kept(PlanWishes wishes, const std::string& rule, bool holds) {
    std::erase(wishes.off, rule);
    if (!holds) wishes.off.push_back(rule);
    return wishes;
}

std::vector<Phrase> rules_lost_with(const Project& project, LaneId lane) {
    std::vector<Phrase> out;
    for (const LaneRule& rule : project.wishes.rules)
        if (rule.before == lane || rule.after == lane)
            out.push_back(say("Your rule that %1 runs before %2.", plate(project, rule.before),
                              plate(project, rule.after)));
    return out;
}

Result<Done> apply(const SplitLane& command, Project& project) {
    const Lane* lane = find(project, command.lane);
    const Part* part = find(project, command.part);
    if (!lane || !part) return fail("edit.missing", say("There is no such lane or part."));
    const auto users = std::count_if(project.parts.begin(), project.parts.end(),
                                     [&](const Part& p) { return uses(p, command.lane); });
    if (!uses(*part, command.lane) || users < 2)
        return fail("lane.whole",
                    say("There is nothing to split: all lines of lane %1, or none, are of \"%2\".",
                        plate(project, command.lane), part->name));
    Lane own = *lane;
    own.name = lane->name + ", " + part->name;
    const LaneId made = add_lane(project, std::move(own));
    send(*find(project, command.part), command.lane, made);
    // It comes right behind the other one where the maker has put all in order.
    if (const auto at = std::find(project.pass_order.begin(), project.pass_order.end(), command.lane);
        at != project.pass_order.end())
        project.pass_order.insert(at + 1, made);
    Done out{say("The lines of \"%1\" run in a lane of their own: %2.", find(project, command.part)->name,
                 lane_words(project, made))};
    out.lane = made;
    return out;
}

Result<Done> apply(const MergeLanes& command, Project& project) {
    const Lane *from = find(project, command.from), *into = find(project, command.into);
    if (!from || !into || from == into) return fail("edit.missing", say("There are no two such lanes."));
    if (from->action != into->action)
        return fail("lane.other", say("%1 and %2 do not do the same: only lanes of one action can be one.",
                                      lane_words(project, command.from), lane_words(project, command.into)));
    const Phrase was = lane_words(project, command.from);
    const std::vector<Phrase> lost = rules_lost_with(project, command.from);
    for (Part& part : project.parts)
        send(part, command.from, command.into);
    if (const auto ok = remove_lane(project, command.from); !ok) return tl::make_unexpected(ok.error());
    Done out{say("All lines of %1 run in %2 now.", was, lane_words(project, command.into))};
    out.lost = lost;
    out.lane = command.into;
    return out;
}

} // namespace dotlane
