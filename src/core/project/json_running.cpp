#include "core/project/json_running.h"

#include "core/project/json_in.h"

namespace dotlane {
namespace {

using nlohmann::json;
namespace in = json_in;

/// The one of `all` with this key.
template<class Choice, std::size_t n>
Choice choice_from(const json& j, const char* member, const Choice (&all)[n]) {
    const std::string key = in::text(j, member, key_of(all[0]));
    for (const Choice one : all)
        if (key == key_of(one)) return one;
    throw Damaged{say("\"%1\" is not known", key)};
}

} // namespace

int edition_of(const LineRun& run) {
    return run == LineRun{} ? 1 : run.small_first ? 13 : 12;
}

int edition_of(const PlanWishes& wishes) {
    return wishes == PlanWishes{} ? 1 : wishes.mats != 1 ? 13 : 12;
}

json to_json(const LineRun& run) {
    json j = json::object();
    if (run.start != LineStart::anywhere) j["start"] = key_of(run.start);
    if (run.overcut != Length()) j["overcut_mm"] = in_mm(run.overcut);
    if (run.lead_in != Length()) j["lead_in_mm"] = in_mm(run.lead_in);
    if (run.dwell != Duration()) j["dwell_s"] = in_seconds(run.dwell);
    if (run.small_first) j["small_first"] = true;
    return j;
}

json to_json(const PlanWishes& wishes) {
    json j = json::object();
    if (wishes.school != School::sheets) j["school"] = key_of(wishes.school);
    for (const LaneRule& rule : wishes.rules)
        j["rules"].push_back({{"before", rule.before.value}, {"after", rule.after.value}, {"why", rule.why}});
    for (const SheetPin& pin : wishes.pins)
        j["pins"].push_back({{"sheet", pin.sheet.value}, {"place", pin.place}});
    if (!wishes.off.empty()) j["off"] = wishes.off;
    if (wishes.mats != 1) j["mats"] = wishes.mats;
    return j;
}

LineRun line_run_from(const json& j) {
    return {choice_from(j, "start", all_line_starts), mm(in::number(j, "overcut_mm", 0)),
            mm(in::number(j, "lead_in_mm", 0)), seconds(in::number(j, "dwell_s", 0)),
            in::maybe(j, "small_first") && in::flag(j, "small_first")};
}

PlanWishes plan_wishes_from(const json& j) {
    PlanWishes out;
    out.school = choice_from(j, "school", all_schools);
    if (in::maybe(j, "rules"))
        for (const json& rule : in::list(j, "rules"))
            out.rules.push_back(
                {LaneId{in::id(rule, "before")}, LaneId{in::id(rule, "after")}, in::text(rule, "why")});
    if (in::maybe(j, "pins"))
        for (const json& pin : in::list(j, "pins"))
            out.pins.push_back({SheetId{in::id(pin, "sheet")}, in::whole(pin, "place")});
    if (in::maybe(j, "off"))
        for (const json& key : in::list(j, "off"))
            out.off.push_back(in::text_in(key, "off"));
    if (in::maybe(j, "mats")) out.mats = in::whole(j, "mats");
    return out;
}

} // namespace dotlane
