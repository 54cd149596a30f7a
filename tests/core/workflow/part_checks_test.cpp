// Findings of a single part: lines twice, gaps, thin pieces, parts too large for any stock.
#include "core/workflow/part_checks.h"

#include "core/geometry/doubled.h"
#include "core/workflow/making.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("lines that lie on one another are found, whatever their direction, and one press keeps one") {
    Bench b = bench(
        "<path d='M10,10h40v20h-40z' fill='none' stroke='#111'/>"
        "<path d='M50,30v-20h-40v20z' fill='none' stroke='#111'/>"
        "<path d='M10,50h40' fill='none' stroke='#111'/><path d='M50,50h-40' fill='none' stroke='#111'/>"
        "<path d='M10,60h40' fill='none' stroke='#111'/>");
    const auto d = b.derive();
    const Finding& f = get(d->findings, "lines.doubled");
    CHECK(f.message.find("2 lines") == 0);
    CHECK(f.place.box.x0 == Approx(10).margin(0.01));
    must(apply_remedy(b.project, catalog(), *d, f));
    CHECK_FALSE(has(b.derive()->findings, "lines.doubled"));
    CHECK(b.derive()->part(b.part)->lines.size() == 3);
    // The same line cut and drawn is another matter.
    Bench two = bench(
        "<path d='M10,50h40' fill='none' stroke='#111'/><path d='M10,50h40' fill='none' stroke='#a8462d'/>");
    CHECK(has(two.derive()->findings, "lines.two-lanes"));
    CHECK_FALSE(has(two.derive()->findings, "lines.doubled"));
}

TEST_CASE("doubles of thousands of coincident and of side by side lines are found quickly") {
    Polylines lines;
    for (int i = 0; i < 20000; ++i)
        lines.push_back({{{5, 5}, {9, 7}}, false}); // all the same
    for (int i = 0; i < 20000; ++i)
        lines.push_back({{{20, i * 0.1}, {30, i * 0.1}}, false}); // none the same, all from one left edge
    std::vector<const Polyline*> all;
    for (const Polyline& l : lines)
        all.push_back(&l);
    const auto doubles = doubles_of(all);
    CHECK(std::count_if(doubles.begin(), doubles.end(), [](auto d) { return d >= 0; }) == 19999);
}

TEST_CASE("gaps between ends of cut lines are measured, lines that are drawn may end where they like") {
    const char* open =
        "<path d='M10,10h40' fill='none' stroke='#111'/><path d='M50.15,10v30' fill='none' stroke='#111'/>"
        "<path d='M50.15,40h-20' fill='none' stroke='#111'/>";
    Bench b = bench(open);
    const LaneId cut =
        add_lane(b.project, {{}, Action::cut, "blade", catalog().first_tool(Action::cut)->id, {}, 1});
    must(assign(b.project, b.part, b.lines(), cut));
    const Finding f = get(b.derive()->findings, "lines.gaps");
    CHECK(f.message.find("1 gap of up to 0.15 mm") == 0);
    CHECK(f.place.box.x0 == Approx(50).margin(0.01));
    const LaneId draw = add_lane(b.project, {{}, Action::draw, "pen", "pen-0.4", {}, 1});
    must(assign(b.project, b.part, b.lines(), draw));
    CHECK_FALSE(has(b.derive()->findings, "lines.gaps"));
}

TEST_CASE("cut pieces thinner than a blade can leave are told, rings with walls that hold are not") {
    Bench b = bench("<rect x='10' y='10' width='40' height='0.5' fill='none' stroke='#111'/>"
                    "<rect x='10' y='20' width='40' height='5' fill='none' stroke='#111'/>");
    CHECK(get(b.derive()->findings, "piece.thin").message.find("1 cut piece") == 0);
    Bench ring = bench("<path d='M10,10h30v30h-30z M10.3,10.3v29.4h29.4v-29.4z' fill='#111'/>");
    CHECK(has(ring.derive()->findings, "piece.thin"));
    Bench wide = bench("<path d='M10,10h30v30h-30z M12,12v26h26v-26z' fill='#111'/>");
    CHECK_FALSE(has(wide.derive()->findings, "piece.thin"));
}

TEST_CASE("a part larger than any stock is told while it is made") {
    Workshop workshop(catalog());
    Project project = workshop.new_project("x");
    Label label;
    label.width = mm(610), label.height = mm(100);
    const PartId id = must(make_part(project, catalog(), workshop.fonts(), label));
    CHECK(has(workshop.derive(std::make_shared<Project>(project))->findings, "part.too-large"));
    label.width = mm(100), label.height = mm(609); // upright on the long stock
    must(change_source(project, catalog(), workshop.fonts(), id, label));
    CHECK_FALSE(has(workshop.derive(std::make_shared<Project>(project))->findings, "part.too-large"));
}

TEST_CASE("lettering too small for its lane's tip is found, and one press makes it legible") {
    Workshop workshop(catalog());
    Project project = workshop.new_project("small");
    Lettering spec;
    spec.text = "Saltmarsh", spec.kind = Lettering::Kind::strokes, spec.font = "Roman simplex";
    spec.size = mm(1.5);
    must(make_part(project, catalog(), workshop.fonts(), spec));
    const auto derive = [&] { return workshop.derive(std::make_shared<Project>(project)); };
    auto d = derive();
    const Tool* tool = catalog().tool(project.lanes.front().tool);
    const Finding& small = get(d->findings, "text.small");
    CHECK(small.place.box.valid());
    must(apply_remedy(project, catalog(), *d, small));
    CHECK(std::get<Lettering>(project.parts[0].source.spec).size == mm(5 * in_mm(tool->tip)));
    d = derive();
    CHECK_FALSE(has(d->findings, "text.small"));
    for (const Figure& f : d->part(project.parts[0].id)->figures)
        if (std::string_view(f.key) == "capitals") CHECK(f.value == Approx(5 * in_mm(tool->tip)));
    spec.text = "m", spec.sized_by = Lettering::SizedBy::width, spec.size = mm(1); // no number to set
    must(make_part(project, catalog(), workshop.fonts(), spec));
    CHECK(get(derive()->findings, "text.small").remedy.code.empty());
}
