// What differs between two versions of a project.
#include "core/project/changes.h"

#include "core/project/edits.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("each edit is told as what it changed, and nothing else") {
    Project project;
    project.lanes.push_back({LaneId{1}, Action::cut, "cut", "", {}});
    for (std::uint32_t id : {2, 3, 4}) {
        Part part;
        part.id = PartId{id}, part.name = "part " + std::to_string(id);
        project.parts.push_back(part);
    }
    for (std::uint32_t id : {5, 6})
        project.sheets.push_back({SheetId{id}, "sheet", "card", "mat", {}});
    const auto told = [&](const std::function<void(Project&)>& edit) {
        Project next = project;
        edit(next);
        return changes_between(project, next);
    };
    const auto nothing = [](const Changes& c) {
        return !c.name && !c.unit && !c.machine && !c.order && !c.lanes && !c.part_list && !c.sheet_list &&
               c.parts.empty() && c.sheets.empty();
    };
    CHECK(nothing(told([](Project&) {})));
    CHECK(told([](Project& p) { p.name = "other"; }).name);
    CHECK(told([](Project& p) { p.unit = LengthUnit::inch; }).unit);
    CHECK(told([](Project& p) { p.machine = "other"; }).machine);
    CHECK(told([](Project& p) { p.pass_order = {LaneId{1}}; }).order);
    CHECK(told([](Project& p) { p.lanes[0].repeats = 2; }).lanes);
    const Changes part = told([](Project& p) { p.parts[1].quantity = 3; });
    CHECK(part.parts == std::set<PartId>{PartId{3}});
    CHECK_FALSE((part.part_list || part.part(PartId{2})));
    CHECK(part.part(PartId{3}));
    const Changes gone = told([](Project& p) { p.parts.erase(p.parts.begin()); });
    CHECK(gone.part_list);
    CHECK(gone.parts.empty()); // those that stay are as they were
    const Changes came = told([](Project& p) {
        p.parts.push_back(p.parts.front());
        p.parts.back().id = PartId{9};
    });
    CHECK(came.part_list);
    CHECK(came.parts == std::set<PartId>{PartId{9}});
    CHECK(told([](Project& p) { std::swap(p.parts[0], p.parts[2]); }).part_list);
    const Changes moved = told([](Project& p) { p.sheets[0].placements.push_back({}); });
    CHECK(moved.sheets == std::set<SheetId>{SheetId{5}});
    CHECK(moved.sheet(SheetId{5}));
    CHECK_FALSE(moved.sheet(SheetId{6}));
    CHECK(Changes::all(project).part(PartId{77}));
}
