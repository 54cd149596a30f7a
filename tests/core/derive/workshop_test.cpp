// Findings and their remedies.
#include "core/commands/remedies.h"
#include "core/derive/workshop.h"

#include "core/commands/filling.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

const char* things = "<rect x='2' y='2' width='80' height='50' fill='none' stroke='#22282c'/><rect x='20' "
                     "y='20' width='30' height='10' fill='#a8832d'/>"
                     "<path d='M10,10 h20' fill='none' stroke='#a8462d'/>";

} // namespace

TEST_CASE("each remedy is an ordinary edit that removes its finding") {
    const auto mends = [](Bench b, const std::string& code) {
        const auto d = b.derive();
        const Finding f = get(d->findings, code);
        REQUIRE_FALSE(f.remedy.code.empty());
        CHECK_FALSE(f.remedy.label.empty());
        const Project before = b.project;
        must(apply(MendFinding{f}, b.project, catalog(), *d));
        CHECK_FALSE(b.project == before);
        must(check_rules(b.project));
        CHECK_FALSE(has(b.derive()->findings, code));
    };
    Bench b = bench(things);
    must(assign(b.project, b.part, {b.lines()[2]}, {}));
    mends(b, "lane.none");

    b = bench(things);
    const StepId step = must(fill_lines(b.project, catalog(), b.part, {b.lines()[1]}));
    auto& fill = std::get<FillStep>(find(b.project, b.part)->steps[0].what);
    fill.spacing = mm(3);
    mends(b, "fill.wide");
    fill.spacing = mm(0.4);
    fill.inset = mm(0);
    mends(b, "fill.overspill");
    fill.inset = mm(30);
    mends(b, "fill.empty");
    (void)step;

    b = bench(things);
    b.project.sheets[0].placements[0].left = mm(-20);
    mends(b, "sheet.outside");
    b = bench(things, 100, 100, false);
    mends(b, "part.unplaced");
    b = bench(things);
    must(set_quantity(b.project, b.part, 24));
    CHECK(get(b.derive()->findings, "part.count").grade == Grade::caution); // too few
    mends(b, "part.count");
    b = bench(things, 100, 100, false);
    b.project.sheets.clear(); // even without a sheet: one is made
    mends(b, "part.unplaced");
    b = bench(things);
    must(set_pass_order(b.project, {b.lane(Action::cut), b.lane(Action::draw)}));
    mends(b, "order.after-cut");
}

TEST_CASE("a remedy that has nothing left to mend says so") {
    Bench b = bench(things);
    b.project.sheets[0].placements[0].left = mm(-20);
    const auto d = b.derive();
    const Finding f = get(d->findings, "sheet.outside");
    b.project.sheets.clear();
    CHECK_FALSE(apply(MendFinding{f}, b.project, catalog(), *d));
    CHECK(apply(MendFinding{Finding{}}, b.project, catalog(), *d).error().code == "remedy.none");
}

TEST_CASE("lanes whose tool cannot do it, or is unknown, are errors") {
    Bench b = bench(things);
    find(b.project, b.lane(Action::cut))->tool = "pen-0.4";
    CHECK(get(b.derive()->findings, "lane.wrong-tool").grade == Grade::error);
    b.project.sheets[0].stock = "none";
    CHECK(get(b.derive()->findings, "sheet.unknown").grade == Grade::error);
}

TEST_CASE("derived once, parts that did not change are not evaluated again") {
    Bench b = bench(things);
    const auto first = b.derive();
    b.project.sheets[0].placements[0].left = mm(33);
    const auto second = b.derive();
    CHECK(second->parts.at(b.part) == first->parts.at(b.part)); // the same object
    must(scale_part(b.project, b.part, 1.5));
    CHECK(b.derive()->parts.at(b.part) != first->parts.at(b.part));
}
