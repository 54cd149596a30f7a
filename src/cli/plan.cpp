// The plan: shown, explained, compared, and ordered otherwise.
#include <charconv>
#include <cmath>

#include "cli/only.h"
#include "cli/verb.h"
#include "core/base/text.h"
#include "core/commands/ordering.h"
#include "core/commands/project.h"
#include "core/exports/accounts.h"
#include "core/exports/exporting.h"
#include "core/plan/compare.h"
#include "core/project/format.h"

namespace dotlane::cli {
namespace {

using nlohmann::json;

json setting_json(const PassSetting& s) {
    json j = json::object();
    if (s.pressure) j["pressure"] = *s.pressure;
    if (s.depth) j["depth_mm"] = in_mm(*s.depth);
    if (!s.from.empty()) j["from"] = s.from;
    return j;
}

json move_json(const Plan& plan, std::size_t m) {
    const MoveSpan span = plan.timeline.spans()[m];
    json j = {{"start_s", in_seconds(span.start)}, {"time_s", in_seconds(span.time)}};
    if (const auto* stop = std::get_if<StopMove>(&plan.program.moves[m])) {
        j["kind"] = "stop", j["number"] = stop->number;
        j["sheet"] = stop->sheet.value;
        j["hands"] = json::array();
        for (const HandStep& s : stop->steps)
            j["hands"].push_back(s.text);
        j["holds"] = stop->holds;
        j["meanwhile_s"] = in_seconds(stop->meanwhile);
    } else {
        const auto& pass = std::get<PassMove>(plan.program.moves[m]);
        j["kind"] = "pass", j["number"] = pass.number, j["sheet"] = pass.sheet.value,
        j["lane"] = pass.lane.value, j["plate"] = pass.plate;
        j["action"] = action_name(pass.action), j["tool"] = pass.tool, j["slot"] = pass.slot,
        j["strokes"] = pass.strokes.size();
        j["repeats"] = pass.repeats;
        j["speed_mm_s"] = in_mm_per_second(pass.speed);
        j["setting"] = setting_json(pass.setting);
        j["length_mm"] = in_mm(length(pass.strokes));
        j["breaks"] = json::array();
        for (const auto& [at, finding] : plan.broken)
            if (at == m) j["breaks"].push_back({{"code", finding.code}, {"message", finding.message}});
    }
    return j;
}

/// Machine's and hands' time of each sheet.
json sheets_json(const Plan& plan) {
    json out = json::array();
    for (const ProgramSheet& sheet : plan.program.sheets) {
        double machine = 0, hands = 0;
        for (std::size_t m = 0; m < plan.program.moves.size(); ++m) {
            const double time = in_seconds(plan.timeline.spans()[m].time);
            if (const auto* pass = std::get_if<PassMove>(&plan.program.moves[m]))
                machine += pass->sheet == sheet.sheet ? time : 0;
            else if (std::get<StopMove>(plan.program.moves[m]).sheet == sheet.sheet)
                hands += time;
        }
        out.push_back(
            {{"sheet", sheet.sheet.value}, {"name", sheet.name}, {"machine_s", machine}, {"hands_s", hands}});
    }
    return out;
}

json plan_json(const Derived& derived) {
    const Plan& plan = *derived.plan;
    json moves = json::array(), reasons = json::array(), printed = json::array();
    for (std::size_t m = 0; m < plan.program.moves.size(); ++m)
        moves.push_back(move_json(plan, m));
    for (const Reason& r : plan.reasons)
        reasons.push_back({{"code", r.code}, {"sentence", r.sentence}});
    for (const PrintSheet& print : plan.program.prints)
        printed.push_back({{"sheet", print.sheet.sheet.value},
                           {"pictures", print.pictures.size()},
                           {"shapes", print.shapes.size()}});
    const PlanTotals& t = plan.totals;
    const LineAccount lines = account(derived);
    return {{"moves", moves},
            {"printed", printed},
            {"lines",
             {{"run", lines.run},
              {"printed", lines.printed},
              {"left_out", lines.left_out},
              {"set_aside", lines.aside},
              {"no_lane", lines.no_lane},
              {"unplaced", lines.unplaced}}},
            {"reasons", reasons},
            {"risks", to_json(plan.findings)},
            {"machine_s", in_seconds(t.machine)},
            {"hands_s", in_seconds(t.hands)},
            {"meanwhile_s", in_seconds(t.meanwhile)},
            {"elapsed_s", in_seconds(plan.timeline.total())},
            {"stops", t.stops},
            {"passes", t.passes},
            {"sheets", t.sheets},
            {"by_sheet", sheets_json(plan)},
            {"parts", parts_json(plan.program, plan.timeline)},
            {"cost", t.cost},
            {"travel_mm", in_mm(t.travel)},
            {"travel_as_drawn_mm", in_mm(t.travel_as_drawn)},
            {"tool_down_mm", in_mm(t.tool_down)}};
}

class PlanVerb final : public ProjectVerb {
    bool writes() const override { return true; }
    /// Whoever wishes nothing only looks, and waits for nobody.
    bool changes() const override {
        return saves_ || usual_ ||
               !(rules_.empty() && dropped_.empty() && pins_.empty() && school_.empty() && mats_ == 0);
    }
    int run(Context& c) override {
        saves_ = !c.to.empty();
        return ProjectVerb::run(c);
    }
    void options(CLI::App& app) override {
        app.add_flag("--why", why_, "Give the reason for each decision");
        app.add_option("--why-move", move_,
                       "Why this stop or pass is where it is, and what the next best would cost: 'stop 3', "
                       "'pass 5'");
        app.add_option(
            "--compare", compare_,
            "Lay another plan beside it: 'usual' (no wishes), 'sheets', 'tools', or a project file");
        app.add_option("--rule", rules_,
                       "A rule of your own, kept in the project: 'D<F' or 'D<F: why' runs D before F; "
                       "'off:light-first' and 'on:light-first' let one of the planner's go and hold "
                       "(marks-first, perforate-first, light-first)");
        app.add_option("--drop-rule", dropped_, "Take a rule of your own away: 'D<F'");
        app.add_option("--pin", pins_, "A sheet runs as the so-manieth: 'sheet 3=1'; '=0' lets it go");
        app.add_option("--school", school_,
                       "Finish each 'sheets' before the next, or run each of the 'tools' through all sheets")
            ->check(CLI::IsMember({"sheets", "tools"}));
        app.add_option("--mats", mats_,
                       "So many mats of each kind are at hand: with a spare one the next sheet is laid on it "
                       "while the machine runs")
            ->check(CLI::Range(1, 9));
        app.add_flag("--usual", usual_, "Take all wishes about the order away");
        only_.declare(app);
    }

    int act(Context& c, Project& project) override {
        if (const auto ok = wish(c, project); !ok) return c.error(ok.error());
        const auto left_out = only_.left_out(project);
        if (!left_out) return c.error(left_out.error());
        const auto derived = planned(c, project, *left_out);
        if (!derived->plan) return c.error(derived->no_plan);
        const int code = blocks_export(derived->findings) ? findings : fine;
        if (!compare_.empty()) return compare(c, *derived, code);
        if (!move_.empty()) return explain(c, *derived, code);
        if (c.json) {
            json out = plan_json(*derived);
            if (!said_.empty()) out["done"] = said_;
            c.print(out);
            return code;
        }
        for (const Phrase& said : said_)
            c.out << said << "\n";
        RunSheet sheet = make_run_sheet(*derived, c.workshop.catalog());
        if (!why_) sheet.reasons.clear();
        sheet.cautions.clear();
        c.out << to_text(sheet, *derived);
        return code;
    }

    static Result<LaneRule> rule_of(const Project& project, const std::string& text) {
        const auto less = text.find('<');
        if (less == text.npos)
            return fail("cli.rule", say("\"%1\" is no rule: write 'D<F', or 'D<F: why'.", text));
        const auto colon = text.find(':', less);
        const auto before = lane_named(project, std::string(trimmed(text.substr(0, less))));
        if (!before) return tl::make_unexpected(before.error());
        const auto after = lane_named(project, std::string(trimmed(text.substr(less + 1, colon - less - 1))));
        if (!after) return tl::make_unexpected(after.error());
        return LaneRule{*before, *after,
                        colon == text.npos ? "" : std::string(trimmed(text.substr(colon + 1)))};
    }

    Result<void> wish(Context& c, Project& project) {
        PlanWishes wishes = project.wishes;
        if (usual_) wishes = {}, wishes.mats = project.wishes.mats; // a fact, and no wish of the order
        for (const std::string& text : rules_) {
            if (text.starts_with("off:") || text.starts_with("on:")) {
                wishes = with_kept(wishes, text.substr(text.find(':') + 1), text.starts_with("on:"));
                if (text.starts_with("on:") && !order_rule(text.substr(3)))
                    wishes.off.push_back(text.substr(3)); // told by the command
                continue;
            }
            auto rule = rule_of(project, text);
            if (!rule) return tl::make_unexpected(rule.error());
            wishes = with_rule(wishes, std::move(*rule));
        }
        for (const std::string& text : dropped_) {
            const auto rule = rule_of(project, text);
            if (!rule) return tl::make_unexpected(rule.error());
            const std::size_t were = wishes.rules.size();
            wishes = without_rule(wishes, rule->before, rule->after);
            if (wishes.rules.size() == were) return fail("cli.rule", say("There is no rule \"%1\".", text));
        }
        for (const std::string& text : pins_) {
            const auto equals = text.rfind('=');
            int place = -1;
            if (equals != text.npos)
                (void)std::from_chars(text.data() + equals + 1, text.data() + text.size(), place);
            if (place < 0) return fail("cli.pin", say("\"%1\" is no place: write 'sheet 3=1'.", text));
            const auto sheet = sheet_named(project, std::string(trimmed(text.substr(0, equals))));
            if (!sheet) return tl::make_unexpected(sheet.error());
            wishes = with_pin(wishes, *sheet, place);
        }
        if (!school_.empty())
            wishes.school = school_ == key_of(School::tools) ? School::tools : School::sheets;
        if (mats_ > 0) wishes.mats = mats_;
        if (usual_ && !project.pass_order.empty()) {
            const auto done = apply(in_order({}), project, c.workshop.catalog());
            if (!done) return tl::make_unexpected(done.error());
            said_.push_back(done->said);
        }
        if (wishes == project.wishes) return {};
        const auto done = apply(WishOrder{wishes}, project);
        if (!done) return tl::make_unexpected(done.error());
        said_.push_back(done->said);
        return {};
    }

    int compare(Context& c, const Derived& derived, int code) const {
        const Machine* machine = c.workshop.catalog().machine(derived.project->machine);
        const Project& project = *derived.project;
        PlanOptions options{project.pass_order, project.wishes};
        std::shared_ptr<const Derived> file; // keeps its plan
        Result<Plan> other =
            fail("cli.compare", say("Compare with 'usual', 'sheets', 'tools' or a project file."));
        if (compare_ == "usual")
            options = {}, options.wishes.mats = project.wishes.mats;
        else if (compare_ == key_of(School::sheets))
            options.wishes.school = School::sheets;
        else if (compare_ == key_of(School::tools))
            options.wishes.school = School::tools;
        else {
            auto loaded = load_project(c.files, compare_);
            if (!loaded) return c.error(loaded.error());
            settle_placements(*loaded, c.workshop);
            file = planned(c, std::move(*loaded));
            if (!file->plan) return c.error(file->no_plan);
            other = *file->plan;
        }
        if (!file) other = make_plan(project.name, *machine, *derived.works, options);
        if (!other) return c.error(other.error());
        const auto rows = compared(*derived.plan, *other);
        if (c.json) {
            json figures = json::array();
            for (const Compared& row : rows)
                figures.push_back({{"figure", row.key},
                                   {"what", row.what},
                                   {"this", row.first},
                                   {"other", row.second},
                                   {"better", row.better() < 0   ? "this"
                                              : row.better() > 0 ? "other"
                                                                 : "same"}});
            c.print({{"figures", figures},
                     {"risks", to_json(derived.plan->findings)},
                     {"other_risks", to_json(other->findings)}});
            return code;
        }
        c.out << "this plan | " << compare_ << "\n";
        for (const Compared& row : rows)
            c.out << (row.better() == 0  ? "  "
                      : row.better() < 0 ? "< "
                                         : "> ")
                  << row.what << ": " << row.first_said << " | " << row.second_said << "\n";
        const auto risks = [&](const char* whose, const Findings& list) {
            for (const Finding& f : list)
                c.out << whose << f.message << "\n";
        };
        risks("this plan: ", derived.plan->findings);
        risks("the other: ", other->findings);
        return code;
    }

    int explain(Context& c, const Derived& derived, int code) const {
        const Program& program = derived.plan->program;
        const bool stop = move_.starts_with("stop");
        int number = 0;
        if (const auto blank = move_.find(' '); blank != move_.npos && (stop || move_.starts_with("pass")))
            (void)std::from_chars(move_.data() + blank + 1, move_.data() + move_.size(), number);
        std::size_t found = program.moves.size();
        for (std::size_t m = 0; m < program.moves.size(); ++m) {
            const auto* s = std::get_if<StopMove>(&program.moves[m]);
            const auto* p = std::get_if<PassMove>(&program.moves[m]);
            if (stop ? s && s->number == number : p && p->number == number) found = m;
        }
        if (found == program.moves.size())
            return c.error({"cli.move", say("There is no \"%1\": write 'stop 3' or 'pass 5'.", move_), {}});
        const Project& project = *derived.project;
        const auto why =
            why_move(*derived.plan, *derived.works, *c.workshop.catalog().machine(project.machine),
                     {project.pass_order, project.wishes}, found);
        if (!why) return c.error(why.error());
        if (c.json)
            c.print({{"move", move_}, {"why", *why}});
        else
            for (const Phrase& sentence : *why)
                c.out << sentence << "\n";
        return code;
    }

    bool why_ = false, usual_ = false, saves_ = false;
    int mats_ = 0;
    std::string compare_, move_, school_;
    std::vector<std::string> rules_, dropped_, pins_;
    std::vector<Phrase> said_;
    Only only_;
};

} // namespace

std::unique_ptr<Verb> make_plan() {
    return std::make_unique<PlanVerb>();
}

} // namespace dotlane::cli
