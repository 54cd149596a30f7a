// Parts made from numbers and lettering, and their recipes, in the window. The counts of actions in
// docs/actions.md are taken here.
#include <QCheckBox>
#include <QLineEdit>
#include <QMenu>
#include <QPlainTextEdit>

#include "app/bench/part_view.h"
#include "app/lettering/glyph_grid.h"
#include "app/recipe/step_card.h"
#include "app/widgets/number_field.h"
#include <QListWidget>

#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// Counts what a maker does: a click, a choice from a list, a field typed.
struct Maker : Driver {
    Maker()
        : Driver(false) {}
    int actions = 0;

    void press_(const char* name) {
        ++actions;
        press(name);
    }
    void type_(const char* name, const QString& text) {
        ++actions;
        type(name, text);
    }
    void tick_(const char* name) {
        ++actions;
        tick(name);
    }
    void choose_(const char* name, const QString& text) {
        ++actions;
        choose(name, text);
    }
    void write_(const char* name, const QString& text) {
        ++actions;
        auto* box = last<QPlainTextEdit>(name);
        box->setFocus();
        box->selectAll();
        QTest::keyClicks(box, text);
        settle();
    }
    /// The picker under "Add step": opening it and choosing from it.
    void add_step_(const QString& words) {
        actions += 2;
        add_step(words);
    }
    const Part& part() { return *session().part(); }
    const EvaluatedPart& made() { return *session().derived()->part(part().id); }
    Action action_of(const std::string& role) {
        for (const LineSet& s : part().sets)
            if (s.role == role)
                if (const Lane* lane = dotlane::find(project(), s.lane)) return lane->action;
        FAIL("no lane for " << role);
        return Action::print;
    }
    void tell(const char* what) { std::cout << "actions: " << what << ": " << actions << "\n"; }
};

} // namespace

TEST_CASE_METHOD(Maker,
                 "a bracket label with a drawn border, from the empty window, in at most six actions") {
    press_("start-label");
    type_("border", "3 mm");
    tell("bracket label with a drawn border");
    CHECK(actions <= 6);
    CHECK(std::get<Label>(part().source.spec).edge == Label::Edge::bracket);
    CHECK(action_of("border") == Action::draw);
    CHECK(action_of("outline") == Action::cut);
    CHECK(made().lines.size() == 2);
    CHECK_FALSE(has(session().derived()->findings, "lane.none"));
}

TEST_CASE_METHOD(Maker, "a folded card with a greeting, in at most eight actions") {
    press_("start-folded-card");
    type_("width", "5 in");
    type_("height", "4 in");
    add_step_("Words");
    write_("text", "With love");
    ++actions; // into the panel that is the front
    auto* field = last<QLineEdit>("right-by");
    field->setFocus();
    field->selectAll();
    QTest::keyClicks(field, "5in/2");
    QTest::keyClick(field, Qt::Key_Return);
    settle();
    tell("folded card with a greeting");
    CHECK(actions <= 8);
    CHECK(made().box.width() == Approx(2 * 127));
    const StepId step = part().steps.at(0).id;
    CHECK(made().reports.at(step)->refused.empty());
    Box words;
    for (const FlatLine& line : made().lines)
        if (line.set == part().steps[0].result) words.add(line.box);
    CHECK(words.centre().x == Approx(1.5 * 127).margin(1e-3));
    CHECK(words.centre().y == Approx(2 * 25.4).margin(1e-3));
    for (const RunSet& run : made().runs)
        if (run.step == step) CHECK(dotlane::find(project(), run.lane)->action == Action::draw);
}

TEST_CASE_METHOD(Maker, "a sheet of stars, sixteen across, in at most six actions") {
    press_("start-repeat-pattern");
    type_("wanted", "16");
    tell("16-across star stencil sheet");
    CHECK(actions <= 6);
    CHECK(made().lines.size() == 16 * 16);
    for (const QLabel* label : window->findChildren<QLabel*>())
        if (label->isVisible() && label->text().contains("in all 256")) return;
    FAIL("the count is not shown");
}

TEST_CASE_METHOD(Maker, "a script word as one joined piece, in at most four actions") {
    press_("start-lettering");
    write_("text", "Saltmarsh");
    tick_("join");
    type_("snug", "0.3");
    tell("script word as one joined piece");
    CHECK(actions <= 4);
    CHECK(made().lines.size() == 1);
    CHECK_FALSE(has(session().derived()->findings, "lettering.apart"));
}

TEST_CASE_METHOD(Maker, "a stencil of a word in one piece, in at most three actions") {
    press_("start-stencil");
    write_("text", "Boat");
    tell("one-piece stencil of a word");
    CHECK(actions <= 3);
    REQUIRE(part().steps.size() == 1);
    std::map<std::string, double> figures;
    for (const Figure& f : made().reports.at(part().steps[0].id)->figures)
        figures[f.key] = f.value;
    CHECK(figures["islands"] >= 2); // the o and a of this face
    CHECK(figures["sheet_pieces"] == 1);
    for (const Finding& f : session().derived()->findings)
        CHECK(f.grade != Grade::error);
    // Only the stencil is run.
    for (const RunSet& run : made().runs)
        CHECK(run.step == part().steps[0].id);
    trigger("undo"), trigger("undo");
    CHECK(project().parts.empty());
}

TEST_CASE_METHOD(Maker, "bridges are put and taken away by presses on the bench") {
    press("start-stencil");
    const StepId step = part().steps.at(0).id;
    const auto put = [&] { return made().reports.at(step)->put; };
    const auto by_hand = [&] {
        const auto all = put();
        return std::count_if(all.begin(), all.end(), [](const StepReport::Put& p) { return p.by_hand; });
    };
    REQUIRE(put().size() >= 2);
    CHECK(by_hand() == 0);
    app::PartView& bench = window->work().part_view();
    press("fill-pieces"); // "Bridges..."
    CHECK(bench.choosing_pieces() == step);
    const Point at = put().front().a;
    const auto press_at = [&](Point p) {
        QTest::mouseClick(&bench, Qt::LeftButton, {}, bench.view().map(p).toPoint());
        settle();
    };
    press_at(at);
    CHECK(by_hand() == 1);
    press_at(at);
    CHECK(by_hand() == 0);
    trigger("undo");
    CHECK(by_hand() == 1);
    QTest::keyClick(&bench, Qt::Key_Escape);
    CHECK_FALSE(bench.choosing_pieces());
}

TEST_CASE_METHOD(Maker, "every job can be begun from the list, undone and begun again") {
    press("start-badge");
    for (const SourceKind& kind : source_kinds()) {
        press("new-part");
        pick("job-picker", QString::fromLatin1(kind.name));
        CHECK(kind_of(part().source.spec)->key == std::string_view(kind.key));
        CHECK_FALSE(made().lines.empty());
        trigger("undo");
        trigger("redo");
    }
    CHECK(project().parts.size() == source_kinds().size() + 1);
    press("new-part");
    press("jobs-cancel");
    CHECK(shown("add-step"));
}

TEST_CASE_METHOD(Maker,
                 "a form shows what matters, takes what is typed, and says what does not go together") {
    press("start-folded-card");
    CHECK_FALSE(shown("tuck"));
    choose("fold", "gate");
    CHECK(shown("tuck"));
    choose("line", "perforate");
    CHECK(action_of("perforated fold") == Action::perforate);
    type("setback", "60 mm");
    CHECK(find<app::NumberField>("setback")->wrong()); // beyond its range: kept, marked, nothing changed
    CHECK(in_mm(std::get<FoldedCard>(part().source.spec).setback) == 1);
    type("setback", "50 mm");
    type("height", "90 mm"); // the setback now leaves nothing of the fold
    CHECK(has(session().derived()->findings, "source.failed"));
    CHECK_FALSE(made().lines.empty()); // the last card stays in view
    trigger("undo");
    CHECK_FALSE(has(session().derived()->findings, "source.failed"));
}

TEST_CASE_METHOD(Maker, "steps are added to the chosen lines, reordered, switched, set aside and removed") {
    press("start-lettering");
    add_step_("Outline");
    add_step_("Corners");
    REQUIRE(part().steps.size() == 2);
    CHECK(part().steps[0].of.size() == 1); // all that is run
    type("distance", "4 mm");
    CHECK(in_mm(std::get<OutlineStep>(part().steps[0].what).distance) == 4);
    QTest::keyClick(last<app::Grip>("step-grip"), Qt::Key_Up);
    settle();
    CHECK(std::holds_alternative<CornersStep>(part().steps[0].what));
    trigger("undo");
    CHECK(std::holds_alternative<OutlineStep>(part().steps[0].what));
    const auto runs = made().runs.size();
    press("step-aside");
    CHECK(made().runs.size() == runs - 1);
    press("step-aside");
    QTest::mouseClick(last<QCheckBox>("on"), Qt::LeftButton, {},
                      QPoint(8, last<QCheckBox>("on")->height() / 2));
    settle();
    CHECK_FALSE(part().steps[1].on);
    QTest::mouseClick(last<QPushButton>("remove-step"), Qt::LeftButton);
    settle();
    CHECK(part().steps.size() == 1);
    // What is cut out is chosen first.
    session().choose_lines({});
    trigger("step-cut-out");
    CHECK(part().steps.size() == 1);
    CHECK(notice_says("Choose what is to be cut out"));
}

TEST_CASE_METHOD(Maker, "lines of a computed part are chosen and sent as the sets they are") {
    press("start-repeat-pattern");
    const Box first = made().lines.front().box;
    click({first.x0 + first.width() / 2, first.y0}); // the tip of the first star
    CHECK(session().choice().lines.size() == 1);
    key(Qt::Key_D);
    CHECK(action_of("motif") == Action::draw);
    trigger("same-colour");
    CHECK(session().choice().lines.size() == made().lines.size());
    trigger("aside");
    CHECK(part().sets[0].set_aside);
}

TEST_CASE_METHOD(Maker, "lettering turns from outlines to strokes with a font of the kind") {
    press("start-lettering");
    choose("kind", "strokes");
    CHECK(std::get<Lettering>(part().source.spec).font == "Roman simplex");
    CHECK(action_of("strokes") == Action::draw);
    choose("font", "Script simplex");
    CHECK(std::get<Lettering>(part().source.spec).font == "Script simplex");
    CHECK_FALSE(shown("join"));
    choose("kind", "outlines");
    CHECK(std::get<Lettering>(part().source.spec).font == "Lobster Two");
    choose("path", "arc");
    type("radius", "40");
    CHECK(in_mm(std::get<Lettering>(part().source.spec).radius) == 40);
}

TEST_CASE_METHOD(Maker, "the glyph table: search, insert at the caret, alternates, switches") {
    press("start-lettering");
    write_("text", "ay");
    choose("font", "EB Garamond");
    tick("italic");
    const auto spec = [&] { return std::get<Lettering>(part().source.spec); };
    press("glyphs");
    auto* text = find<QPlainTextEdit>("glyph-text");
    auto* grid = find<app::GlyphGrid>("glyph-grid");
    REQUIRE(text->isVisible());
    CHECK(text->toPlainText() == "ay");
    CHECK(grid->glyphs().size() == 2515);
    find<QLineEdit>("glyph-search")->setText("Q");
    REQUIRE(grid->glyphs().size() >= 2);
    CHECK(grid->glyphs().front().code == 'Q');
    text->moveCursor(QTextCursor::Start);
    grid->setFocus();
    QTest::keyClick(grid, Qt::Key_Right); // the first
    auto* others = find<app::GlyphGrid>("glyph-others");
    REQUIRE(others->isVisible());
    for (std::size_t i = 0; i < others->glyphs().size(); ++i)
        if (others->glyphs()[i].name == "Q.sw") others->set_current(static_cast<int>(i));
    press("glyph-insert");
    settle();
    CHECK(spec().text == "{/Q.sw}ay");
    QTest::keyClick(grid, Qt::Key_Return);
    settle();
    CHECK(spec().text == "{/Q.sw}Qay"); // at the caret, after what went in before
    CHECK_FALSE(has(session().derived()->findings, "lettering.missing"));
    text->setFocus();
    text->moveCursor(QTextCursor::End);
    QTest::keyClick(text, Qt::Key_Left);
    for (int i = 0; i < 3; ++i)
        QTest::keyClick(text, Qt::Key_Left, Qt::AltModifier);
    settle();
    CHECK(spec().text == "{/Q.sw}Qa{-1.5}y");
    QTest::keyClick(text, Qt::Key_Right, Qt::AltModifier | Qt::ShiftModifier);
    settle();
    CHECK(spec().text == "{/Q.sw}Qa{+3.5}y");
    auto* swashes = find<QCheckBox>("feature-swsh");
    swashes->click();
    settle();
    CHECK(spec().features == "swsh");
    CHECK(find<QCheckBox>("feature-liga")->isChecked());
    trigger("undo");
    CHECK(spec().features.empty());
    CHECK_FALSE(swashes->isChecked());
    press("glyphs-done");
    CHECK(shown("add-step"));
    trigger("glyph-table");
    CHECK(text->isVisible());
}

TEST_CASE_METHOD(Maker, "computed parts are saved and come back the same") {
    press("start-lettering");
    add_step_("Outline");
    const Project before = project();
    const auto box = made().box;
    answers.save = QString::fromStdString(folder / "word.dotlane");
    trigger("save");
    trigger("close");
    window->files().open_path(*answers.save);
    settle();
    CHECK(project() == before);
    CHECK(made().box == box);
}

TEST_CASE_METHOD(Maker, "a picture dropped on the window is traced, and its numbers stay live") {
    QImage image(300, 200, QImage::Format_RGB32);
    image.fill(Qt::white);
    for (int x = 0; x < 300; ++x)
        for (int y = 0; y < 200; ++y)
            if (std::hypot(x - 150, y - 100) < 80) image.setPixel(x, y, qRgb(90, 60, 40));
    for (const char* name : {"moon.png", "moon.jpg"}) {
        const QString path = QString::fromStdString(folder / name);
        REQUIRE(image.save(path));
        window->files().open_path(path);
        settle();
        REQUIRE(std::holds_alternative<Picture>(part().source.spec));
        CHECK(part().name.starts_with("moon"));
        REQUIRE(made().lines.size() == 1);
        type("width", "150 mm");
        CHECK(made().box.width() == Approx(80).margin(0.6)); // 160 of 300 pixels
        tick("invert");
        CHECK(made().lines.front().contours.size() == 2); // the ground, with the moon as its hole
        trigger("undo");
    }
    must(disk().write_atomically(folder / "torn.png", file(folder / "moon.png").substr(0, 90)));
    window->files().open_path(QString::fromStdString(folder / "torn.png"));
    settle();
    CHECK(notice_says("damaged or cut short")); // said, and nothing is made of it
    CHECK(project().parts.size() == 2);
    // A picture that does not say how large it is asks, like a drawing.
    std::string bare = file(folder / "moon.png");
    const auto density = bare.find("pHYs"); // Qt always writes one
    REQUIRE(density != std::string::npos);
    must(disk().write_atomically(folder / "bare.png", bare.erase(density - 4, 21)));
    window->files().open_path(QString::fromStdString(folder / "bare.png"));
    settle();
    CHECK(project().parts.size() == 2);
    CHECK_FALSE(find<QPushButton>("take-in")->isEnabled());
    tick("scale-150");
    press("take-in");
    REQUIRE(project().parts.size() == 3);
    CHECK(in_mm(std::get<Picture>(part().source.spec).width) == Approx(300 / 150.0 * 25.4));
    window->files().open_path(QString::fromStdString(folder / "bare.png"));
    settle();
    type("wanted-width", "80 mm");
    press("take-in");
    CHECK(in_mm(std::get<Picture>(part().source.spec).width) == Approx(80));
}

TEST_CASE_METHOD(Maker,
                 "the picker of steps: letters narrow it, arrows go on, Enter takes, Escape gives up") {
    press("start-label");
    press("add-step");
    auto* picker = find<app::Picker>("step-picker");
    auto* list = picker->findChild<QListWidget*>("picker-list");
    const auto seen = [&] {
        QStringList out;
        for (int i = 0; i < list->count(); ++i)
            if (!list->item(i)->isHidden()) out << list->item(i)->text();
        return out;
    };
    const QStringList all = seen();
    CHECK(all.size() > static_cast<int>(step_kinds().size())); // and the headings
    CHECK(QApplication::focusWidget() == find<QLineEdit>("picker-typed"));
    // Each kind has a picture, and they differ from one another.
    std::set<QByteArray> pictures;
    for (int i = 0; i < list->count(); ++i) {
        const QImage picture = list->item(i)->data(Qt::UserRole + 2).value<QPixmap>().toImage();
        if (list->item(i)->data(Qt::UserRole).isNull()) continue;
        INFO(list->item(i)->text().toStdString());
        REQUIRE_FALSE(picture.isNull());
        pictures.insert(QByteArray(reinterpret_cast<const char*>(picture.bits()), picture.sizeInBytes()));
    }
    CHECK(pictures.size() >= step_kinds().size() / 2); // some change nothing of a plain label
    auto* typed = find<QLineEdit>("picker-typed");
    QTest::keyClicks(typed, "lines edge");
    CHECK(seen() == QStringList{"Lines along the edge", "Outline", "Backing", "Print and cut", "Corners"});
    for (int i = 0; i < 3; ++i)
        QTest::keyClick(typed, Qt::Key_Down);
    CHECK(list->currentItem()->text() == "Corners");
    QTest::keyClick(typed, Qt::Key_Down); // the last stays
    QTest::keyClick(typed, Qt::Key_Return);
    settle();
    REQUIRE(part().steps.size() == 1);
    CHECK(std::holds_alternative<CornersStep>(part().steps.front().what));
    CHECK_FALSE(picker->isVisible());
    press("add-step");
    CHECK(seen() == all); // nothing stays typed
    QTest::keyClicks(find<QLineEdit>("picker-typed"), "no such thing");
    CHECK(seen().isEmpty());
    QTest::keyClick(find<QLineEdit>("picker-typed"), Qt::Key_Return);
    CHECK(part().steps.size() == 1);
    QTest::keyClick(find<QLineEdit>("picker-typed"), Qt::Key_Escape);
    CHECK_FALSE(picker->isVisible());
    // A press on a row takes it too.
    press("add-step");
    QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualItemRect(list->item(1)).center());
    settle();
    CHECK(part().steps.size() == 2);
}

TEST_CASE_METHOD(Maker, "what is made can be found on the start page by letters") {
    auto* typed = find<QLineEdit>("start-typed");
    CHECK(shown("start-badge"));
    QTest::keyClicks(typed, "scallop");
    CHECK_FALSE(shown("start-badge"));
    CHECK(shown("start-label")); // told with it
    CHECK(shown("start-edge-strip"));
    typed->selectAll();
    QTest::keyClicks(typed, "edge"); // told with repeat patterns too, but called so
    CHECK(shown("start-repeat-pattern"));
    QTest::keyClick(typed, Qt::Key_Return);
    settle();
    CHECK(std::holds_alternative<EdgeStrip>(part().source.spec));
    answers.unsaved_answer = app::Dialogs::Unsaved::discard;
    trigger("close");
    typed = find<QLineEdit>("start-typed");
    CHECK(typed->text().isEmpty());
    QTest::keyClicks(typed, "scallop");
    QTest::keyClick(typed, Qt::Key_Down);
    QTest::keyClick(typed, Qt::Key_Up);
    QTest::keyClick(typed, Qt::Key_Return);
    settle();
    CHECK(std::holds_alternative<Label>(part().source.spec));
}
