// Lines that a step makes for another lane than its own: they have a line set of the part.
#include "core/commands/parts.h"
#include "core/commands/steps.h"
#include "core/project/format.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

struct Edged {
    Bench b = bench("<rect fill='#a8462d' x='10' y='10' width='40' height='30'/>");
    StepId step;
    FillStep what;
    Edged() {
        what.boundary = what.edge_apart = true;
        const auto derived = b.derive();
        step = must(apply(AddStep{b.part, what}, b.project, catalog(), *derived->part(b.part))).step;
    }
    const Part& part() const { return *find(b.project, b.part); }
    const LineSet* edge() const { return set_of(part(), step, role::edge); }
    const RunSet* run(const Derived& derived) const {
        for (const RunSet& run : derived.part(b.part)->runs)
            if (edge() && run.set == edge()->id) return &run;
        return nullptr;
    }
};

} // namespace

TEST_CASE("the edge of a fill runs in a lane of its own, inset as the fill is") {
    Edged f;
    REQUIRE(f.edge());
    CHECK(f.edge()->lane);
    const auto derived = f.b.derive();
    const RunSet* run = f.run(*derived);
    REQUIRE(run);
    const InkReport* ink = ink_of(*derived->part(f.b.part), f.step);
    REQUIRE(ink);
    const double inset = in_mm(ink->inset);
    REQUIRE(run->lines.size() == 1);
    CHECK(run->lines[0].closed);
    CHECK(in_mm(length(run->lines)) == Approx(2 * (40 + 30 - 4 * inset)).margin(0.001)); // corners stay sharp
    // The fill itself does not run it a second time.
    for (const Polyline& line : ink_run(*derived->part(f.b.part), f.step)->lines)
        CHECK_FALSE(line.closed);

    // Sent to another lane it stays there, whatever becomes of the fill's numbers.
    const LaneId blade =
        add_lane(f.b.project, {{}, Action::cut, "blade", catalog().first_tool(Action::cut)->id, {}, 1});
    must(set_lane(f.b.project, f.b.part, f.edge()->id, blade));
    f.what.boundary = false;
    must(apply(ChangeStep{f.b.part, f.step, f.what}, f.b.project, catalog()));
    CHECK_FALSE(f.run(*f.b.derive()));
    f.what.boundary = true;
    must(apply(ChangeStep{f.b.part, f.step, f.what}, f.b.project, catalog()));
    REQUIRE(f.run(*f.b.derive()));
    CHECK(f.run(*f.b.derive())->lane == blade);
}

TEST_CASE("line sets of a step are kept in the file, copied with the part, and go with the step") {
    Edged f;
    const std::string bytes = write_project(f.b.project);
    CHECK(bytes.find("\"edition\": 10") != std::string::npos);
    CHECK(must(read_project(bytes, "x")) == f.b.project);
    // A set of a step that is not there is no project.
    std::string broken = bytes;
    const std::string mine = "\"step\": " + std::to_string(f.step.value);
    REQUIRE(broken.find(mine) != std::string::npos);
    broken.replace(broken.find(mine), mine.size(), "\"step\": 1");
    CHECK_FALSE(read_project(broken, "x"));

    const PartId copy = must(apply(CopyPart{f.b.part}, f.b.project)).part;
    const Part& copied = *find(f.b.project, copy);
    REQUIRE(copied.steps.size() == 1);
    const LineSet* edge = set_of(copied, copied.steps[0].id, role::edge);
    REQUIRE(edge);
    CHECK(edge->id != f.edge()->id);
    must(check_rules(f.b.project));
    CHECK(must(read_project(write_project(f.b.project), "x")) == f.b.project);

    // A later step works on it; then the fill cannot go before that step does.
    const auto derived = f.b.derive();
    OutlineStep rim;
    rim.distance = mm(3);
    const StepId later =
        must(apply(AddStep{f.b.part, rim, {f.edge()->id}}, f.b.project, catalog(), *derived->part(f.b.part)))
            .step;
    const auto& made = f.b.derive()->part(f.b.part)->reports.at(later);
    CHECK(made->refused.empty());
    CHECK_FALSE(apply(RemoveStep{f.b.part, f.step}, f.b.project));
    CHECK_FALSE(apply(MoveStep{f.b.part, later, 0}, f.b.project)); // above what it works on
    must(apply(RemoveStep{f.b.part, later}, f.b.project));
    must(apply(RemoveStep{f.b.part, f.step}, f.b.project));
    CHECK_FALSE(f.edge());
    must(check_rules(f.b.project));
}
