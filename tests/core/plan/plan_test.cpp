#include "core/plan/plan.h"

#include "core/plan/hands.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

const char* card = "<rect id='edge' x='2' y='2' width='80' height='50' fill='none' stroke='#22282c'/>"
                   "<circle id='hole' cx='20' cy='20' r='6' fill='none' stroke='#22282c'/>"
                   "<path id='fold' d='M40,2 v50' fill='none' stroke='#5a6996' stroke-dasharray='4 2'/>"
                   "<path id='wave' d='M50,10 q10,10 20,0' fill='none' stroke='#a8462d'/>"
                   "<circle id='sun' cx='60' cy='30' r='5' fill='#a8832d'/>";

const Plan& plan_of(const std::shared_ptr<const Derived>& d) {
    if (!d->plan) FAIL(d->no_plan.message);
    return *d->plan;
}

std::vector<Action> actions(const Plan& plan) {
    std::vector<Action> out;
    for (const Move& m : plan.program.moves)
        if (const auto* pass = std::get_if<PassMove>(&m)) out.push_back(pass->action);
    return out;
}

} // namespace

TEST_CASE("a plan for two slots: passes in order, four stops, what the hands do") {
    Bench b = bench(card);
    const auto d = b.derive();
    const Plan& plan = plan_of(d);
    CHECK(actions(plan) == std::vector<Action>{Action::draw, Action::foil, Action::score, Action::cut});
    // Load with the pen; foil laid on, pen for foil tip; foil lifted off, tip for stylus and blade; unload.
    CHECK(plan.totals.stops == 4);
    CHECK(plan.totals.passes == 4);
    const auto& first = std::get<StopMove>(plan.program.moves.front());
    CHECK(first.steps.back().kind == HandStep::Kind::load);
    CHECK(first.steps.back().text.english().find("cream card") != std::string::npos);
    const auto& last = std::get<StopMove>(plan.program.moves.back());
    CHECK(last.steps.front().kind == HandStep::Kind::unload);
    bool warmed = false;
    for (const Move& m : plan.program.moves)
        if (const auto* stop = std::get_if<StopMove>(&m))
            for (const HandStep& s : stop->steps)
                warmed |= s.kind == HandStep::Kind::warm_up;
    CHECK(warmed); // the foil tip is hot work
}

TEST_CASE("foil: cold hands, foil on, mat in, heat, run, cool, foil off, tool out") {
    using Hand = HandStep::Kind;
    // Only foil: one stop before and one after.
    Bench b = bench("<circle cx='30' cy='30' r='20' fill='#a8832d'/>");
    const auto d = b.derive();
    const Plan& plan = plan_of(d);
    REQUIRE(plan.program.moves.size() == 3);
    const auto kinds = [&](std::size_t move) {
        std::vector<Hand> out;
        for (const HandStep& s : std::get<StopMove>(plan.program.moves[move]).steps)
            if (s.kind != Hand::care) out.push_back(s.kind);
        return out;
    };
    CHECK(kinds(0) ==
          std::vector<Hand>{Hand::put_in, Hand::test, Hand::load, Hand::lay_on, Hand::load, Hand::warm_up});
    CHECK(kinds(2) == std::vector<Hand>{Hand::cool, Hand::lift_off, Hand::unload, Hand::take_out});
    const auto &before = std::get<StopMove>(plan.program.moves[0]),
               &after = std::get<StopMove>(plan.program.moves[2]);
    // The circle of 40 mm lies 10 mm from both edges, and has 10 mm of rim all around.
    INFO(before.steps[3].text);
    CHECK(before.steps[3].text.english().find("60 x 60 mm, 0 mm from the left and 0 mm from the top") !=
          std::string::npos);
    CHECK(after.steps[0].text.english().find("5 min") != std::string::npos);
    // Times of the catalog: swap 45, lay on 60, load 60, heat 120; cool 300, lift off 20, unload 40.
    CHECK(in_seconds(before.time) == Approx(285));
    CHECK(in_seconds(after.time) == Approx(360));
}

TEST_CASE(
    "whatever the passes: no hand comes near between heating and cooling, and foil lies only under its tip") {
    using Hand = HandStep::Kind;
    Random random("hot tips");
    static const char* colours[] = {"#a8832d", "#a8462d", "#22282c", "#5a6996", "#c0a040"};
    for (int round = 0; round < 40; ++round) {
        std::string drawn;
        for (int i = random.whole(2, 6); i > 0; --i)
            drawn += "<circle cx='" + std::to_string(random.whole(20, 80)) + "' cy='30' r='" +
                     std::to_string(random.whole(2, 15)) + "' fill='none' stroke='" +
                     colours[random.whole(0, 4)] + "'/>";
        Bench b = bench(drawn);
        for (int n = random.whole(0, 2); n > 0; --n) {
            const SheetId id = add_sheet(b.project, "s", "cream-card-12x12", "mat-12x12-standard");
            must(place(b.project, id, {{}, b.part, mm(10), mm(10), {}, false}));
        }
        for (Lane& lane : b.project.lanes) {
            const Action any[] = {Action::foil, Action::draw, Action::cut, Action::score};
            lane.action = any[random.whole(0, 3)];
            lane.tool = catalog().first_tool(lane.action)->id;
            if (lane.action == Action::foil && random.coin()) lane.tool = "foil-tip-1.0";
        }
        if (random.coin()) b.project.machine = "one-slot";
        std::vector<LaneId> wished;
        for (const Lane& lane : b.project.lanes)
            wished.push_back(lane.id);
        std::shuffle(wished.begin(), wished.end(), random.engine());
        if (random.coin()) must(set_pass_order(b.project, wished));
        const auto d = b.derive();
        bool hot = false;
        std::string lying; // the colour of the foil on the mat
        SheetId loaded;
        for (const Move& move : plan_of(d).program.moves) {
            if (const auto* pass = std::get_if<PassMove>(&move)) {
                CHECK(pass->sheet == loaded);
                CHECK(hot == (pass->action == Action::foil));
                CHECK(lying == (pass->action == Action::foil ? colour_word(pass->colour) : ""));
                continue;
            }
            const auto& stop = std::get<StopMove>(move);
            bool unloaded = !loaded;
            for (const HandStep& step : stop.steps) {
                INFO(step.text);
                if (step.kind == Hand::cool) hot = false;
                if (step.kind != Hand::care && step.kind != Hand::warm_up) CHECK_FALSE(hot);
                if (step.kind == Hand::lift_off) CHECK_FALSE(std::exchange(lying, "").empty());
                if (step.kind == Hand::unload) {
                    CHECK(lying.empty());
                    unloaded = true;
                }
                if (step.kind == Hand::lay_on) {
                    CHECK(lying.empty());
                    lying = step.text.english().substr(4, step.text.english().find(" foil ") - 4);
                }
                if (step.kind == Hand::load) CHECK(unloaded);
                if (step.kind == Hand::warm_up) hot = true;
            }
            loaded = stop.sheet;
        }
        CHECK_FALSE(hot);
        CHECK(lying.empty());
    }
}

TEST_CASE("pieces of foil: one for each patch of lines when that saves foil, inside the mat") {
    const ProgramSheet sheet{{}, "", {}, {}, mm(300), mm(300), {}, {0, 0, 300, 300}, {}};
    const Polylines corners = {line({{5, 5}, {20, 20}}), line({{250, 250}, {290, 295}})};
    CHECK(foil_pieces({&corners}, sheet) == std::vector<Box>{{0, 0, 30, 30}, {240, 240, 300, 300}});
    const Polylines close = {line({{50, 50}, {80, 80}}), line({{85, 50}, {110, 80}})};
    CHECK(foil_pieces({&close}, sheet) == std::vector<Box>{{40, 40, 120, 90}});
    CHECK(foil_pieces({}, sheet).empty());
    Polylines grid;
    for (int x = 0; x < 10; ++x)
        for (int y = 0; y < 10; ++y)
            grid.push_back(line({{15.0 + x * 30, 15.0 + y * 30}, {16.0 + x * 30, 16.0 + y * 30}}));
    CHECK(foil_pieces({&grid}, sheet).size() == 1); // nobody tapes a hundred snippets
}

TEST_CASE("a blade is set for each stock as its sheet is loaded, and only when it changes") {
    Bench b = bench("<rect x='2' y='2' width='80' height='50' fill='none' stroke='#22282c'/>");
    for (const char* stock :
         {"cream-card-12x12", "heavy-paper-12x12", "slate-card-12x12"}) { // 0.28, 0.2, 0.28 mm
        const SheetId id = add_sheet(b.project, stock, stock, "mat-12x12-standard");
        must(place(b.project, id, {{}, b.part, mm(10), mm(10), {}, false}));
    }
    const auto d = b.derive();
    std::vector<std::string> told;
    for (const Move& move : plan_of(d).program.moves)
        if (const auto* stop = std::get_if<StopMove>(&move)) {
            told.emplace_back();
            for (const HandStep& step : stop->steps)
                if (step.kind == HandStep::Kind::depth || step.kind == HandStep::Kind::put_in)
                    told.back() = step.text.english();
        }
    REQUIRE(told.size() == 5);
    CHECK(told[0] == "Put the fine blade into the right holder, its tip out by 0.38 mm, for cream card.");
    CHECK(told[1].empty());
    CHECK(told[2] == "Set the tip of the fine blade in the right holder out by 0.3 mm, for heavy paper.");
    CHECK(told[3] == "Set the tip of the fine blade in the right holder out by 0.38 mm, for slate card.");
    CHECK(told[4].empty());
}

TEST_CASE("the same job on one slot needs a stop for every pass") {
    Bench b = bench(card);
    b.project.machine = "one-slot";
    const auto d = b.derive();
    const Plan& plan = plan_of(d);
    CHECK(plan.totals.stops == 5);
    CHECK(actions(plan) == std::vector<Action>{Action::draw, Action::foil, Action::score, Action::cut});
    for (const Move& m : plan.program.moves)
        if (const auto* pass = std::get_if<PassMove>(&m)) CHECK(pass->slot.english() == "holder");
}

TEST_CASE("a tool only sits where its holder takes it") {
    Bench b = bench(card);
    const auto d = b.derive();
    for (const Move& m : plan_of(d).program.moves)
        if (const auto* pass = std::get_if<PassMove>(&m)) {
            if (pass->action == Action::draw || pass->action == Action::foil)
                CHECK(pass->slot.english() == "left holder");
            if (pass->action == Action::cut) CHECK(pass->slot.english() == "right holder");
        }
}

TEST_CASE("holes are cut before the outline") {
    Bench b = bench(card);
    const auto d = b.derive();
    for (const Move& m : plan_of(d).program.moves)
        if (const auto* pass = std::get_if<PassMove>(&m); pass && pass->action == Action::cut) {
            REQUIRE(pass->strokes.size() == 2);
            CHECK(bounds(pass->strokes[0]).width() == Approx(12).margin(0.1));
            CHECK(bounds(pass->strokes[1]).width() == Approx(80).margin(0.1));
        }
}

TEST_CASE("totals add up to the timeline") {
    Bench b = bench(card);
    const auto d = b.derive();
    const Plan& plan = plan_of(d);
    CHECK(in_seconds(plan.totals.machine + plan.totals.hands) == Approx(in_seconds(plan.timeline.total())));
    CHECK(plan.totals.cost == Approx(0.62));
    double down = 0;
    for (const Move& m : plan.program.moves)
        if (const auto* pass = std::get_if<PassMove>(&m)) down += in_mm(length(pass->strokes));
    CHECK(in_mm(plan.totals.tool_down) == Approx(down));
}

TEST_CASE("repeats run the same lines again without moving the sheet") {
    Bench b = bench(card);
    const auto once = b.derive();
    find(b.project, b.lane(Action::foil))->repeats = 3;
    const auto thrice = b.derive();
    const auto foil = [](const Plan& p) {
        for (const Move& m : p.program.moves)
            if (const auto* pass = std::get_if<PassMove>(&m); pass && pass->action == Action::foil)
                return *pass;
        return PassMove{};
    };
    const PassMove a = foil(plan_of(once)), b3 = foil(plan_of(thrice));
    CHECK(b3.strokes == a.strokes); // a number says how often, nothing is copied
    CHECK(runs(b3) == 3 * runs(a));
    CHECK(in_mm(plan_of(thrice).totals.tool_down - plan_of(once).totals.tool_down) ==
          Approx(2 * in_mm(length(a.strokes))));
    CHECK(plan_of(thrice).totals.stops == plan_of(once).totals.stops);
}

TEST_CASE("pens of one kind in two colours are two tools") {
    Bench b = bench("<path d='M5,5 h50' stroke='#a8462d' fill='none'/><path d='M5,15 h50' stroke='#2f5d62' "
                    "fill='none'/>");
    CHECK(plan_of(b.derive()).totals.stops == 3); // load with one, swap, unload: only one slot takes pens
    for (Lane& lane : b.project.lanes)
        lane.colour = {10, 20, 30};
    CHECK(plan_of(b.derive()).totals.stops == 2);
}

TEST_CASE("two sheets: a bar, and the tools stay in where they can") {
    Bench b = bench(card);
    const SheetId second = add_sheet(b.project, "sheet 2", "cream-card-12x12", "mat-12x12-standard");
    must(place(b.project, second, {{}, b.part, mm(10), mm(10), {}, false}));
    const auto d = b.derive();
    const Plan& plan = plan_of(d);
    CHECK(plan.totals.sheets == 2);
    CHECK(plan.totals.cost == Approx(1.24));
    CHECK(plan.program.sheets.size() == 2);
    CHECK(plan.totals.stops == 7);
}

TEST_CASE("the plan's hands, stop by stop, are the least of all orders that keep the rules") {
    // The search weighs stretches, the stops are told afterwards: their times have to agree.
    for (const bool two : {false, true}) {
        Bench b = bench(card);
        if (two) {
            const SheetId second = add_sheet(b.project, "sheet 2", "cream-card-12x12", "mat-12x12-standard");
            must(place(b.project, second, {{}, b.part, mm(10), mm(10), {}, false}));
        }
        const double found = in_seconds(plan_of(b.derive()).totals.hands);
        std::vector<LaneId> order;
        for (const Action a : {Action::draw, Action::foil, Action::score, Action::cut})
            order.push_back(b.lane(a));
        const LaneId cut = order.back();
        std::sort(order.begin(), order.end());
        double least = 1e300;
        int tried = 0;
        do {
            must(set_pass_order(b.project, order));
            const double hands = in_seconds(plan_of(b.derive()).totals.hands);
            if (order.back() == cut) least = std::min(least, hands), ++tried;
        } while (std::next_permutation(order.begin(), order.end()));
        CHECK(tried == 6);
        if (two)
            CHECK(found <= least); // each sheet may have an order of its own
        else
            CHECK(found == least);
    }
}

TEST_CASE("every decision has its sentence") {
    Bench b = bench(card);
    const auto d = b.derive();
    const auto& reasons = plan_of(d).reasons;
    const auto said = [&](const char* code) {
        return std::any_of(reasons.begin(), reasons.end(), [&](const Reason& r) { return r.code == code; });
    };
    CHECK(said("hands.least"));
    CHECK(said("slots.together"));
    CHECK(said("order.cut-last"));
    CHECK(said("route.inner-first"));
    for (const Reason& r : reasons)
        CHECK(r.sentence.english().back() == '.');
}

TEST_CASE("what cannot be planned says why") {
    Bench b = bench(card, 100, 100, false);
    CHECK(b.derive()->no_plan.code == "plan.nothing");
    b = bench(card);
    b.project.machine = "nowhere";
    CHECK(b.derive()->no_plan.code == "plan.no-machine");
    b = bench(card);
    find(b.project, b.lane(Action::draw))->tool = "none";
    const auto d = b.derive();
    CHECK(d->no_plan.code == "plan.no-tool");
    CHECK(has(d->findings, "lane.no-tool"));
    Catalog small = catalog();
    small.machines[0].slots = {{"only", "only", {"blade"}}};
    b = bench(card);
    b.workshop = std::make_shared<Workshop>(small);
    CHECK(b.derive()->no_plan.code == "plan.no-slot");
}

TEST_CASE("a cancelled plan gives nothing") {
    Bench b = bench(card);
    Progress cancelled;
    cancelled.cancel();
    CHECK_FALSE(b.workshop->derive(std::make_shared<Project>(b.project), cancelled));
    CHECK(b.derive()); // and does no harm to the next one
}

TEST_CASE("parts and sheets are handed out before the plan, and are the same afterwards") {
    Bench b = bench(card);
    std::shared_ptr<const Derived> early;
    Progress progress;
    const auto project = std::make_shared<const Project>(b.project);
    const auto whole = b.workshop->derive(project, progress, [&](const auto& derived) {
        CHECK_FALSE(early); // once
        early = derived;
    });
    REQUIRE(early);
    REQUIRE(whole);
    CHECK_FALSE(early->planned);
    CHECK_FALSE(early->plan);
    CHECK(early->project == whole->project);
    CHECK(early->parts == whole->parts); // the same objects: nothing is evaluated twice
    CHECK(early->sheets.size() == whole->sheets.size());
    CHECK(whole->planned);
    CHECK(whole->plan);
    CHECK(whole->findings.size() >= early->findings.size());
}

TEST_CASE("work that ends once the parts are there leaves them for the next one") {
    Bench b = bench(card);
    std::shared_ptr<const Derived> early;
    Progress progress;
    CHECK_FALSE(b.workshop->derive(std::make_shared<Project>(b.project), progress, [&](const auto& derived) {
        early = derived;
        progress.cancel();
    }));
    REQUIRE(early);
    CHECK(b.derive()->parts == early->parts);
}
