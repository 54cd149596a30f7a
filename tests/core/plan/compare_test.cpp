#include "core/plan/compare.h"

#include <regex>

#include "core/commands/ordering.h"
#include "core/commands/remedies.h"
#include "core/project/edits.h"
#include "tests/core/plan/sheets_alike.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

std::size_t row_of(const std::vector<Compared>& rows, const char* key) {
    for (std::size_t r = 0; r < rows.size(); ++r)
        if (rows[r].key == key) return r;
    FAIL(key);
    return 0;
}

} // namespace

TEST_CASE("two plans side by side tell what each of them tells by itself") {
    const Bench b = sheets_alike(3);
    const auto derived = b.derive();
    REQUIRE(derived->plan);
    PlanOptions tools;
    tools.wishes.school = School::tools;
    const Plan other = must(make_plan("p", machine_of(b), *derived->works, tools));
    const auto rows = compared(*derived->plan, other);
    const Compared& hands = rows[row_of(rows, "hands_s")];
    CHECK(hands.first == in_seconds(derived->plan->totals.hands));
    CHECK(hands.second == in_seconds(other.totals.hands));
    CHECK(hands.better() == (hands.first < hands.second ? -1 : hands.second < hands.first ? 1 : 0));
    CHECK(rows[row_of(rows, "stops")].second == other.totals.stops);
    // Each of three sheets once, or each as often as a seating needs it.
    CHECK(rows[row_of(rows, "unloads")].first == 3);
    CHECK(rows[row_of(rows, "unloads")].second > 3);
    CHECK(rows[row_of(rows, "risks")].second == 1);
    CHECK(has(other.findings, "order.out-and-in"));
    CHECK(rows[row_of(rows, "swaps")].second <= rows[row_of(rows, "swaps")].first);
    // The program of the other school can be run: every pass on the sheet that lies in the machine.
    SheetId lies;
    std::size_t loads = 0;
    std::map<SheetId, double> length_of;
    for (const Move& move : other.program.moves) {
        if (const auto* stop = std::get_if<StopMove>(&move)) {
            lies = stop->sheet;
            for (const HandStep& step : stop->steps)
                loads += step.kind == HandStep::Kind::load ? 1 : 0;
        } else {
            const auto& pass = std::get<PassMove>(move);
            CHECK(pass.sheet == lies);
            length_of[pass.sheet] += in_mm(length(pass.strokes));
        }
    }
    CHECK(static_cast<double>(loads) == rows[row_of(rows, "unloads")].second);
    CHECK(other.program.sheets.size() == 3);
    CHECK(length_of.size() == 3);
    for (const auto& [sheet, length] : length_of) // all lines of each, once
        CHECK(length == Approx(length_of.begin()->second));
}

TEST_CASE("why a stop or a pass is there, and what the next best would cost") {
    const Bench b = sheets_alike(3);
    const auto derived = b.derive();
    const Plan& plan = *derived->plan;
    const auto said = [&](std::size_t move, const PlanOptions& options = {}) {
        std::string all;
        for (const Phrase& p : must(why_move(plan, *derived->works, machine_of(b), options, move)))
            all += p.english() + "\n";
        return all;
    };
    for (std::size_t m = 0; m < plan.program.moves.size(); ++m)
        CHECK_FALSE(said(m).empty());
    CHECK(said(0).find("comes into the machine") != std::string::npos);
    CHECK(said(plan.program.moves.size() - 1).find("the last sheet comes out") != std::string::npos);
    std::size_t cut = 0;
    for (std::size_t m = 0; m < plan.program.moves.size(); ++m)
        if (const auto* pass = std::get_if<PassMove>(&plan.program.moves[m]);
            pass && pass->action == Action::cut)
            cut = m;
    CHECK(said(cut).find("released pieces can shift") != std::string::npos);
    // What it says of the next best place is what planning it there takes.
    const std::string of_sheet = said(0);
    double least = 1e9;
    const SheetId first = plan.program.sheets.front().sheet;
    for (int place = 2; place <= 3; ++place) {
        PlanOptions pinned;
        pinned.wishes.pins = {{first, place}};
        const Plan there = must(make_plan("p", machine_of(b), *derived->works, pinned));
        CHECK(there.program.sheets[static_cast<std::size_t>(place) - 1].sheet == first);
        least = std::min(least, in_seconds(there.totals.hands) - in_seconds(plan.totals.hands));
    }
    CHECK(least > -0.5); // the plan is proven
    CHECK((of_sheet.find("as much of your time") != std::string::npos) == (least < 0.5));
    Progress progress;
    progress.cancel();
    CHECK(why_move(plan, *derived->works, machine_of(b), {}, 1, progress).error().code == "cancelled");
}

TEST_CASE("every stop has its reason, with all that could not be run without it") {
    const Bench b = sheets_alike(3);
    for (const School school : all_schools) {
        PlanOptions options;
        options.wishes.school = school;
        const Plan plan = must(make_plan("p", machine_of(b), *b.derive()->works, options));
        // Followed forwards: at which stop the sheet of a pass was loaded, and its tool put in.
        std::map<std::string, int> tool_at;
        int sheet_at = 0, stops = 0;
        std::map<int, std::size_t> strokes; // that rest on a stop
        for (const Move& move : plan.program.moves) {
            if (const auto* stop = std::get_if<StopMove>(&move)) {
                ++stops;
                std::map<std::string, int> now;
                for (const Phrase& held : stop->holds)
                    if (!held.empty())
                        now[held.english()] =
                            tool_at.contains(held.english()) ? tool_at[held.english()] : stop->number;
                tool_at = now;
                for (const HandStep& step : stop->steps)
                    if (step.kind == HandStep::Kind::load) sheet_at = stop->number;
                continue;
            }
            const auto& pass = std::get<PassMove>(move);
            for (const int at : std::set<int>{sheet_at, tool_at.at(pass.tool.english())})
                strokes[at] += pass.strokes.size();
        }
        int told = 0;
        for (const Reason& reason : plan.reasons) {
            if (reason.code != stop_reason) continue;
            ++told;
            const std::string text = reason.sentence.english();
            INFO(text);
            CHECK(text.starts_with("At stop " + std::to_string(told) + " hands are needed because "));
            std::size_t sum = 0;
            static const std::regex count("([0-9]+) strokes? of the");
            for (std::sregex_iterator it(text.begin(), text.end(), count), end; it != end; ++it)
                sum += std::stoul((*it)[1]);
            CHECK(sum == strokes[told]);
        }
        CHECK(told == stops);
    }
}

TEST_CASE("the usual order mends a broken rule whether the order of passes or a rule of one's own broke it") {
    for (const bool by_rule : {true, false}) {
        Bench b = sheets_alike(3);
        const LaneId cut = b.lane(Action::cut), draw = b.lane(Action::draw);
        if (by_rule)
            must(apply(WishOrder{with_rule({}, {cut, draw, ""})}, b.project));
        else
            must(set_pass_order(b.project, {cut, draw}));
        const auto derived = b.derive();
        CHECK_FALSE(derived->plan->broken.empty());
        const Finding told = get(derived->findings, "order.after-cut");
        must(apply(MendFinding{told}, b.project, catalog(), *derived));
        const auto after = b.derive();
        CHECK(after->plan->broken.empty());
        CHECK_FALSE(has(after->findings, "order.after-cut"));
    }
}

TEST_CASE("wishes are kept with the project, told in one sentence, and go with what they name") {
    Bench b = sheets_alike(3);
    const LaneId draw = b.lane(Action::draw), score = b.lane(Action::score), cut = b.lane(Action::cut);
    PlanWishes wishes = with_rule({}, {score, draw, "folds first"});
    wishes = with_pin(with_pin(wishes, b.project.sheets[2].id, 1), b.project.sheets[1].id, 3);
    wishes = with_kept(wishes, "light-first", false);
    const Done done = must(apply(WishOrder{wishes}, b.project));
    CHECK(done.said.english().find("runs as number 1") != std::string::npos);
    const auto derived = b.derive();
    REQUIRE(derived->plan);
    CHECK(derived->plan->program.sheets.front().sheet == b.project.sheets[2].id);
    CHECK(derived->plan->program.sheets.back().sheet == b.project.sheets[1].id);
    // Of a run of fewer sheets the last place is an earlier one, and that is what is said.
    NotThisRun out;
    out.sheets = {b.project.sheets[0].id};
    const auto fewer =
        b.workshop->derive(std::make_shared<Project>(b.project), no_progress(), {}, {{}, Effort::first, out});
    REQUIRE(fewer->plan);
    bool said = false;
    for (const Reason& r : fewer->plan->reasons)
        said |= r.code == "order.pinned" &&
                r.sentence.english() ==
                    "\"" + b.project.sheets[1].name + "\" runs as number 2 of the sheets, as you wish.";
    CHECK(said);
    std::vector<Action> actions;
    for (const Move& move : derived->plan->program.moves)
        if (const auto* pass = std::get_if<PassMove>(&move)) actions.push_back(pass->action);
    REQUIRE(actions.size() == 9);
    CHECK(actions[0] == Action::score);
    CHECK(actions[1] == Action::draw);
    CHECK(actions[2] == Action::cut);
    // Errors change nothing.
    const Project before = b.project;
    CHECK(apply(WishOrder{with_rule(wishes, {draw, score, ""})}, b.project).error().code == "order.circle");
    CHECK(apply(WishOrder{with_rule(with_rule(wishes, {draw, cut, ""}), {cut, score, ""})}, b.project)
              .error()
              .code == "order.circle");
    CHECK(apply(WishOrder{with_kept({}, "nonsense", false)}, b.project).error().code == "order.rule");
    CHECK(apply(WishOrder{with_rule({}, {draw, LaneId{9999}, ""})}, b.project).error().code ==
          "edit.missing");
    PlanWishes twice;
    twice.pins = {{b.project.sheets[0].id, 2}, {b.project.sheets[1].id, 2}};
    CHECK(apply(WishOrder{twice}, b.project).error().code == "order.place");
    CHECK(b.project == before);
    must(remove_lane(b.project, score));
    CHECK(b.project.wishes.rules.empty());
    const SheetId pinned = b.project.sheets[2].id;
    must(remove_sheet(b.project, pinned));
    CHECK(b.project.wishes.pins.size() == 1);
}

TEST_CASE("the usual order is mended by the rules that broke it, and the others stay") {
    Bench b = sheets_alike(2);
    const LaneId cut = b.lane(Action::cut), draw = b.lane(Action::draw), score = b.lane(Action::score);
    const LaneRule harmless{score, draw, "folds first"};
    const auto mended = [&](std::vector<LaneRule> rules, const std::string& late) {
        Project project = b.project;
        for (const LaneRule& rule : rules)
            project.wishes = with_rule(project.wishes, rule);
        const auto derived = b.workshop->derive(std::make_shared<Project>(project));
        for (const Finding& f : derived->findings)
            for (const auto& [key, value] : f.args)
                if (f.code == "order.after-cut" && key == "late" && value == late) {
                    must(apply(MendFinding{f}, project, catalog(), *derived));
                    return project.wishes.rules;
                }
        FAIL("nothing runs too late: " << late);
        return rules;
    };
    const std::string d = plate(b.project, draw), s = plate(b.project, score);
    CHECK(mended({{cut, draw, ""}, harmless}, d) == std::vector<LaneRule>{harmless});
    // Through another lane: cut before score before draw.
    CHECK(mended({{cut, score, ""}, harmless}, s) == std::vector<LaneRule>{harmless});
    CHECK(mended({{cut, score, ""}, harmless}, d).empty()); // either could go: both lie between
}

TEST_CASE("a lane is split for a part of its own and made one again") {
    Bench b = sheets_alike(3);
    Part more = *find(b.project, b.part);
    Bench other = bench("<rect x='2' y='2' width='30' height='20' fill='none' stroke='#22282c'/>");
    const LaneId cut = b.lane(Action::cut);
    CHECK(apply(SplitLane{cut, b.part}, b.project).error().code == "lane.whole");
    // A second part that cuts too.
    const PartId second = add_part(b.project, "frame", find(other.project, other.part)->source);
    std::vector<LineId> lines;
    for (const DrawnLine& line : find(b.project, second)->source.drawing->lines)
        lines.push_back(line.id);
    must(assign(b.project, second, lines, cut));
    const Project whole = b.project;
    const Done done = must(apply(SplitLane{cut, second}, b.project));
    REQUIRE(done.lane != cut);
    CHECK(find(b.project, done.lane)->tool == find(b.project, cut)->tool);
    for (const LineSet& set : find(b.project, second)->sets)
        if (!set.lines.empty()) CHECK(set.lane == done.lane);
    CHECK(apply(MergeLanes{b.lane(Action::draw), cut}, b.project).error().code == "lane.other");
    CHECK(apply(MergeLanes{cut, cut}, b.project).error().code == "edit.missing");
    must(set_wishes(b.project, with_rule({}, {b.lane(Action::draw), done.lane, ""})));
    const Done merged = must(apply(MergeLanes{done.lane, cut}, b.project));
    REQUIRE(merged.lost.size() == 1); // what went with it is told
    CHECK(merged.lost.front().english().find("runs before") != std::string::npos);
    CHECK(b.project.lanes == whole.lanes);
    CHECK(b.project.parts == whole.parts);
}
