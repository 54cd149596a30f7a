// The main job, by hand in the window: from a file to a rehearsed, exported run.
#include "core/formats/svg/reader.h"
#include "core/project/format.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;
using View = app::WorkPage::View;

namespace {

const char* two_colours = "<rect x='10' y='10' width='80' height='50' fill='none' stroke='#22282c'/>"
                          "<path d='M20,30 h60' fill='none' stroke='#a8462d'/>";

} // namespace

TEST_CASE("from a file with two colours to an exported folder") {
    Driver d(false);
    CHECK(d.shown("open-drawing")); // "What are you making?"
    d.answers.open = d.drawing_file("card.svg", svg(two_colours));
    d.press("open-drawing");
    // Nothing of the project has changed before it is taken in.
    CHECK(d.project().parts.empty());
    CHECK(d.find<QComboBox>("action-0")->currentText() == "Cut");
    CHECK(d.find<QComboBox>("action-1")->currentText() == "Draw");
    d.press("take-in");
    REQUIRE(d.project().parts.size() == 1);
    CHECK(d.lines_in(Action::cut) == 1);
    CHECK(d.lines_in(Action::draw) == 1);
    d.key(Qt::Key_2, Qt::ControlModifier);
    CHECK(d.window->work().view() == View::sheets);
    d.press("add-sheet"); // the first sheet takes the part at hand
    REQUIRE(d.project().sheets.size() == 1);
    CHECK(d.project().sheets[0].placements.size() == 1);
    const auto derived = d.session().derived();
    REQUIRE(derived->plan);
    CHECK(derived->plan->totals.passes == 2);
    CHECK(derived->plan->totals.stops == 2); // load with both tools in; unload
    d.key(Qt::Key_3, Qt::ControlModifier);
    d.window->work().rehearsal().seek(derived->plan->timeline.total());
    d.answers.folder_answer = QString::fromStdString(d.folder / "out");
    d.press("export");
    INFO(d.window->notice_text().toStdString());
    CHECK(d.window->notice_text().contains("5 files exported"));
    const auto cut = must(read_svg(file(d.folder / "out/02-cut-fine-blade.svg"), {}));
    bool true_to_size = false;
    for (const DrawnLine& l : cut.drawing.lines)
        true_to_size |= std::abs(bounds(l.shape).width() - 80) < 1e-3;
    CHECK(true_to_size);
    CHECK(file(d.folder / "out/run-sheet.pdf").starts_with("%PDF"));
}

TEST_CASE("a file without a size asks once, the size chosen is the size made") {
    Driver d;
    const std::size_t parts = d.project().parts.size();
    d.window->files().open_path(
        d.drawing_file("bare.svg", "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 288 144'><rect "
                                   "width='288' height='144' fill='none' stroke='#000'/></svg>"));
    d.settle();
    CHECK_FALSE(d.find<QPushButton>("take-in")->isEnabled());
    d.tick("scale-72");
    CHECK(d.find<QPushButton>("take-in")->isEnabled());
    d.type("wanted-width", "4 1/2 in");
    d.press("take-in");
    REQUIRE(d.project().parts.size() == parts + 1);
    CHECK(d.session().evaluated()->source_box.width() == Approx(114.3));
    d.trigger("undo");
    CHECK(d.project().parts.size() == parts);
    d.trigger("redo");
    CHECK(d.project().parts.size() == parts + 1);
}

TEST_CASE("opening can be given up, and then nothing has changed") {
    Driver d;
    const Project before = d.project();
    d.window->files().open_path(d.drawing_file("card.svg", svg(two_colours)));
    d.settle();
    d.choose("action-0", "Engrave");
    d.press("give-up");
    CHECK(d.project() == before);
    CHECK_FALSE(d.session().modified());
    CHECK(d.shown("add-step")); // back at the recipe
}

TEST_CASE("lanes proposed can be changed before they are taken in") {
    Driver d(false);
    d.window->files().open_path(d.drawing_file("card.svg", svg(two_colours)));
    d.settle();
    d.choose("action-0", "Score");
    d.choose("tool-1", "pen 0.8");
    d.press("take-in");
    CHECK(d.lines_in(Action::score) == 1);
    CHECK(d.lines_in(Action::cut) == 0);
    CHECK(std::any_of(d.project().lanes.begin(), d.project().lanes.end(),
                      [](const Lane& l) { return l.tool == "pen-0.8"; }));
}

TEST_CASE("a broken file says so with its line and changes nothing") {
    Driver d;
    const Project before = d.project();
    d.window->files().open_path(
        d.drawing_file("broken.svg", "<svg xmlns='http://www.w3.org/2000/svg'>\n<g>\n<rect"));
    d.settle();
    CHECK(d.window->notice_text().contains("damaged or cut short"));
    CHECK(d.window->notice_text().contains("line 3"));
    CHECK(d.project() == before);
    d.window->files().open_path(QString::fromStdString(d.folder / "none.svg"));
    d.settle();
    CHECK(d.window->notice_text().contains("no file"));
    d.window->files().open_path(d.drawing_file("broken.dotlane", "{"));
    d.settle();
    CHECK(d.window->notice_text().contains("damaged"));
    CHECK(d.project() == before);
}

TEST_CASE("errors stop the export, it can be overridden, and the run sheet says so") {
    Driver d;
    const LineId line = d.session().part()->sets.front().lines.front();
    d.session().change("x",
                       [&](Project& p) { return assign(p, d.session().choice().part, {line}, LaneId{}); });
    d.settle();
    d.answers.folder_answer = QString::fromStdString(d.folder / "out");
    d.press("export");
    CHECK(d.answers.asked == 0); // no folder is asked for
    CHECK_FALSE(disk().exists(d.folder / "out"));
    d.press("override");
    CHECK(file(d.folder / "out/run-sheet.txt").find("in spite of 1 error finding") != std::string::npos);
}

TEST_CASE("remedies are one press and one undo") {
    Driver d;
    d.session().change("x", [&](Project& p) -> Result<void> {
        p.sheets.front().placements.front().left = mm(-30);
        return {};
    });
    d.settle();
    d.trigger("view-findings");
    CHECK(count(d.session().derived()->findings, Grade::error) == 1);
    d.press("remedy");
    CHECK(count(d.session().derived()->findings, Grade::error) == 0);
    d.trigger("undo");
    CHECK(count(d.session().derived()->findings, Grade::error) == 1);
}
