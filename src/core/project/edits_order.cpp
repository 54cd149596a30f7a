// What is wished of how lines are run, and of the order of the job.
#include <algorithm>
#include <set>

#include "core/project/edit_checks.h"
#include "core/project/edits.h"

namespace dotlane {

Result<void> check_run(const LineRun& run) {
    const auto within = [](double value, double most) { return value >= 0 && value <= most; };
    if (within(in_mm(run.overcut), 10) && within(in_mm(run.lead_in), 20) && within(in_seconds(run.dwell), 10))
        return {};
    return fail("lane.run", say("Lines are overcut by 0 to 10 mm, led in by 0 to 20 mm, and the tool rests "
                                "0 to 10 seconds where it lands."));
}

Result<void> check_wishes(const Project& project, const PlanWishes& wishes) {
    for (const LaneRule& rule : wishes.rules)
        if (!find(project, rule.before) || !find(project, rule.after)) return no_such(to_say("lane"));
    // Whoever is before nobody that is left can be taken away; in a circle everybody is before somebody.
    std::vector<LaneRule> left = wishes.rules;
    for (std::size_t count = left.size() + 1; left.size() < count;) {
        count = left.size();
        std::set<LaneId> before;
        for (const LaneRule& rule : left)
            before.insert(rule.before);
        std::erase_if(left, [&](const LaneRule& rule) { return !before.contains(rule.after); });
    }
    if (!left.empty())
        return fail("order.circle", say("These rules go round in a circle: %1 would run before itself.",
                                        find(project, left.front().before)->name));
    for (const std::string& key : wishes.off)
        if (!order_rule(key)) {
            std::vector<Phrase> known;
            for (const OrderRule& rule : order_rules)
                known.push_back(as_is(rule.key));
            return fail("order.rule",
                        say("The planner has no rule \"%1\": there are %2.", key, joined(known, ", ")));
        }
    if (wishes.mats < 1 || wishes.mats > 9)
        return fail("order.mats", say("There are 1 to 9 mats of each kind at hand."));
    std::set<int> places;
    std::set<SheetId> sheets;
    for (const SheetPin& pin : wishes.pins) {
        if (!find(project, pin.sheet)) return no_such(to_say("sheet"));
        if (pin.place < 1 || pin.place > 9999)
            return fail("order.place", say("The places of sheets in a run count from 1."));
        if (!places.insert(pin.place).second || !sheets.insert(pin.sheet).second)
            return fail("order.place", say("Two sheets cannot run in the same place, nor one in two."));
    }
    return {};
}

Result<void> set_wishes(Project& project, PlanWishes wishes) {
    if (const auto ok = check_wishes(project, wishes); !ok) return ok;
    project.wishes = std::move(wishes);
    return {};
}

} // namespace dotlane
