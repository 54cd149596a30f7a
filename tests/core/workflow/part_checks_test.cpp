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

TEST_CASE("art beyond a badge's visible ring is told with its millimetres") {
    Workshop workshop(catalog());
    Project project = workshop.new_project("badge");
    const PartId part =
        must(make_part(project, catalog(), workshop.fonts(), Badge{})); // 37 seen, 2 kept free
    WordsStep words;
    words.lettering.text = "I", words.lettering.font = "Roman simplex", words.lettering.size = mm(30);
    const StepId step = must(append_step(project, catalog(), part, words, {}));
    const auto derive = [&] { return workshop.derive(std::make_shared<Project>(project)); };
    CHECK_FALSE(has(derive()->findings, "badge.over")); // 15 mm each way of 16.5
    Step larger = *find(*find(project, part), step);
    std::get<WordsStep>(larger.what).lettering.size = mm(40);
    must(change_step(project, part, larger));
    const auto d = derive();
    const Finding& over = get(d->findings, "badge.over");
    for (const auto& [key, value] : over.args)
        if (key == "over_mm") CHECK(std::stod(value) == Approx(20 - 16.5).margin(0.05));
    CHECK(over.place.box.valid());
}

TEST_CASE("a cut line that all but closes is found and closed by its remedy") {
    auto b = bench("<path d='M10,10 L40,10 L40,40 L10,40 L10,10.8' fill='none' stroke='#000'/>"
                   "<path d='M60,10 L90,10' fill='none' stroke='#000'/>");
    Lane cut;
    cut.action = Action::cut, cut.name = "blade", cut.tool = catalog().first_tool(Action::cut)->id;
    const LaneId blade = add_lane(b.project, cut);
    must(assign(b.project, b.part, b.lines(), blade));
    const auto derive = [&] { return b.workshop->derive(std::make_shared<Project>(b.project)); };
    auto d = derive();
    const Finding& open = get(d->findings, "lines.open");
    must(apply_remedy(b.project, catalog(), *d, open));
    d = derive();
    CHECK_FALSE(has(d->findings, "lines.open"));
    int closed = 0;
    for (const RunSet& run : d->part(b.part)->runs)
        for (const Polyline& line : run.lines)
            closed += line.closed;
    CHECK(closed == 1); // the straight line stays as it is
}

TEST_CASE("how thin is too thin depends on the stock") {
    auto b = bench("<rect x='10' y='10' width='40' height='1.5' fill='none' stroke='#000'/>");
    const auto thin_on = [&](const char* stock) {
        Sheet& sheet = b.project.sheets.at(0);
        must(change_sheet(b.project, sheet.id, sheet.name, stock, sheet.mat));
        return has(b.workshop->derive(std::make_shared<Project>(b.project))->findings, "piece.thin");
    };
    CHECK_FALSE(thin_on("cream-card-12x12"));
    CHECK(thin_on("stencil-film-12x24"));
    CHECK_FALSE(thin_on("heavy-paper-12x12")); // and back again: the answer is not kept from another stock
}
