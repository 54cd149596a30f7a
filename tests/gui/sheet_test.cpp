// Sheets, board and rehearsal in the window.
#include <QLabel>

#include "present/words.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;
using View = app::WorkPage::View;

namespace {

struct OnSheets : Driver {
    OnSheets() {
        window->work().show_view(View::sheets);
        settle();
    }
    const Placement& placed(std::size_t i = 0) { return project().sheets.front().placements[i]; }
    Box box(std::size_t i = 0) {
        return session().derived()->sheet(project().sheets.front().id)->parts[i].box;
    }
};

} // namespace

TEST_CASE_METHOD(OnSheets,
                 "a part is chosen, dragged, snaps to the usable edge, and is moved by numbers and keys") {
    const Box before = box(1);
    click(before.centre());
    CHECK(session().choice().placement == placed(1).id);
    drag(canvas(), at(before.centre()), at(before.centre() + Point{40, 0}), Qt::ShiftModifier);
    CHECK(box(1).x0 == Approx(before.x0 + 40).margin(0.5)); // a pixel or so
    // Dragged to within a few pixels of the right edge of the usable area it goes there exactly.
    const Box u = session().derived()->sheet(project().sheets.front().id)->usable;
    drag(canvas(), at(box(1).centre()), at(box(1).centre() + Point{u.x1 - box(1).x1 - 1.5, 0}));
    CHECK(box(1).x1 == Approx(u.x1).margin(1e-6));
    type("left", "120 mm");
    CHECK(in_mm(placed(1).left) == Approx(120));
    canvas()->setFocus();
    key(Qt::Key_Right);
    key(Qt::Key_Down, Qt::ControlModifier);
    CHECK(in_mm(placed(1).left) == Approx(121));
    session().set_merge_window(std::chrono::minutes(10)); // however busy the machine is
    const auto steps = session().history().count();
    key(Qt::Key_Right);
    key(Qt::Key_Right, Qt::ShiftModifier);
    CHECK(in_mm(placed(1).left) == Approx(132));
    CHECK(session().history().count() == steps); // nudges in a row are one step to undo
}

TEST_CASE_METHOD(OnSheets, "turn, mirror, duplicate, grid, take off: by button and by key") {
    click(box().centre());
    press("quarter-turn");
    CHECK(std::abs(in_degrees(placed().turn)) == Approx(180));
    type("turn", "90");
    key(Qt::Key_M, Qt::ControlModifier);
    CHECK(placed().mirrored);
    tick("mirrored");
    CHECK_FALSE(placed().mirrored);
    const auto before = project().sheets.front().placements.size();
    trigger("take-off");
    CHECK(project().sheets.front().placements.size() == before - 1);
    trigger("undo");
    click(box(0).centre());
    type("columns", "2");
    type("rows", "2");
    type("gap", "1/4 in");
    press("copy-grid");
    CHECK(project().sheets.front().placements.size() == before + 3);
    CHECK(in_mm(placed(before).left) - in_mm(placed(0).left) == Approx(100 + 6.35));
    trigger("undo");
    click(box(0).centre());
    trigger("duplicate");
    CHECK(project().sheets.front().placements.size() == before + 1);
}

TEST_CASE_METHOD(OnSheets, "the turn handle turns about the middle, in steps unless Shift is held") {
    const Point middle = box().centre();
    click(middle);
    const QPoint centre = at(middle), handle = QPoint(centre.x(), at({0, box().y0}).y() - 22);
    // A quarter turn to the right: from above to the right of the middle.
    drag(canvas(), handle, centre + QPoint(centre.y() - handle.y(), 0));
    CHECK(std::abs(in_degrees(placed().turn)) == Approx(180)); // 90 before, 90 more
    CHECK(distance(box().centre(), middle) < 1e-6);
}

TEST_CASE_METHOD(OnSheets, "dragging a part off the usable area shows by how much, and can be brought in") {
    click(box(0).centre());
    drag(canvas(), at(box(0).centre()), at(box(0).centre() - Point{25, 0}), Qt::ShiftModifier);
    const Findings& f = session().derived()->findings;
    const Finding& out = get(f, "sheet.outside");
    CHECK(out.grade == Grade::error);
    CHECK(std::stod(out.args[1].second) == Approx(25).margin(0.7));
    press("remedy");
    CHECK_FALSE(has(session().derived()->findings, "sheet.outside"));
}

TEST_CASE_METHOD(OnSheets, "stock, mat and machine from the catalog, sheets added and removed") {
    choose("machine", "One-holder");
    CHECK(project().machine == "one-slot");
    CHECK(session().derived()->plan->totals.stops > 7);
    choose("stock", "white card A4");
    CHECK(has(session().derived()->findings, "sheet.outside")); // two of them do not fit an A4
    choose("mat", "light");
    CHECK(project().sheets.front().mat == "mat-12x12-light");
    press("add-sheet");
    CHECK(project().sheets.size() == 3);
    press("place-part");
    CHECK(project().sheets.back().placements.size() == 1);
}

TEST_CASE("the board: hover tells, click goes there, dragging scrubs, a block dragged changes the order and "
          "says what follows") {
    Driver d;
    auto* map = d.window->findChild<app::BoardMap*>();
    REQUIRE(map);
    const auto layout = [&] {
        return present::BoardLayout({d.session().derived().get(), &d.session().catalog(), {}, {}, {}, {}},
                                    QRectF(map->rect()).adjusted(14, 0, -14, -2));
    };
    const Plan plan = *d.session().derived()->plan;
    std::size_t cut = 0, foil = 0;
    for (std::size_t m = plan.program.moves.size(); m-- > 0;)
        if (const auto* pass = std::get_if<PassMove>(&plan.program.moves[m]))
            (pass->action == Action::cut ? cut : pass->action == Action::foil ? foil : m) = m;
    QTest::mouseClick(map, Qt::LeftButton, {}, layout().block(plan, foil).center().toPoint());
    d.settle();
    CHECK(d.window->work().view() == View::rehearsal);
    CHECK(in_seconds(d.window->work().rehearsal().time()) ==
          Approx(in_seconds(plan.timeline.spans()[foil].start)));
    // Along the axis of the map.
    const auto l = layout();
    d.drag(map, QPointF(l.x(seconds(100)), l.plot.top() - 16).toPoint(),
           QPointF(l.x(seconds(600)), l.plot.top() - 16).toPoint());
    CHECK(in_seconds(d.window->work().rehearsal().time()) == Approx(600).margin(3));
    // Cut before everything: allowed, and its risk is said.
    d.drag(map, layout().block(plan, cut).center().toPoint(),
           QPointF(l.plot.left() + 2, layout().block(plan, cut).center().y()).toPoint());
    REQUIRE(d.project().pass_order.size() == 4);
    CHECK(d.project().pass_order.front() == std::get<PassMove>(plan.program.moves[cut]).lane);
    CHECK(has(d.session().derived()->findings, "order.after-cut"));
    CHECK(d.window->notice_text().contains("C was moved"));
    CHECK(d.window->notice_text().contains("may shift"));
    d.trigger("usual-order");
    CHECK_FALSE(has(d.session().derived()->findings, "order.after-cut"));
}

TEST_CASE("the board's heads open their lane, the keyboard walks the map") {
    Driver d;
    auto* map = d.window->findChild<app::BoardMap*>();
    const present::BoardLayout layout({d.session().derived().get(), &d.session().catalog(), {}, {}, {}, {}},
                                      QRectF(map->rect()).adjusted(14, 0, -14, -2));
    QTest::mouseClick(map, Qt::LeftButton, {}, QPoint(24, static_cast<int>(layout.tracks[0].y)));
    d.settle();
    CHECK(d.shown("lane-action"));
    d.press("lanes-done");
    map->setFocus();
    for (int i = 0; i < 3; ++i)
        QTest::keyClick(map, Qt::Key_Right);
    QTest::keyClick(map, Qt::Key_Return);
    d.settle();
    CHECK(in_seconds(d.window->work().rehearsal().time()) ==
          Approx(in_seconds(d.session().derived()->plan->timeline.spans()[2].start)));
}

TEST_CASE("the rehearsal plays, pauses, steps to stops, changes speed and ends at the end") {
    Driver d;
    d.window->work().show_view(View::rehearsal);
    d.settle();
    auto& r = d.window->work().rehearsal();
    CHECK(in_seconds(r.time()) == 0);
    d.choose("speed", "200");
    CHECK(r.speed() == 200);
    QTest::mouseClick(d.find<QPushButton>("play"), Qt::LeftButton);
    CHECK(r.playing());
    CHECK(QTest::qWaitFor([&] { return in_seconds(r.time()) > 10; }, 60000)); // however busy the machine is
    QTest::mouseClick(d.find<QPushButton>("play"), Qt::LeftButton);
    CHECK_FALSE(r.playing());
    const auto& plan = *d.session().derived()->plan;
    r.seek({});
    std::vector<double> stops;
    for (int i = 0; i < plan.totals.stops; ++i) {
        d.press("next-stop");
        stops.push_back(in_seconds(r.time()));
    }
    CHECK(std::is_sorted(stops.begin(), stops.end()));
    CHECK(stops.back() == Approx(in_seconds(plan.timeline.total()))); // behind the last stop is the end
    d.press("previous-stop");
    CHECK(in_seconds(r.time()) == Approx(stops[stops.size() - 2]));
    r.setFocus();
    d.key(Qt::Key_Home);
    d.key(Qt::Key_Right);
    CHECK(in_seconds(r.time()) == Approx(2));
    r.seek(plan.timeline.total());
    d.key(Qt::Key_Space); // from the end it begins again
    CHECK(r.playing());
    d.key(Qt::Key_1, Qt::ControlModifier);
    CHECK_FALSE(r.playing()); // leaving the view stops it
}

TEST_CASE("the rehearsal's ink is where the strokes are, and as wide as the tip") {
    Driver d;
    d.window->work().show_view(View::rehearsal);
    auto& r = d.window->work().rehearsal();
    r.show_travel(false);
    r.seek({});
    d.settle();
    const QImage empty = r.grab().toImage();
    r.seek(r.total());
    d.settle();
    r.previous_stop();
    r.previous_stop();
    d.settle();
    const auto& plan = *d.session().derived()->plan;
    const MachineState state = r.state();
    // Before the last stop but one all of the sheet's marking is done: every stroke's middle has changed its
    // colour.
    r.seek(plan.timeline.spans()[state.move].start - seconds(0.01));
    d.settle();
    const QImage inked = r.grab().toImage();
    int strokes = 0, changed = 0;
    for (std::size_t m = 0; m < state.move; ++m)
        if (const auto* pass = std::get_if<PassMove>(&plan.program.moves[m]);
            pass && pass->sheet == r.state().sheet && pass->action == Action::draw)
            for (const Polyline& s : pass->strokes) {
                const QPoint p = r.view().map(s.points[s.points.size() / 2]).toPoint();
                ++strokes;
                bool near = false;
                for (int dx = -1; dx <= 1; ++dx)
                    for (int dy = -1; dy <= 1; ++dy)
                        near |= inked.pixel(p + QPoint(dx, dy)) != empty.pixel(p + QPoint(dx, dy));
                changed += near;
            }
    CHECK(strokes > 50);
    CHECK(changed == strokes);
}

TEST_CASE("the rehearsal shows what came out of the printer below what is run") {
    Driver d(false);
    Bench b = bench("<rect x='40' y='40' width='60' height='40' fill='#a8462d'/>"
                    "<rect x='30' y='30' width='80' height='60' fill='none' stroke='#22282c'/>",
                    200, 200);
    Lane printed;
    printed.action = Action::print, printed.tool = "desk-printer", printed.name = "printer";
    must(gather(b.project, b.part, {b.lines()[1]}, "art"));
    must(assign(b.project, b.part, {b.lines()[1]}, b.project.lanes[0].id));
    must(assign(b.project, b.part, {b.lines()[0]}, add_lane(b.project, printed)));
    d.window->files().start_project(b.project, {});
    d.window->work().show_view(View::rehearsal);
    d.settle();
    auto& r = d.window->work().rehearsal();
    r.show_travel(false);
    const auto& spans = d.session().derived()->plan->timeline.spans();
    r.seek(spans.back().start - seconds(0.01)); // before the sheet comes out
    d.settle();
    const QImage seen = r.grab().toImage();
    const QColor art = seen.pixelColor(r.view().map(Point{50, 40}).toPoint()),
                 bare = seen.pixelColor(r.view().map(Point{85, 40}).toPoint());
    CHECK(art.hue() == Approx(QColor("#a8462d").hue()).margin(12));
    CHECK(art.saturation() > bare.saturation() + 60);
}

TEST_CASE("why this order is opened at its heading, and stays there when shorter routes come") {
    Driver d(false);
    d.window->files().open_demo();
    d.settle();
    d.trigger("why");
    const auto heading = [&]() -> QLabel* {
        for (auto* label : d.window->findChildren<QLabel*>())
            if (label->isVisible() && label->text() == "Why this order") return label;
        return nullptr;
    };
    REQUIRE(heading());
    CHECK_FALSE(heading()->visibleRegion().isEmpty());
    const int y = heading()->mapTo(d.window.get(), QPoint()).y();
    const auto before = d.session().derived()->plan;
    d.window->settle_plan();
    for (int i = 0; i < 200 && d.session().derived()->plan == before;
         ++i) { // 1.5 s of quiet, and the looking
        QTest::qWait(50);
        d.window->settle_plan();
    }
    CHECK(d.session().derived()->plan != before);
    REQUIRE(heading());
    CHECK(heading()->mapTo(d.window.get(), QPoint()).y() == Approx(y).margin(3));
    int stops = 0; // each has its reason
    for (auto* label : d.window->findChildren<QLabel*>())
        stops += label->text().startsWith("At stop ") && label->isVisible() ? 1 : 0;
    CHECK(stops == d.session().derived()->plan->totals.stops);
}

TEST_CASE(
    "a press on what the rehearsal has run leads to its part and line, or to the fill that it belongs to") {
    Driver d;
    d.window->work().show_view(View::rehearsal);
    auto& r = d.window->work().rehearsal();
    const auto& plan = *d.session().derived()->plan;
    bool line = false, fill = false;
    for (std::size_t m = 0; m < plan.program.moves.size(); ++m) {
        const auto* pass = std::get_if<PassMove>(&plan.program.moves[m]);
        if (!pass) continue;
        const Stroke& stroke = pass->strokes.back();
        bool& seen = stroke.of.line ? line : fill;
        if (std::exchange(seen, true)) continue;
        d.session().choose({});
        d.window->work().show_view(View::rehearsal);
        const MoveSpan span = plan.timeline.spans()[m];
        r.seek(span.start + span.time / 2);
        CHECK(r.doing().contains(" of Invitation"));
        r.seek(span.start + span.time - seconds(1e-3));
        d.settle();
        QTest::mouseClick(&r, Qt::LeftButton, {},
                          r.view().map(stroke.points[stroke.points.size() / 2]).toPoint());
        CHECK(d.window->work().view() == View::part);
        CHECK(d.session().choice().part == stroke.of.part);
        if (stroke.of.line)
            CHECK(d.session().choice().lines == std::set<LineId>{stroke.of.line});
        else
            CHECK(d.session().choice().step == stroke.of.step);
    }
    CHECK(line);
    CHECK(fill);
    d.window->work().show_view(View::rehearsal);
    QTest::mouseClick(&r, Qt::LeftButton, {}, QPoint(4, 4)); // beside the mat: nothing happens
    CHECK(d.window->work().view() == View::rehearsal);
}

TEST_CASE("the run tells step by step at each stop what can hurt") {
    Driver d;
    d.window->work().show_view(View::rehearsal);
    d.settle();
    QStringList wanted, told;
    for (const Move& move : d.session().derived()->plan->program.moves)
        if (const auto* stop = std::get_if<StopMove>(&move))
            for (const HandStep& step : stop->steps)
                if (step.kind == HandStep::Kind::care) wanted << present::words(step.text);
    for (const QLabel* label : d.window->findChildren<QLabel*>())
        if (label->property("care").toBool()) told << label->text();
    CHECK(wanted.size() >= 2);
    wanted.sort();
    told.sort();
    CHECK((told == wanted));
}
