// The part on the bench: choosing lines, lanes by letter, fills, sizes.
#include <QLabel>

#include "app/recipe/finding_card.h"
#include "core/commands/parts.h"
#include "core/commands/steps.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

struct OnBench : Driver {
    LineId line(const char* name) {
        for (const DrawnLine& l : session().part()->source.drawing->lines)
            if (l.name == name) return l.id;
        FAIL("no line " << name);
        return {};
    }
    std::set<LineId> chosen() { return session().choice().lines; }
    /// What the first step of the part did that inks.
    InkReport first_ink() {
        for (const Step& step : session().part()->steps)
            if (const InkReport* ink = ink_of(*session().evaluated(), step.id)) return *ink;
        FAIL("no step inks");
        return {};
    }
    const FillStep& fill() { return std::get<FillStep>(session().part()->steps.front().what); }
};

} // namespace

TEST_CASE_METHOD(OnBench, "lines are chosen by click, with Shift and Ctrl, by box, by colour, by outline") {
    click({150, 50}); // on the fold
    CHECK(chosen() == std::set{line("fold")});
    click({0, 60}, Qt::ShiftModifier); // the card's edge as well
    CHECK(chosen() == std::set{line("fold"), line("card-edge")});
    click({150, 50}, Qt::ControlModifier);
    CHECK(chosen() == std::set{line("card-edge")});
    trigger("inside");
    CHECK(chosen().size() == 6);
    key(Qt::Key_Escape);
    CHECK(chosen().empty());
    drag(canvas(), at({155, 39}), at({199, 98})); // a box around the heron
    CHECK(chosen() == std::set{line("heron"), line("heron-eye")});
    trigger("same-colour");
    CHECK(chosen() == std::set{line("heron"), line("heron-eye"), line("card-edge")});
    trigger("choose-all");
    CHECK(chosen().size() == 7);
    click({60, 50}); // on nothing
    CHECK(chosen().empty());
}

TEST_CASE_METHOD(OnBench, "a lane's letter sends lines there, again to the next lane of that action") {
    click({150, 50});
    key(Qt::Key_C);
    CHECK(lines_in(Action::score) == 0);
    CHECK(lines_in(Action::cut) == 4);
    key(Qt::Key_D);
    CHECK(lines_in(Action::draw) == 3);
    session().change("another pen", [](Project& p) -> Result<void> {
        add_lane(p, {{}, Action::draw, "tide pen", "pen-0.8", {47, 93, 98}, 1});
        return {};
    });
    settle();
    key(Qt::Key_D);
    CHECK(dotlane::plate(project(), project().lanes.back().id) == "D2");
    const auto& sets = session().part()->sets;
    CHECK(std::any_of(sets.begin(), sets.end(), [&](const LineSet& s) {
        return s.lane == project().lanes.back().id && s.lines.size() == 1;
    }));
    key(Qt::Key_H); // no perforate lane yet: it is made with the usual tool
    CHECK(lines_in(Action::perforate) == 1);
    for (int i = 0; i < 5; ++i)
        trigger("undo");
    CHECK_FALSE(session().modified());
}

TEST_CASE_METHOD(OnBench,
                 "a fill's numbers are edited in place, take arithmetic and units, and show their effect") {
    const auto before = first_ink();
    type("spacing", "0.42mm*2");
    CHECK(in_mm(*fill().spacing) == Approx(0.84));
    const auto after = first_ink();
    CHECK(in_mm(after.length) <
          in_mm(before.length) * 0.75); // half the lines, and the ways along the edge between them
    CHECK(after.coverage.covered_percent < before.coverage.covered_percent);
    type("angle", "90/2");
    CHECK(in_degrees(fill().angle) == Approx(45));
    type("inset", "0.3");
    REQUIRE(fill().inset);
    CHECK(in_mm(*fill().inset) == Approx(0.3));
    type("inset", "half tip");
    CHECK_FALSE(fill().inset);
    choose("ends", "apart");
    CHECK(fill().ends == FillEnds::apart);
    CHECK(first_ink().lifts > 300);
    tick("on");
    CHECK_FALSE(session().part()->steps.front().on);
    tick("on");
    press("remove-step");
    CHECK(session().part()->steps.empty());
    CHECK(lines_in(Action::foil) == 1); // its outline is run again
}

TEST_CASE_METHOD(OnBench,
                 "a wrong number is marked and kept, nothing changes, Escape brings the old one back") {
    auto* field = find<QLineEdit>("spacing");
    const Project before = project();
    for (const char* wrong : {"abc", "0", "900 mm", "2mm*3mm"}) {
        type("spacing", wrong);
        CHECK(field->property("wrong").toBool());
        CHECK_FALSE(field->toolTip().isEmpty());
        CHECK(field->text() == wrong);
    }
    CHECK(project() == before);
    QTest::keyClicks(field, "x");
    QTest::keyClick(field, Qt::Key_Escape);
    CHECK(field->text() == "0.42 mm");
    CHECK_FALSE(field->property("wrong").toBool());
    QTest::keyClick(field, Qt::Key_Up); // arrow keys step
    settle();
    CHECK(in_mm(*fill().spacing) == Approx(0.47));
}

TEST_CASE_METHOD(OnBench, "the finished size is typed, the fill keeps its spacing") {
    const auto rows = first_ink().rows;
    type("finished-width", "150 mm");
    CHECK(session().evaluated()->source_box.width() == Approx(150));
    CHECK(session().part()->scale == Approx(0.5));
    CHECK(in_mm(*fill().spacing) == Approx(0.42));
    CHECK(first_ink().rows == Approx(static_cast<double>(rows) / 2).epsilon(0.05));
    type("finished-height", "100");
    CHECK(session().part()->scale == Approx(1));
    type("quantity", "12*2");
    CHECK(session().part()->quantity == 24);
    type("part-name", "Invitation, spring");
    CHECK(session().part()->name == "Invitation, spring");
}

TEST_CASE_METHOD(OnBench, "chosen lines are filled with one command") {
    click({159, 88}, {}); // somewhere near the heron: choose it by box instead
    drag(canvas(), at({155, 39}), at({199, 98}));
    trigger("fill");
    REQUIRE(session().part()->steps.size() == 2);
    const Lane* lane = dotlane::find(project(), session().part()->steps[1].lane);
    CHECK((lane->action == Action::foil || lane->action == Action::draw)); // never a blade
    CHECK(session().choice().step == session().part()->steps[1].id);
    click({150, 50}); // the fold is open
    trigger("fill");
    CHECK(window->notice_text().contains("closed lines"));
    CHECK(session().part()->steps.size() == 2);
}

TEST_CASE_METHOD(OnBench, "lanes are changed in their panel") {
    trigger("lanes");
    choose("lane-action", "Engrave");
    CHECK(project().lanes.front().action == Action::engrave);
    CHECK(project().lanes.front().tool == "engraving-tip");
    CHECK(project().lanes.front().name == "engraving tip"); // a name the program gave follows
    type("lane-repeats", "3");
    CHECK(project().lanes.front().repeats == 3);
    type("lane-repeats", "12");
    CHECK(project().lanes.front().repeats == 3);
    const auto lanes = project().lanes.size();
    press("new-lane");
    CHECK(project().lanes.size() == lanes + 1);
    press("lane-remove");
    CHECK(project().lanes.size() == lanes);
    press("lanes-done");
    CHECK(shown("add-step"));
}

TEST_CASE_METHOD(OnBench, "the view zooms about the pointer, pans and fits") {
    auto* view = canvas();
    const QPoint p = at({200, 50});
    const Point under = view->view().unmap(p);
    QWheelEvent wheel(p, view->mapToGlobal(p), {}, {0, 240}, Qt::NoButton, Qt::NoModifier, Qt::NoScrollPhase,
                      false);
    QApplication::sendEvent(view, &wheel);
    CHECK(distance(view->view().unmap(p), under) < 1e-6);
    const double zoomed = view->view().scale;
    drag(view, {300, 200}, {300, 200});
    QTest::mousePress(view, Qt::MiddleButton, {}, {300, 200});
    QMouseEvent move(QEvent::MouseMove, QPoint(340, 200), view->mapToGlobal(QPoint(340, 200)), Qt::NoButton,
                     Qt::MiddleButton, {});
    QApplication::sendEvent(view, &move);
    QTest::mouseRelease(view, Qt::MiddleButton, {}, {340, 200});
    CHECK(view->view().unmap(p).x == Approx(under.x - 40 / zoomed).margin(0.01));
    trigger("fit");
    CHECK(at({0, 0}).x() > 0);
    CHECK(at({300, 100}).x() < view->width());
}

TEST_CASE("the list of findings says whose each is, and follows a new name") {
    Driver d(false);
    Project project = bench("<rect x='10' y='10' width='0.4' height='30' fill='#a8462d'/>"
                            "<rect x='30' y='30' width='30' height='30' fill='#a8462d'/>")
                          .project;
    project.parts.front().name = "sliver";
    d.window->files().start_project(project, {});
    d.settle();
    const auto owners = [&] {
        QStringList out;
        for (const auto* text : d.window->findChildren<QLabel*>("owner"))
            if (text->isVisible()) out << text->text();
        return out;
    };
    CHECK(owners().isEmpty()); // beside the part they are its own
    d.trigger("view-findings");
    REQUIRE(has(d.session().derived()->findings, "piece.thin"));
    CHECK(owners().contains("sliver"));
    RenamePart rename{project.parts.front().id, "sliver twice"};
    REQUIRE(d.session().run("Rename", rename));
    d.settle();
    CHECK(owners().contains("sliver twice"));
    CHECK_FALSE(owners().contains("sliver"));
}

TEST_CASE("a finding that is pressed shows its place and its step, and its remedies stay at hand") {
    Driver d(false);
    // Two openings 1 mm apart.
    Bench b = bench("<rect x='10' y='10' width='20' height='20' fill='#a8462d'/>"
                    "<rect x='31' y='10' width='20' height='20' fill='#a8462d'/>");
    must(apply(AddStep{b.part, StencilStep{}}, b.project, catalog(), *b.derive()->part(b.part)));
    d.window->files().start_project(b.project, {});
    d.settle();
    d.trigger("view-findings");
    const auto card = [&]() -> app::FindingCard* {
        for (auto* one : d.window->findChildren<app::FindingCard*>())
            if (one->isVisible() && one->finding().code == "stencil.web") return one;
        return nullptr;
    };
    REQUIRE(card());
    app::PartView& view = d.window->work().part_view();
    const auto red = [&] { return d.colours_of(view)[present::Theme::current().error.rgb()]; };
    const int before = red();
    QTest::mouseClick(card(), Qt::LeftButton, {}, QPoint(card()->width() - 12, 12));
    d.settle();
    CHECK(d.session().choice().step == d.session().part()->steps.front().id);
    CHECK(red() > before + 20); // the strip is ringed
    REQUIRE(card());
    d.press_words("Shrink the openings just there");
    CHECK_FALSE(has(d.session().derived()->findings, "stencil.web"));
    CHECK(d.find<QPushButton>("findings-done")->isVisible());
}
