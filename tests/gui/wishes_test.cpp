// What runs, and when: other orders beside this one, ticks of this run, and the menu of the board's blocks.
#include <QCheckBox>
#include <QContextMenuEvent>
#include <QLabel>
#include <QScrollArea>
#include <QScrollBar>

#include "app/lanes/tool_card.h"
#include "app/run/wishes_panel.h"
#include "app/widgets/notice.h"
#include "app/widgets/number_field.h"
#include "core/catalog/user_catalog.h"
#include "core/commands/project.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

template<class When>
bool waited(Driver& d, const When& when) {
    for (int i = 0; i < 200; ++i) {
        d.settle();
        if (when()) return true;
        QTest::qWait(20);
    }
    return false;
}

std::size_t strokes(const Driver& d, PartId part) {
    std::size_t n = 0;
    for (const Move& move : const_cast<Driver&>(d).session().derived()->plan->program.moves)
        if (const auto* pass = std::get_if<PassMove>(&move))
            for (const Stroke& stroke : pass->strokes)
                n += stroke.of.part == part ? 1 : 0;
    return n;
}

QString panel_text(Driver& d) {
    QString all;
    for (const auto* text : d.window->findChild<app::WishesPanel*>()->findChildren<QLabel*>())
        if (text->isVisible()) all += text->text() + "\n";
    return all;
}

/// A menu that has just been opened; its entries.
QMenu* menu_of(Driver& d) {
    for (auto* menu : d.window->findChildren<QMenu*>("block-menu"))
        if (menu->isVisible()) return menu;
    FAIL("no menu");
    return nullptr;
}

QAction* entry(QMenu* menu, const QString& beginning) {
    for (QAction* action : menu->actions())
        if (action->text().startsWith(beginning)) return action;
    FAIL(beginning.toStdString());
    return nullptr;
}

/// The menu of a block, as the keyboard opens it.
QMenu* open_menu(Driver& d, int block) {
    auto* map = d.window->findChild<app::BoardMap*>();
    map->setFocus();
    QTest::keyClick(map, Qt::Key_Home);
    QTest::mouseMove(map, {1, 1});
    for (int i = 0; i <= block; ++i)
        QTest::keyClick(map, Qt::Key_Right);
    QContextMenuEvent event(QContextMenuEvent::Keyboard, {5, 5}, map->mapToGlobal(QPoint(5, 5)));
    QApplication::sendEvent(map, &event);
    return menu_of(d);
}

} // namespace

TEST_CASE("another order is laid beside the plan, and taken") {
    Driver d;
    d.press("wishes");
    REQUIRE(waited(d, [&] { return panel_text(d).contains("Times a mat comes out"); }));
    const double before = in_seconds(d.session().derived()->plan->totals.hands);
    CHECK(panel_text(d).contains("Your time"));
    d.press("take-order");
    CHECK(d.project().wishes.school == School::tools);
    CHECK(in_seconds(d.session().derived()->plan->totals.hands) != before);
    CHECK(has(d.session().derived()->findings, "order.out-and-in"));
    d.session().history().undo();
    d.settle();
    CHECK(in_seconds(d.session().derived()->plan->totals.hands) == before);
    // What is wrong is told, and nothing changes.
    d.choose("rule-before", "S  ");
    d.choose("rule-after", "S  ");
    d.press("rule-add");
    CHECK(d.project().wishes.rules.empty());
    d.press("wishes-done");
    CHECK_FALSE(d.shown("rule-add"));
}

TEST_CASE("this run only: what has no tick is left out, the project stays as it is") {
    Driver d;
    const Project before = d.project();
    const PartId part = before.parts.front().id;
    REQUIRE(strokes(d, part) > 0);
    const int sheets = d.session().derived()->plan->totals.sheets;
    REQUIRE(sheets == 2);
    d.trigger("wishes");
    QCheckBox* sheet = nullptr;
    for (auto* box : d.window->findChild<app::WishesPanel*>()->findChildren<QCheckBox*>())
        if (box->text() == "sheet 1") sheet = box;
    REQUIRE(sheet);
    QTest::mouseClick(sheet, Qt::LeftButton, {}, QPoint(8, sheet->height() / 2));
    d.settle();
    CHECK(d.session().derived()->plan->totals.sheets == 1);
    CHECK(d.session().left_out().sheets.size() == 1);
    CHECK(d.project() == before);
    CHECK_FALSE(d.session().modified());
    d.tick("run-lane"); // the first lane
    CHECK(d.session().left_out().lanes.size() == 1);
    for (const Move& move : d.session().derived()->plan->program.moves)
        if (const auto* pass = std::get_if<PassMove>(&move)) CHECK(pass->lane != before.lanes.front().id);
    d.tick("run-part");
    CHECK_FALSE(d.session().derived()->plan);
    d.tick("run-part");
    d.tick("run-lane");
    QTest::mouseClick(sheet, Qt::LeftButton, {}, QPoint(8, sheet->height() / 2));
    d.settle();
    CHECK(d.session().left_out().empty());
    CHECK(d.session().derived()->plan->totals.sheets == sheets);
    // Another project begins whole.
    d.tick("run-lane");
    d.window->files().start_project(before, {});
    d.settle();
    CHECK(d.session().left_out().empty());
}

TEST_CASE("a broken rule is shown at the block that breaks it, and kept again from there") {
    Driver d;
    auto* map = d.window->findChild<app::BoardMap*>();
    CHECK(d.session().derived()->plan->broken.empty());
    const QImage before = map->grab().toImage();
    std::vector<LaneId> order;
    for (const Lane& lane : d.project().lanes)
        (lane.action == Action::cut ? order.insert(order.begin(), lane.id)
                                    : order.insert(order.end(), lane.id));
    d.session().run("Order", in_order(order));
    d.settle();
    const Plan& plan = *d.session().derived()->plan;
    REQUIRE_FALSE(plan.broken.empty());
    for (const auto& [move, finding] : plan.broken) {
        const auto& late = std::get<PassMove>(plan.program.moves[move]);
        CHECK(late.action != Action::cut); // it is what runs after the cut that is at risk
        bool cut = false;
        for (std::size_t m = 0; m < move; ++m)
            if (const auto* pass = std::get_if<PassMove>(&plan.program.moves[m]))
                cut |= pass->sheet == late.sheet && pass->action == Action::cut;
        CHECK(cut);
        const auto lines = present::callout(plan, move).second;
        CHECK(std::any_of(lines.begin(), lines.end(),
                          [](const auto& line) { return line.care && line.text.contains("may shift"); }));
    }
    CHECK(before != map->grab().toImage());
    QMenu* menu = open_menu(d, plan.broken.front().first);
    entry(menu, "Keep the rule")->trigger();
    menu->close();
    d.settle();
    CHECK(d.session().derived()->plan->broken.empty());
}

TEST_CASE("a block of the board says why it is there, is pinned and left out") {
    Driver d;
    QMenu* menu = open_menu(d, 0); // the first stop
    entry(menu, "Why is this here?")->trigger();
    menu->close();
    REQUIRE(waited(d, [&] { return d.window->work().notice().text().contains("hands are needed"); }));
    CHECK(d.window->work().notice().text().contains("next best place"));
    menu = open_menu(d, 0);
    entry(menu, "Pin ")->trigger();
    menu->close();
    d.settle();
    REQUIRE(d.project().wishes.pins.size() == 1);
    CHECK(d.project().wishes.pins.front().place == 1);
    menu = open_menu(d, 0);
    entry(menu, "Let ")->trigger();
    menu->close();
    d.settle();
    CHECK(d.project().wishes.pins.empty());
    menu = open_menu(d, 1); // the first pass
    const QString text = entry(menu, "Leave ")->text();
    entry(menu, "Leave ")->trigger();
    menu->close();
    d.settle();
    CHECK(d.session().left_out().sheets.size() == 1);
    CHECK(text.contains("out of this run"));
    // The panel shows it, also while it is looked at.
    d.trigger("wishes");
    const auto unticked = [&] {
        int n = 0;
        for (auto* box : d.window->findChild<app::WishesPanel*>()->findChildren<QCheckBox*>())
            n += box->isVisible() && !box->isChecked() ? 1 : 0;
        return n;
    };
    CHECK(unticked() == 1);
    menu = open_menu(d, 1);
    const std::size_t lanes = d.session().left_out().lanes.size();
    for (QAction* action : menu->actions())
        if (action->text().startsWith("Leave ") && !action->text().contains("sheet")) {
            action->trigger();
            break;
        }
    menu->close();
    d.settle();
    CHECK(d.session().left_out().lanes.size() == lanes + 1);
    CHECK(unticked() == 2);
}

TEST_CASE("what is kept of a tool is planned with at once, and is no part of the project") {
    const OwnHome home;
    Driver d;
    const Project before = d.project();
    d.trigger("lanes");
    const auto speed_of_cut = [&] {
        for (const Move& move : d.session().derived()->plan->program.moves)
            if (const auto* pass = std::get_if<PassMove>(&move); pass && pass->action == Action::cut)
                return in_mm_per_second(pass->speed);
        return 0.0;
    };
    d.type("setting-speed", "17");
    CHECK(speed_of_cut() == 17);
    d.tick("setting-tried");
    const Tool& blade = *d.session().catalog().tool(find(d.project(), d.project().lanes.front().id)->tool);
    const Stock& stock = *d.session().catalog().stock(d.project().sheets.front().stock);
    const Machine& machine = *d.session().catalog().machine(d.project().machine);
    REQUIRE(d.session().catalog().setting(blade, stock, machine));
    CHECK(d.session().catalog().setting(blade, stock, machine)->from == Setting::From::swatch);
    // What was kept for this machine alone goes before what holds for any, so it is what is changed.
    Setting here = *d.session().catalog().setting(blade, stock, machine);
    here.machine = machine.id, here.speed = mm_per_second(11);
    REQUIRE(d.session().keep(
        [&](FileSystem& files, const std::string& to) { return keep_setting(files, to, here); }));
    d.settle();
    CHECK(speed_of_cut() == 11);
    d.type("setting-speed", "13");
    CHECK(speed_of_cut() == 13);
    d.type("offset-right", "1.2");
    d.type("offset-down", "-0.5");
    CHECK(d.session().catalog().tool(blade.id)->offset == Point{1.2, -0.5});
    for (const Move& move : d.session().derived()->plan->program.moves)
        if (const auto* pass = std::get_if<PassMove>(&move))
            CHECK(pass->offset == (pass->action == Action::cut ? Point{1.2, -0.5} : Point{}));
    CHECK(d.project() == before);
    CHECK_FALSE(d.session().modified());
    CHECK(std::string(file(home.path + "/dot-lane/catalog/kept.json")).find("swatch") != std::string::npos);
}

TEST_CASE("a spare mat, small pieces first and ink that dries are told in the window, and the plan follows") {
    const OwnHome home;
    Driver d;
    const auto lane = [&](Action action) {
        for (const Lane& l : d.project().lanes)
            if (l.action == action) return l.id;
        return LaneId{};
    };
    const PlanTotals before = d.session().derived()->plan->totals;
    d.press("wishes");
    auto* bar = d.window->findChild<app::WishesPanel*>()->findChild<QScrollArea*>()->verticalScrollBar();
    REQUIRE(bar->maximum() > 150);
    bar->setValue(150);
    d.type("mats", "2");
    CHECK(d.project().wishes.mats == 2);
    CHECK(bar->value() == 150); // nothing jumps
    const PlanTotals spare = d.session().derived()->plan->totals;
    CHECK(in_seconds(spare.meanwhile) > 0);
    CHECK(in_seconds(spare.hands) == Approx(in_seconds(before.hands)));
    d.press("wishes-done");
    const LaneId cut = lane(Action::cut), draw = lane(Action::draw);
    d.window->work().show_lanes(cut);
    d.settle();
    CHECK(d.shown("lane-pieces"));
    d.choose("lane-pieces", "small ones before large ones");
    CHECK(find(d.project(), cut)->run.small_first);
    CHECK_FALSE(d.shown("setting-dry")); // a blade leaves nothing wet
    d.window->work().show_lanes(draw);
    d.settle();
    CHECK_FALSE(d.shown("lane-pieces"));
    d.type("setting-dry", "900");
    CHECK(in_seconds(d.session().derived()->plan->totals.hands) > in_seconds(before.hands));
}
