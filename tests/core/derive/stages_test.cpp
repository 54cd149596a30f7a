// What an edit costs: each stage makes anew what its key names, and forgets what is gone.
#include "core/derive/stages.h"

#include "core/commands/making.h"
#include "core/commands/placing.h"
#include "core/derive/workshop.h"
#include "core/project/edits.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// How often each stage made something.
struct Counts {
    std::size_t sources = 0, brought = 0, recipes = 0, lent = 0, checks = 0, tips = 0, footprints = 0,
                layouts = 0, overlaps = 0, lines = 0, routes = 0, passes = 0, plans = 0;
    bool operator==(const Counts&) const = default;
};

struct Shop {
    Workshop workshop{catalog()};
    Project project = workshop.new_project("stages");
    std::shared_ptr<const Derived> last;

    Counts counts() {
        Stages& s = workshop.stages();
        return {s.of<SourceOf>().made(),    s.of<BroughtOf>().made(),    s.of<RecipeOf>().made(),
                s.of<LentOf>().made(),      s.of<PartChecksOf>().made(), s.of<TipChecksOf>().made(),
                s.of<FootprintOf>().made(), s.of<LayoutOf>().made(),     s.of<OverlapsOf>().made(),
                s.of<LinesOf>().made(),     s.of<RouteOf>().made(),      s.of<PassOf>().made(),
                s.of<PlanOf>().made()};
    }
    /// What the edit made anew.
    Counts cost(const std::function<void(Project&)>& edit) {
        edit(project);
        const Counts before = counts();
        last = workshop.derive(std::make_shared<Project>(project));
        const Counts now = counts();
        return {now.sources - before.sources,
                now.brought - before.brought,
                now.recipes - before.recipes,
                now.lent - before.lent,
                now.checks - before.checks,
                now.tips - before.tips,
                now.footprints - before.footprints,
                now.layouts - before.layouts,
                now.overlaps - before.overlaps,
                now.lines - before.lines,
                now.routes - before.routes,
                now.passes - before.passes,
                now.plans - before.plans};
    }
    PartId label(double width) {
        Label spec;
        spec.width = mm(width), spec.height = mm(30), spec.border = mm(2);
        return must(make_part(project, workshop.catalog(), workshop.fonts(), spec));
    }
};

/// Two labels on a sheet of their own each, the second with a layer that follows it and words.
void furnish(Shop& shop) {
    const PartId a = shop.label(60), b = shop.label(70);
    Layer layer;
    layer.of = b;
    must(make_part(shop.project, shop.workshop.catalog(), shop.workshop.fonts(), layer));
    must(append_step(shop.project, shop.workshop.catalog(), b, step_kind("words")->fresh, {}));
    const Catalog& catalog = shop.workshop.catalog();
    const std::string mat = catalog.machine(shop.project.machine)->mats.front();
    double left = 20;
    for (const PartId part : {a, b}) {
        const SheetId sheet = add_sheet(shop.project, "sheet", catalog.stocks.front().id, mat);
        Placement p;
        p.part = part, p.left = mm(left), p.top = mm(20);
        must(place(shop.project, sheet, p));
        left += 5;
    }
    shop.cost([](Project&) {});
}

} // namespace

TEST_CASE("an edit makes anew what depends on it, and nothing else") {
    Shop shop;
    furnish(shop);
    const Part first = shop.project.parts[0];
    CHECK(shop.cost([](Project&) {}) == Counts{});
    // How many are wanted changes findings only, which are counted each time.
    CHECK(shop.cost([](Project& p) { p.parts[0].quantity = 4; }) == Counts{});
    CHECK(has(shop.last->findings, "part.count"));
    // The project's name stands in the plan alone.
    CHECK(shop.cost([](Project& p) { p.name = "other"; }).plans == 1);
    CHECK(shop.cost([](Project& p) { p.name = "third"; }).passes == 0);
    // Where a part lies: its sheet, the lines and routes on it, the plan; no part.
    const Counts moved = shop.cost([](Project& p) { p.sheets[0].placements[0].left += mm(3); });
    CHECK(moved.recipes == 0);
    CHECK(moved.checks == 0);
    CHECK(moved.layouts == 1);
    CHECK(moved.overlaps == 1);
    CHECK(moved.passes >= 1);
    CHECK(moved.routes == moved.lines);
    CHECK(moved.passes == moved.lines);
    CHECK(moved.plans == 1);
    // A number of the first label: this part and its sheet.
    const Counts number =
        shop.cost([](Project& p) { std::get<Label>(p.parts[0].source.spec).width = mm(61); });
    CHECK(number.sources == 1);
    CHECK(number.recipes == 1);
    CHECK(number.checks == 1);
    CHECK(number.layouts == 1);
    CHECK(number.brought == 0);
    CHECK(number.lent == 0);
    // One of the second: the layer follows it.
    const Counts followed =
        shop.cost([](Project& p) { std::get<Label>(p.parts[1].source.spec).width = mm(71); });
    CHECK(followed.sources == 2);
    CHECK(followed.recipes == 2);
    CHECK(followed.lent == 1);
    // A part's name stands in its findings and in the plan, but changes no line: nothing is routed again.
    const Counts named = shop.cost([](Project& p) { p.parts[0].name = "named"; });
    CHECK(named.sources == 0);
    CHECK(named.recipes == 1);
    CHECK(named.passes == 0);
    CHECK(named.plans == 1);
    // Another colour of the lane: the plan, no line.
    const Counts coloured = shop.cost([](Project& p) { p.lanes[0].colour = Colour{1, 2, 3}; });
    CHECK(coloured.recipes == 0);
    CHECK(coloured.passes == 0);
    CHECK(coloured.checks == 0);
    CHECK(coloured.plans == 1);
    // How often a lane is run, and what its tool needs besides: its passes, in the order that is known.
    for (const auto& edit : std::vector<std::function<void(Lane&)>>{
             [](Lane& lane) { lane.repeats = 2; }, [](Lane& lane) { lane.run.overcut = mm(0.7); },
             [](Lane& lane) { lane.run.lead_in = mm(1.5); }}) {
        const Counts run = shop.cost([&](Project& p) { edit(p.lanes[0]); });
        CHECK(run.lines == 0);
        CHECK(run.routes == 0);
        CHECK(run.passes >= 1);
        CHECK(run.plans == 1);
    }
    // Another tool: what depends on its tip, and the plan.
    const Counts tooled = shop.cost([&](Project& p) {
        const auto& tools = shop.workshop.catalog().tools;
        p.lanes[0].tool = std::find_if(tools.begin(), tools.end(), [&](const Tool& tool) {
                              return tool.id != p.lanes[0].tool &&
                                     std::count(tool.actions.begin(), tool.actions.end(), p.lanes[0].action);
                          })->id;
    });
    CHECK(tooled.recipes == 0);
    CHECK(tooled.checks == 0);
    CHECK(tooled.tips >= 2);
    CHECK(tooled.lines == 0);
    CHECK(tooled.plans == 1);
    // Where its closed lines begin: their routes.
    const Counts begun = shop.cost([](Project& p) { p.lanes[0].run.start = LineStart::top; });
    CHECK(begun.lines == 0);
    CHECK(begun.routes >= 1);
    CHECK(begun.passes == begun.routes);
    // Back again is as much as forth: one version is kept of each.
    CHECK(shop.cost([&](Project& p) { p.parts[0].name = first.name; }).recipes == 1);
}

TEST_CASE("what is gone is forgotten, wherever it was kept") {
    Shop shop;
    furnish(shop);
    const std::size_t full = shop.workshop.stages().size();
    const Project before = shop.project;
    shop.cost([](Project& p) {
        must(remove_part(p, p.parts[2].id));
        must(remove_part(p, p.parts[1].id));
    });
    const std::size_t less = shop.workshop.stages().size();
    CHECK(less < full);
    CHECK(shop.workshop.stages().of<BroughtOf>().size() == 0); // the words went with their step
    CHECK(shop.workshop.stages().of<LentOf>().size() == 0);
    shop.cost([&](Project& p) { p = before; });
    CHECK(shop.workshop.stages().size() == full);
    shop.cost([](Project& p) { p = Project{}; });
    CHECK(shop.workshop.stages().size() == 1); // the plan that there is none
}

TEST_CASE("a derivation that is cancelled anywhere leaves nothing that the next would take for whole") {
    Random random("cancelled stages");
    INFO("seed " << random.seed());
    Shop shop;
    furnish(shop);
    const auto whole = [&](const Project& project) {
        Workshop fresh(catalog());
        return fresh.derive(std::make_shared<Project>(project));
    };
    for (int round = 0; round < 20; ++round) {
        std::get<Label>(shop.project.parts[0].source.spec).width = mm(random.real(40, 90));
        shop.project.sheets[1].placements[0].left = mm(random.real(10, 60));
        Progress progress;
        // Cancelled at some of its moments, from inside.
        int left = random.whole(0, 3);
        const auto early = [&](const auto&) {
            if (left-- == 0) progress.cancel();
        };
        if (random.coin(0.3)) progress.cancel();
        (void)shop.workshop.derive(std::make_shared<Project>(shop.project), progress, early,
                                   {shop.project.parts[1].id});
        const auto now = shop.workshop.derive(std::make_shared<Project>(shop.project));
        const auto wanted = whole(shop.project);
        REQUIRE(now);
        CHECK(now->findings == wanted->findings);
        REQUIRE(now->plan);
        CHECK(now->plan->program == wanted->plan->program);
    }
}

TEST_CASE("a press meets what is there by its outline: through a hole it meets what lies behind") {
    Workshop workshop(catalog());
    Project project = workshop.new_project("press");
    Label frame;
    frame.width = mm(80), frame.height = mm(60), frame.edge = Label::Edge::plain, frame.border = mm(0);
    const PartId outer = must(make_part(project, workshop.catalog(), workshop.fonts(), frame));
    frame.width = mm(30), frame.height = mm(20);
    const PartId inner = must(make_part(project, workshop.catalog(), workshop.fonts(), frame));
    // A hole of 50 x 40 in the larger one.
    Part& part = *find(project, outer);
    part.source.spec = FromFile{};
    auto drawing = std::make_shared<Drawing>();
    DrawnLine line;
    line.id = LineId{1};
    line.shape = Shape{{rectangle({0, 0, 80, 60}), rectangle({15, 10, 65, 50})}, FillRule::evenodd};
    drawing->lines.push_back(line);
    part.source.drawing = drawing;
    part.sets = {LineSet{part.sets.front().id, "frame", part.sets.front().lane, false, {LineId{1}}, {}}};
    const SheetId sheet = add_sheet(project, "sheet", workshop.catalog().stocks.front().id,
                                    workshop.catalog().machine(project.machine)->mats.front());
    Placement p;
    p.part = inner, p.left = mm(60), p.top = mm(60);
    const PlacementId below = must(place(project, sheet, p));
    p.part = outer, p.left = mm(35), p.top = mm(40), p.turn = degrees(0);
    const PlacementId above = must(place(project, sheet, p));
    const auto derived = workshop.derive(std::make_shared<Project>(project));
    CHECK_FALSE(has(derived->findings, "sheet.cut-through")); // one lies in the hole of the other
    const LaidSheet& laid = *derived->sheet(sheet);
    const auto met = [&](Point at) {
        const PlacedPart* placed = part_at(laid, at, 0.5);
        return placed ? placed->placement.id : PlacementId{};
    };
    CHECK(met({40, 45}) == above); // on the frame
    CHECK(met({75, 70}) == below); // through the hole
    CHECK(met({55, 55}) == above); // in the hole, on nothing: the box of what lies on top
    CHECK(met({50, 70}) == above); // on the edge of the hole
    CHECK_FALSE(met({200, 200}));
}
