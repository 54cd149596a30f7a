// Opening in the window: what lies far off, what lines cannot hold, and taking a drawing apart.
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

struct OpeningDriver : Driver {
    OpeningDriver() {
        must(disk().write_atomically(folder / "littered.svg", littered));
        window->files().open_path(QString::fromStdString(folder / "littered.svg"));
        settle();
    }
    const Part& last() { return window->session().project().parts.back(); }
};

} // namespace

TEST_CASE_METHOD(OpeningDriver,
                 "a stray is told while a file is opened, and left out or brought near with a press") {
    press_words("Leave out");
    press_words("Take it in");
    CHECK(last().source.drawing->lines.size() == 2);
    CHECK(bounds(*last().source.drawing).width() == Approx(140));
    window->files().open_path(QString::fromStdString(folder / "littered.svg"));
    settle();
    press_words("Bring near");
    press_words("Take it in");
    CHECK(last().source.drawing->lines.size() == 3);
    CHECK(bounds(*last().source.drawing).width() == Approx(140 + stray_gap_mm + 1.2));
    // Taken in as it is, it is still told there, with the same buttons.
    window->files().open_path(QString::fromStdString(folder / "littered.svg"));
    settle();
    press_words("Take it in");
    CHECK(bounds(*last().source.drawing).width() > 380);
    const auto picture = [&] { return find<QWidget>("place")->grab().toImage(); }; // of where it is
    picture(), QTest::qWait(500); // it is painted on another thread
    const QImage before = picture();
    for (const Lane& lane : std::vector<Lane>(project().lanes))
        REQUIRE(session().run(
            "Draw", ChangeLane{.lane = lane.id, .action = Action::draw, .colour = Colour{200, 30, 140}}));
    settle();
    for (int tries = 0; tries < 100 && picture() == before; ++tries)
        QTest::qWait(50);
    CHECK(picture() != before); // the finding is as it was, its lines are not
    press_words("Leave out");
    CHECK(last().source.drawing->lines.size() == 2);
    CHECK(window->session().project().parts.size() == 4);
}

TEST_CASE_METHOD(OpeningDriver, "what lines cannot hold is traced from what a renderer shows, with a press") {
    press_words("Trace what it shows"); // its size is known, so nothing is asked
    const auto* picture = std::get_if<Picture>(&last().source.spec);
    REQUIRE(picture);
    CHECK(in_mm(picture->width) == Approx(400));
    CHECK(window->session().evaluated()->source_box.width() > 130);
}

TEST_CASE_METHOD(OpeningDriver, "a drawing is taken apart from its card, by what can tell its lines apart") {
    press_words("Leave out");
    press_words("Take it in");
    auto* apart = find<QPushButton>("take-apart");
    Q_EMIT apart->menu()->aboutToShow();
    const auto choice = [&](const char* name) { return apart->menu()->findChild<QAction*>(name); };
    CHECK(choice("apart-by-group")->text() == "By group: 2 parts");
    CHECK_FALSE(choice("apart-by-name")->isEnabled());
    choice("apart-by-group")->trigger();
    settle();
    const auto& parts = window->session().project().parts;
    REQUIRE(parts.size() == 3);
    CHECK(parts[1].name == "Littered leaves");
    CHECK(parts[2].name == "Littered petals");
    trigger("undo");
    settle();
    CHECK(window->session().project().parts.size() == 2);
}
