// What lies on one another, by true outlines; against GEOS in tests/reference/overlaps_test.cpp.
#include "core/commands/remedies.h"
#include "core/derive/overlaps.h"

#include "core/commands/making.h"
#include "core/commands/placing.h"
#include "core/opening/opening.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

struct Table {
    Workshop workshop{catalog()};
    Project project = workshop.new_project("table");
    SheetId sheet = add_sheet(project, "sheet 1", "cream-card-12x12", "mat-12x12-standard");

    PartId part(const std::string& elements) {
        auto opened = must(open_drawing(svg(elements), "part.svg", workshop.fonts()));
        opened.name = "part " + std::to_string(project.parts.size() + 1);
        return must(
                   apply(TakeIn{opened, gather_lanes(*opened.source.drawing, catalog())}, project, catalog()))
            .part;
    }
    PlacementId put(PartId id, double left, double top, double turn = 0) {
        const auto d = derive();
        return must(place(
            project, sheet,
            with_box_at({{}, id, {}, {}, degrees(turn)}, extent_of(*d->part(id), 0), mm(left), mm(top))));
    }
    std::shared_ptr<const Derived> derive() { return workshop.derive(std::make_shared<Project>(project)); }
    std::string worst() {
        const auto d = derive();
        return has(d->findings, "sheet.cut-through") ? "cut through"
               : has(d->findings, "sheet.overlap")   ? "marked"
                                                     : "apart";
    }
};

const char* tile = "<rect width='40' height='40' fill='none' stroke='#22282c'/>";
const char* frame = "<path d='M0,0h60v60h-60z M10,10v40h40v-40z' fill='#22282c' fill-rule='evenodd'/>";
const char* drawn = "<path d='M0,0h30v10h-30z' fill='none' stroke='#a8462d'/>";

} // namespace

TEST_CASE("three labels on one spot are an error, side by side they are none") {
    Table t;
    const PartId a = t.part(tile);
    t.put(a, 20, 20);
    CHECK(t.worst() == "apart");
    t.put(a, 60, 20); // they share an edge
    CHECK(t.worst() == "apart");
    t.put(a, 20, 60.02);
    CHECK(t.worst() == "apart");
    t.put(a, 20, 20);
    const auto d = t.derive();
    const Finding& f = get(d->findings, "sheet.cut-through");
    CHECK(f.grade == Grade::error);
    CHECK(f.message.english().find("40 x 40 mm") != std::string::npos);
    must(apply(MendFinding{f}, t.project, catalog(), *d));
    CHECK(t.worst() == "apart");
}

TEST_CASE("boxes may overlap where outlines do not") {
    Table t;
    t.put(t.part(frame), 20, 20);
    t.put(t.part("<rect width='30' height='30' fill='none' stroke='#22282c'/>"), 35, 35); // in its hole
    CHECK(t.worst() == "apart");
    t.put(t.part("<path d='M0,0h40v5h-35v35h-5z' fill='none' stroke='#22282c'/>"), 100, 20);    // an L
    t.put(t.part("<path d='M40,40h-30v-5h25v-25h5z' fill='none' stroke='#22282c'/>"), 110, 30); // in its arm
    CHECK(t.worst() == "apart");
    t.put(t.part("<rect width='45' height='12' fill='none' stroke='#22282c'/>"), 25,
          40); // over the ring's rim
    CHECK(t.worst() == "cut through");
}

TEST_CASE("what is only marked where another part lies is a caution, what a blade goes through is not") {
    Table t;
    const PartId words = t.part(drawn);
    t.put(words, 20, 20);
    t.put(words, 45, 25);
    CHECK(t.worst() == "marked"); // words over words
    Table u;
    u.put(u.part(tile), 20, 20);
    u.put(u.part(drawn), 25, 30);
    CHECK(u.worst() == "marked");
    Table v;
    v.put(v.part(drawn), 25, 30);
    v.put(v.part(tile), 40, 10); // its edge runs through the words
    CHECK(v.worst() == "cut through");
    Table w;
    w.put(w.part(frame), 20, 20);
    w.put(w.part(drawn), 35, 45); // on the scrap that falls out of the ring
    CHECK(w.worst() == "apart");
}

TEST_CASE("without a place given a free one is found, on a further sheet if need be") {
    Table t;
    const PartId label = t.part("<rect width='200' height='200' fill='none' stroke='#22282c'/>");
    for (int i = 0; i < 3; ++i)
        must(apply(PlacePart{t.sheet, {label}}, t.project, catalog(), *t.derive()));
    CHECK(t.project.sheets.size() == 3);
    CHECK(t.worst() == "apart");
    const PartId tiles = t.part(tile);
    must(apply(PlacePart{t.sheet, {tiles, 0, {}, false, mm(5), {3, 3, mm(4)}}}, t.project, catalog(),
               *t.derive()));
    CHECK(t.project.sheets.size() == 4); // a block of 128 x 128 mm finds no room beside 200 of 298
    CHECK(t.project.sheets.back().placements.size() == 9);
    CHECK(t.worst() == "apart");
    const PartId wall = t.part("<rect width='400' height='20' fill='none' stroke='#22282c'/>");
    must(apply(PlacePart{t.sheet, {wall}}, t.project, catalog(), *t.derive()));
    CHECK(t.project.sheets.size() ==
          4); // no such sheet takes it: it lies on the first, and the checks say so
    CHECK(has(t.derive()->findings, "sheet.outside"));
}

TEST_CASE("recipe edits move nothing that lies on a sheet") {
    Random random("anchors");
    INFO("seed " << random.seed());
    for (int round = 0; round < 12; ++round) {
        Table t;
        const PartId part =
            t.part(round % 2 ? frame : "<path d='M3,2h40l9,30l-60,5z' fill='none' stroke='#22282c'/>");
        const double turn = random.real(-180, 180);
        const auto d = t.derive();
        Placement p{{}, part, {}, {}, degrees(turn), random.coin()};
        p = with_box_at(p, extent_of(*d->part(part), 0), mm(random.real(10, 150)), mm(random.real(10, 150)));
        must(place(t.project, t.sheet, p));
        const auto source_on_sheet = [&] {
            const auto now = t.derive();
            std::vector<Point> out;
            for (const RunSet& run : now->part(part)->runs)
                if (!run.step)
                    for (const Polyline& line : run.lines)
                        for (const Point q : line.points)
                            out.push_back(now->sheet(t.sheet)->parts.at(0).to_sheet(q));
            return out;
        };
        const auto before = source_on_sheet();
        const LineSetId set = find(t.project, part)->sets.front().id;
        OutlineStep outline;
        outline.distance = mm(random.real(1, 9));
        const auto step = append_step(t.project, catalog(), part, outline, {set});
        must(step);
        WordsStep words;
        words.lettering.text = "far away", words.place.right_by = mm(random.real(-80, 80));
        must(append_step(t.project, catalog(), part, words, {}));
        const auto after = source_on_sheet();
        REQUIRE(after.size() == before.size());
        for (std::size_t i = 0; i < before.size(); ++i)
            CHECK(distance(before[i], after[i]) < 1e-9);
    }
}
