// Fabric patches, layers and colours in the window, and how few actions they take.
#include <QComboBox>
#include <QFile>
#include <QLabel>
#include <QMenu>
#include <QSlider>
#include <QTemporaryDir>

#include "app/widgets/number_field.h"
#include "core/derive/correction.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

struct Fabric : Driver {
    Fabric()
        : Driver(false) {}
    int actions = 0;
    /// Choosing a file, then what becomes of it, then taking it in.
    void open_(const QString& path, const QString& as) {
        actions += 3;
        window->files().open_path(path);
        settle();
        choose("begin-with", as);
        press("take-in");
    }
    const Part& part() { return *session().part(); }
    const EvaluatedPart& made() { return *session().derived()->part(part().id); }
    double figure(const std::string& key) {
        for (const Figure& f : made().reports.at(part().steps.at(0).id)->figures)
            if (f.key == key) return f.value;
        FAIL("no figure " << key);
        return 0;
    }
    /// A file of 90 x 40 mm.
    QString drawing(const QByteArray& shapes) {
        QFile file(there.filePath("drawing.svg"));
        REQUIRE(file.open(QIODevice::WriteOnly));
        file.write("<svg xmlns='http://www.w3.org/2000/svg' width='90mm' height='40mm' viewBox='0 0 90 40'>" +
                   shapes + "</svg>");
        return file.fileName();
    }
    QTemporaryDir there;
    void tell(const char* what) { std::cout << "actions: " << what << ": " << actions << "\n"; }
    bool says(const QString& words) {
        for (const QLabel* label : window->findChildren<QLabel*>())
            if (label->isVisible() && label->text().contains(words)) return true;
        return false;
    }
};

const QString heron = DOTLANE_SOURCE "/data/demo/heron_patch.svg";

} // namespace

TEST_CASE_METHOD(Fabric, "an appliqué patch from an opened file, in at most four actions") {
    open_(heron, "Fabric patch");
    tell("appliqué patch from an opened file");
    CHECK(actions <= 4);
    CHECK(part().sets.size() > 4);
    CHECK(figure("fabrics") == 4);
    CHECK(made().reports.at(part().steps[0].id)->from_behind);
    CHECK(dotlane::find(project(), part().steps[0].lane)->action == Action::cut);
    CHECK(says("of cloth 1100 mm wide")); // what is to be bought stands on the card
    // Each fabric is cut of its own cloth: one press makes the parts.
    press_words("A part for each fabric");
    CHECK(project().parts.size() == 4);
    for (const Part& one : project().parts)
        CHECK(session().derived()->part(one.id)->reports.begin()->second->needs.size() == 1);
    trigger("undo");
    CHECK(project().parts.size() == 1);
}

TEST_CASE_METHOD(Fabric, "a knocked-out four-colour drawing, in at most three actions") {
    open_(heron, "Knock out");
    tell("knocked-out four-colour drawing");
    CHECK(actions <= 3);
    CHECK(figure("layers") == 4);
    CHECK(figure("changed") == 0);
    CHECK(figure("saved") > 500);
    // Each colour a part of its own: what the others keep of it is no news.
    press_words("A part for each colour");
    CHECK(project().parts.size() == 4);
    CHECK_FALSE(has(session().derived()->findings, "lines.set-aside"));
    trigger("undo");
    trigger("undo");
    CHECK(project().parts.empty());
}

TEST_CASE_METHOD(Fabric,
                 "lanes are guessed anew for what becomes of a drawing, but for those chosen by hand") {
    const QString path = drawing("<rect x='5' y='5' width='20' height='20' fill='#a8832d'/>"
                                 "<rect x='20' y='15' width='20' height='20' fill='#2f5d62'/>");
    window->files().open_path(path);
    settle();
    const auto action = [&](int of) {
        return find<QComboBox>(qPrintable(QStringLiteral("action-%1").arg(of)))->currentText();
    };
    CHECK(action(0) == "Foil");
    CHECK(action(1) == "Cut");
    choose("action-1", "Draw");
    choose("begin-with", "Knock out");
    CHECK(action(0) == "Cut");
    CHECK(action(1) == "Draw");
    CHECK(says("as you chose"));
    choose("begin-with", "its lines, as they are");
    CHECK(action(0) == "Foil");
    CHECK(action(1) == "Draw");
    choose("begin-with", "Knock out");
    press("take-in");
    REQUIRE(part().steps.size() == 1);
    CHECK(dotlane::find(project(), part().sets[0].lane)->action == Action::cut);
    CHECK(dotlane::find(project(), part().sets[1].lane)->action == Action::draw);
}

TEST_CASE_METHOD(Fabric, "what is printed is seen in its own colours, on the bench and on its sheet") {
    open_(heron, "Print and cut");
    std::set<QRgb> wanted;
    for (const DrawnLine& line : part().source.drawing->lines)
        if (line.drawn.fill) wanted.insert(present::to_qcolor(*line.drawn.fill).rgb());
    REQUIRE(wanted.size() == 4);
    auto bench = colours_of(window->work().part_view());
    for (const QRgb colour : wanted)
        CHECK(bench[colour] > 100);
    press_words("Place it");
    window->work().show_view(app::WorkPage::View::sheets);
    settle();
    auto sheet = colours_of(*window->findChild<app::SheetsView*>());
    for (const QRgb colour : wanted)
        CHECK(sheet[colour] > 30);
}

TEST_CASE_METHOD(Fabric, "a colour exploded into its pieces, in one action") {
    open_(heron, "its lines, as they are");
    actions = 0;
    auto* apart = find<QPushButton>("take-apart");
    Q_EMIT apart->menu()->aboutToShow();
    apart->menu()->findChild<QAction*>("apart-by-colour")->trigger();
    settle();
    actions = 1; // a choice from a list
    tell("a drawing exploded by colour");
    CHECK(project().parts.size() == 4);
}

TEST_CASE_METHOD(Fabric,
                 "colours that look alike are told as the slider moves, and count as one when it is let go") {
    const QString path = drawing("<rect x='5' y='5' width='20' height='20' fill='#a8462d'/>"
                                 "<rect x='30' y='5' width='20' height='10' fill='#b04b31'/>"
                                 "<rect x='55' y='5' width='20' height='20' fill='#2f5d62'/>");
    open_(path, "Knock out");
    CHECK(figure("layers") == 3);
    auto* slider = find<QSlider>("one-colour");
    REQUIRE(slider->isVisible());
    CHECK(says("3 colours, each of its own"));
    slider->setSliderDown(true);
    slider->setValue(60);
    settle();
    CHECK(says("3 colours count as 2"));
    CHECK(part().one_colour == 0); // told, not done
    slider->setSliderDown(false);
    Q_EMIT slider->sliderReleased();
    settle();
    CHECK(part().one_colour == 6);
    CHECK(figure("layers") == 2);
    trigger("undo");
    CHECK(figure("layers") == 3);
    // The heron's are all far apart: nothing to be asked.
    open_(heron, "Knock out");
    CHECK_FALSE(shown("one-colour"));
}

TEST_CASE_METHOD(Driver, "marks of a print that were found are typed, told and forgotten") {
    Project with = project();
    for (Lane& lane : with.lanes)
        if (lane.action == Action::draw) lane.action = Action::print, lane.tool = "desk-printer";
    window->files().start_project(with, {});
    window->work().show_view(app::WorkPage::View::sheets);
    settle();
    REQUIRE(session().derived()->plan);
    REQUIRE_FALSE(session().derived()->plan->program.prints.empty());
    const PrintSheet print = session().derived()->plan->program.prints.front();
    REQUIRE(session().choice().sheet == print.sheet.sheet);
    const auto marks = mark_places(print);
    REQUIRE(marks.size() >= 3);
    auto* x = find<app::NumberField>("mark-1-x");
    REQUIRE(x->isVisible());
    CHECK(x->value() == Approx(marks[0].x));
    type("mark-2-y", QString::number(marks[1].y + 1.5) + " mm");
    REQUIRE(session().sheet()->found.size() == 6);
    CHECK(session().sheet()->found[4].y == Approx(marks[1].y + 1.5).margin(1e-3));
    CHECK(find<QLabel>("marks-said")->text().contains("turned by"));
    press("forget-marks");
    CHECK(session().sheet()->found.empty());
    CHECK(find<QLabel>("marks-said")->text().startsWith("As printed"));
}
