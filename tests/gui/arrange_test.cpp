// Several parts on a sheet, pieces that lie apart, steps that are dragged: in the window.
#include "app/recipe/step_card.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;
using View = app::WorkPage::View;

namespace {

/// Two invitations on the first sheet.
struct Several : Driver {
    Several() {
        window->work().show_view(View::sheets);
        settle();
        REQUIRE(sheet().placements.size() == 2);
    }
    const Sheet& sheet() { return project().sheets.front(); }
    Box box(std::size_t i) { return session().derived()->sheet(sheet().id)->parts[i].box; }
    Box reach() { return session().derived()->sheet(sheet().id)->usable; }
    std::size_t chosen() { return session().chosen_placements().size(); }
    void choose_both() {
        click(box(0).centre());
        click(box(1).centre(), Qt::ControlModifier);
        REQUIRE(chosen() == 2);
    }
};

} // namespace

TEST_CASE_METHOD(Several, "several are chosen with Ctrl, a band, all, moved, nudged and taken off as one") {
    choose_both();
    const Box a = box(0), b = box(1);
    drag(canvas(), at(a.centre()), at(a.centre() + Point{-1, 14}), Qt::ShiftModifier); // Shift: no snapping
    CHECK(box(0).y0 - a.y0 == Approx(14).margin(0.7));                                 // a pixel or so
    CHECK(box(1).y0 - b.y0 == Approx(box(0).y0 - a.y0));
    canvas()->setFocus();
    const double before = box(1).x0;
    key(Qt::Key_Right);
    CHECK(box(1).x0 == Approx(before + 1));
    trigger("undo");
    click(box(1).centre(), Qt::ControlModifier); // leaves it
    CHECK(chosen() == 1);
    click({reach().x1 - 2, reach().y1 - 2}); // nothing there
    CHECK(chosen() == 0);
    drag(canvas(), at({reach().x1 - 2, reach().y1 - 2}), at({reach().x0 + 1, reach().y0 + 1}));
    CHECK(chosen() == 2);
    click(box(0).centre()); // a press without a drag on one of several chooses that one
    CHECK(chosen() == 1);
    trigger("choose-all");
    CHECK(chosen() == 2);
    trigger("take-off");
    CHECK(sheet().placements.empty());
    trigger("undo");
    CHECK(sheet().placements.size() == 2);
}

TEST_CASE_METHOD(Several, "what is grouped is chosen, moved, duplicated and turned together") {
    choose_both();
    press("group");
    CHECK(sheet().placements[0].group == sheet().placements[1].group);
    CHECK_FALSE(shown("left")); // the numbers of a single part
    key(Qt::Key_Escape);
    CHECK(chosen() == 0);
    click(box(0).centre());
    CHECK(chosen() == 2);
    const Point apart = box(1).centre() - box(0).centre();
    trigger("quarter");
    const Point turned = box(1).centre() - box(0).centre();
    CHECK(turned.x == Approx(-apart.y).margin(1e-6));
    CHECK(turned.y == Approx(apart.x).margin(1e-6));
    trigger("mirror");
    CHECK((box(1).centre() - box(0).centre()).x == Approx(-turned.x).margin(1e-6));
    trigger("undo");
    trigger("undo");
    trigger("duplicate");
    REQUIRE(sheet().placements.size() == 4);
    CHECK(chosen() == 2);
    CHECK(sheet().placements[3].group != sheet().placements[0].group);
    trigger("undo");
    click(box(0).centre());
    press("ungroup");
    CHECK(sheet().placements[1].group == 0);
    CHECK_FALSE(shown("ungroup"));
}

TEST_CASE_METHOD(Several, "parts are lined up and spread by buttons") {
    click(box(0).centre());
    CHECK_FALSE(shown("spread-across")); // one alone cannot be spread
    press("up-right");
    CHECK(box(0).x1 == Approx(reach().x1));
    press("up-centre");
    CHECK(box(0).centre().y == Approx(reach().centre().y));
    choose("arrange-to", "sheet of stock");
    press("up-left");
    CHECK(box(0).x0 == Approx(session().derived()->sheet(sheet().id)->stock.x0).margin(1e-9));
    choose_both();
    choose("arrange-to", "chosen last");
    press("up-top");
    CHECK(box(0).y0 == Approx(box(1).y0));
    choose("arrange-to", "one another");
    press("spread-across"); // two: they are the outer ones
    CHECK(notice_says("at least three"));
    choose("arrange-to", "tool reaches");
    press("spread-down");
    CHECK(notice_says("too high"));
    press("spread-across");
    const double low = std::min(box(0).x0, box(1).x0), high = std::max(box(0).x1, box(1).x1);
    CHECK(low == Approx(reach().x0));
    CHECK(high == Approx(reach().x1));
}

TEST_CASE("pieces lie apart on the sheet, pressed on the bench they keep together") {
    Driver d(false);
    d.press("start-lettering");
    d.type("size", "30 mm");
    d.window->work().show_view(View::sheets);
    d.settle();
    d.press("add-sheet"); // the first sheet takes the part at hand
    const auto lying = [&] { return d.project().sheets.front().placements; };
    REQUIRE(lying().size() == 1);
    d.window->work().show_view(View::part);
    d.settle();
    d.add_step("Lay apart");
    const auto arrangements = [&]() -> const std::vector<Arrangement>& {
        return d.session().evaluated()->apart;
    };
    const std::size_t pieces = arrangements().size();
    REQUIRE(pieces > 1);
    // The first piece and the last are pressed: they keep together.
    const auto press_piece = [&](std::size_t i) {
        const Step& step = d.session().part()->steps.at(0);
        const Region& region = d.session().evaluated()->reports.at(step.id)->pieces.at(i).region;
        const Box box = bounds(region);
        for (double t = 0.05; t < 1; t += 0.05) // somewhere on it
            for (double u = 0.05; u < 1; u += 0.05)
                if (const Point p{box.x0 + t * box.width(), box.y0 + u * box.height()};
                    contains(offset(region, mm(-0.4)), p))
                    return d.click(p);
        FAIL("no place to press");
    };
    press_piece(0);
    CHECK(arrangements().size() == pieces); // with none other yet
    press_piece(pieces - 1);
    CHECK(arrangements().size() == pieces - 1);
    press_piece(pieces - 1);
    CHECK(arrangements().size() == pieces);
    d.trigger("undo");
    CHECK(arrangements().size() == pieces - 1);
    // It lies on the sheet as a whole still; the hint's button lays the pieces out.
    d.press_words("Lay them apart");
    CHECK(lying().size() == pieces - 1);
    d.window->work().show_view(View::sheets);
    d.settle();
    d.trigger("choose-all");
    d.trigger("take-off");
    CHECK(lying().empty());
    d.press("place-part");
    CHECK(lying().size() == pieces - 1);
    CHECK(d.session().chosen_placements().size() == pieces - 1);
    d.press("place-part"); // all are there: once more
    CHECK(lying().size() == 2 * (pieces - 1));
}

TEST_CASE("a step is dragged by its handle, moved by keys, and put back") {
    Driver d(false);
    d.press("start-lettering");
    for (const char* step : {"Outline", "Corners", "Turn"})
        d.add_step(step);
    d.window->resize(1280, 1400); // so that all cards are in view
    d.settle();
    const auto kinds = [&] {
        std::string out;
        for (const Step& s : d.session().part()->steps)
            out += std::string(out.empty() ? "" : " ") + kind_of(s.what).key;
        return out;
    };
    const auto cards = [&] {
        auto all = d.window->findChildren<app::StepCard*>();
        all.erase(std::remove_if(all.begin(), all.end(), [](auto* c) { return !c->isVisible(); }), all.end());
        std::sort(all.begin(), all.end(), [](auto* a, auto* b) { return a->y() < b->y(); });
        return all;
    };
    const auto grip = [&](int i) { return cards()[i]->findChild<app::Grip*>("step-grip"); };
    const auto drag_to = [&](int from, int before) {
        auto* g = grip(from);
        auto* target = cards()[std::min(before, 2)];
        const int y = before > 2 ? target->height() - 4 : 4;
        d.drag(g, g->rect().center(), g->mapFromGlobal(target->mapToGlobal(QPoint(20, y))));
    };
    REQUIRE(kinds() == "outline corners turn");
    drag_to(2, 0);
    CHECK(kinds() == "turn outline corners");
    drag_to(0, 3);
    CHECK(kinds() == "outline corners turn");
    const int steps = d.session().history().count();
    drag_to(1, 1); // onto itself
    CHECK(d.session().history().count() == steps);
    grip(0)->setFocus();
    QTest::keyClick(grip(0), Qt::Key_Down);
    d.settle();
    CHECK(kinds() == "corners outline turn");
    CHECK(QApplication::focusWidget() == grip(1)); // and can be moved on
    QTest::keyClick(grip(0), Qt::Key_Up);          // the first stays
    d.settle();
    CHECK(kinds() == "corners outline turn");
    d.trigger("undo");
    CHECK(kinds() == "outline corners turn");
}

TEST_CASE("layers are added by number, each on the one before, a lane tells how many lines run in it") {
    Driver d(false);
    d.press("start-label");
    d.choose("edge", "plain");
    const double wide = d.session().evaluated()->box.width();
    d.type("how-many-layers", "3");
    d.type("layers-reveal", "2.5 mm");
    d.press("add-layer");
    REQUIRE(d.project().parts.size() == 4);
    const double reveal = 2.5;
    for (std::size_t i = 0; i < 4; ++i)
        CHECK(d.session().derived()->part(d.project().parts[i].id)->box.width() ==
              Approx(wide - 2 * reveal * static_cast<double>(i)).margin(0.01));
    CHECK(d.session().choice().part == d.project().parts[1].id);
    d.trigger("undo");
    CHECK(d.project().parts.size() == 1);
    d.trigger("redo");
    d.trigger("lanes");
    bool told = false;
    for (QLabel* l : d.window->findChildren<QLabel*>())
        told |= l->isVisible() && l->text() == "4 lines in it";
    CHECK(told); // four outlines are cut
}
