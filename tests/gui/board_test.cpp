// The lane board with many lanes and sheets: zoomed, scrolled, grouped, nothing left out.
#include <QWheelEvent>

#include "core/commands/making.h"
#include "core/commands/placing.h"
#include "core/project/edits.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// Twelve lanes, forty sheets of two stocks: the first ten differ from the others in what runs there.
struct Crowded : Driver {
    Crowded()
        : Driver(false) {
        Project project = workshop.new_project("crowded");
        const Catalog& catalog = workshop.catalog();
        Label label;
        label.width = mm(60), label.height = mm(40);
        const PartId rich = must(make_part(project, catalog, workshop.fonts(), label));
        const PartId plain = must(make_part(project, catalog, workshop.fonts(), label));
        const LineSetId outline = dotlane::find(project, rich)->sets.front().id;
        for (int i = 0; i < 11; ++i) {
            Lane lane{{}, i < 8 ? Action::draw : i < 10 ? Action::foil : Action::score, "", "", {}};
            lane.tool = catalog.first_tool(lane.action)->id;
            lane.colour = {static_cast<std::uint8_t>(20 * i), 90, static_cast<std::uint8_t>(240 - 20 * i)};
            lane.name = "lane " + std::to_string(i);
            OutlineStep step;
            step.distance = mm(1 + 0.5 * i);
            const StepId made = must(append_step(project, catalog, rich, step, {outline}));
            Step changed = *dotlane::find(*dotlane::find(project, rich), made);
            changed.lane = add_lane(project, lane);
            must(change_step(project, rich, changed));
        }
        for (int s = 0; s < 40; ++s) {
            const SheetId sheet =
                add_sheet(project, "sheet " + std::to_string(s + 1), catalog.stocks[s < 20].id,
                          catalog.machine(project.machine)->mats.front());
            Placement p;
            p.part = s < 10 ? rich : plain, p.left = mm(30), p.top = mm(30);
            must(place(project, sheet, p));
        }
        window->files().start_project(std::move(project), {});
        settle();
        map = window->findChild<app::BoardMap*>();
        REQUIRE(map);
    }
    present::BoardLayout layout() {
        return {{session().derived().get(), &session().catalog(), {}, {}, {}, {}, true, map->view()},
                QRectF(map->rect()).adjusted(14, 0, -14, -2)};
    }
    const Plan& plan() { return *session().derived()->plan; }
    void wheel(QPointF at, int notches, Qt::KeyboardModifiers with = {}) {
        QWheelEvent event(at, map->mapToGlobal(at), {}, {0, 120 * notches}, Qt::NoButton, with,
                          Qt::NoScrollPhase, false);
        QApplication::sendEvent(map, &event);
        settle();
    }
    app::BoardMap* map = nullptr;
};

} // namespace

TEST_CASE_METHOD(Crowded, "lanes keep apart and can all be reached, sheets that are alike are shown as one") {
    const auto whole = layout();
    CHECK(whole.tracks.size() == 12);
    CHECK(whole.sheets.size() == 40);
    for (std::size_t i = 1; i < whole.tracks.size(); ++i)
        CHECK(whole.tracks[i].y - whole.tracks[i - 1].y >= 20); // plates are 17 px high
    // Ten rich sheets, ten plain ones of the same stock, twenty of the other.
    REQUIRE(whole.groups.size() >= 2);
    const auto last = whole.groups.back();
    CHECK(whole.sheets[last.first].number == 21);
    CHECK(whole.sheets[last.last].number == 40);
    // Over the names the wheel scrolls the lanes down to the last of them.
    CHECK(whole.tracks.back().y > whole.plot.bottom());
    wheel({60, whole.plot.center().y()}, -30);
    CHECK(layout().tracks.back().y < layout().plot.bottom());
    const auto head = layout().head_hit({60, layout().tracks.back().y});
    REQUIRE(head);
    CHECK(*head == layout().tracks.back().lane);
    wheel({60, whole.plot.center().y()}, 30);
    CHECK(layout().tracks.front().y == Approx(whole.tracks.front().y));
}

TEST_CASE_METHOD(Crowded, "the wheel zooms about the pointer, Shift scrolls, and everything comes apart") {
    Random random("board");
    INFO("seed " << random.seed());
    const auto* show_all = window->findChild<QPushButton*>("whole-run");
    CHECK_FALSE(show_all->isVisible());
    for (int round = 0; round < 5; ++round) {
        const QPointF at(random.real(layout().plot.left(), layout().plot.right()),
                         layout().plot.center().y());
        const double before = in_seconds(layout().time(at.x()));
        wheel(at, random.whole(1, 6));
        CHECK(in_seconds(layout().time(at.x())) == Approx(before).margin(layout().seconds_shown / 500));
    }
    CHECK(show_all->isVisible());
    CHECK_FALSE(layout().overview.isEmpty());
    const double from = layout().seconds_from;
    wheel(layout().plot.center(), 1, Qt::ShiftModifier);
    CHECK(layout().seconds_from <= from);
    // Far enough in, no sheet is hidden in a group, and each move can be met where it stands.
    map->show_all();
    wheel(layout().plot.center(), 40);
    CHECK(layout().groups.empty());
    map->setFocus();
    QTest::keyClick(map, Qt::Key_Home);
    settle();
    CHECK(layout().seconds_shown == Approx(layout().seconds_all));
    CHECK_FALSE(show_all->isVisible());
    // The keyboard walks through all moves, and what it is at is always in view.
    wheel({layout().plot.left() + 1, layout().plot.center().y()}, 16);
    for (std::size_t m = 0; m < 30 && m < plan().program.moves.size(); ++m) {
        QTest::keyClick(map, Qt::Key_Right);
        const double x = layout().x(plan().timeline.spans()[m].start);
        CHECK(x >= layout().plot.left() - 1);
        CHECK(x <= layout().plot.right() + 1);
    }
    // A press in the overview goes there.
    const QRectF strip = layout().overview;
    QTest::mouseClick(map, Qt::LeftButton, {}, QPointF(strip.right() - 2, strip.center().y()).toPoint());
    settle();
    CHECK(layout().seconds_from + layout().seconds_shown > layout().seconds_all * 0.95);
}
