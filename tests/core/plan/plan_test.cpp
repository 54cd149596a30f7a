#include "core/plan/plan.h"

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
    CHECK(plan.totals.stops == 4); // load with pen; pen for foil and stylus; stylus for blade; unload
    CHECK(plan.totals.passes == 4);
    const auto& first = std::get<StopMove>(plan.program.moves.front());
    CHECK(first.steps.back().kind == HandStep::Kind::load);
    CHECK(first.steps.back().text.find("cream card") != std::string::npos);
    const auto& last = std::get<StopMove>(plan.program.moves.back());
    CHECK(last.steps.front().kind == HandStep::Kind::unload);
    bool warmed = false;
    for (const Move& m : plan.program.moves)
        if (const auto* stop = std::get_if<StopMove>(&m))
            for (const HandStep& s : stop->steps)
                warmed |= s.kind == HandStep::Kind::warm_up;
    CHECK(warmed); // the foil tip is hot work
}

TEST_CASE("the same job on one slot needs a stop for every pass") {
    Bench b = bench(card);
    b.project.machine = "one-slot";
    const auto d = b.derive();
    const Plan& plan = plan_of(d);
    CHECK(plan.totals.stops == 5);
    CHECK(actions(plan) == std::vector<Action>{Action::draw, Action::foil, Action::score, Action::cut});
    for (const Move& m : plan.program.moves)
        if (const auto* pass = std::get_if<PassMove>(&m)) CHECK(pass->slot == "holder");
}

TEST_CASE("a tool only sits where its holder takes it") {
    Bench b = bench(card);
    const auto d = b.derive();
    for (const Move& m : plan_of(d).program.moves)
        if (const auto* pass = std::get_if<PassMove>(&m)) {
            if (pass->action == Action::draw || pass->action == Action::foil)
                CHECK(pass->slot == "left holder");
            if (pass->action == Action::cut) CHECK(pass->slot == "right holder");
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
    const auto strokes = [](const Plan& p) {
        for (const Move& m : p.program.moves)
            if (const auto* pass = std::get_if<PassMove>(&m); pass && pass->action == Action::foil)
                return pass->strokes.size();
        return std::size_t{0};
    };
    CHECK(strokes(plan_of(thrice)) == 3 * strokes(plan_of(once)));
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

TEST_CASE("every decision has its sentence") {
    Bench b = bench(card);
    const auto d = b.derive();
    const auto& reasons = plan_of(d).reasons;
    const auto said = [&](const char* code) {
        return std::any_of(reasons.begin(), reasons.end(), [&](const Reason& r) { return r.code == code; });
    };
    CHECK(said("stops.fewest"));
    CHECK(said("slots.together"));
    CHECK(said("order.cut-last"));
    CHECK(said("route.inner-first"));
    for (const Reason& r : reasons)
        CHECK(r.sentence.back() == '.');
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
