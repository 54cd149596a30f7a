// How the window comes up: what is worked ahead, what is made later, what is shown first.
#include <QLineEdit>

#include "app/bench/part_view.h"
#include "app/lanes/lane_panel.h"
#include "app/sheets/sheet_panel.h"
#include "app/window/ahead.h"
#include "app/window/help_panel.h"
#include "app/window/start_page.h"
#include "core/project/edits.h"
#include "core/project/format.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

template<std::size_t n>
std::optional<app::Ahead> ahead_of(Workshop& workshop, const char* const (&words)[n]) {
    std::vector<std::string> kept(words, words + n);
    std::vector<char*> argv;
    for (std::string& word : kept)
        argv.push_back(word.data());
    return app::Ahead::of_arguments(workshop, static_cast<int>(n), argv.data());
}

} // namespace

TEST_CASE("the part is shown before the plan is ready") {
    Driver d(false);
    QStringList order;
    QObject::connect(&d.session(), &app::Session::drawnChanged, [&] { order << "drawn"; });
    QObject::connect(&d.session(), &app::Session::derivedChanged, [&] { order << "planned"; });
    d.window->files().open_demo();
    CHECK(d.session().drawing());
    d.settle();
    // First its part alone, then all parts and sheets; then the plan.
    CHECK(order == QStringList{"drawn", "drawn", "planned"});
    CHECK_FALSE(d.session().drawing());
    CHECK(d.session().drawn()->project == d.session().derived()->project);
    CHECK(d.session().evaluated());
    CHECK(d.session().derived()->plan);
    d.trigger("undo"); // nothing to undo: nothing happens
    CHECK(order.size() == 3);
    // And when nothing is asked for, one with shorter routes, of the same project; an edit goes on from
    // there.
    const auto first = d.session().derived();
    d.window->settle_plan();
    CHECK(order == QStringList{"drawn", "drawn", "planned", "planned"});
    const auto better = d.session().derived();
    CHECK(better->project == first->project);
    CHECK(better->plan->totals.travel < first->plan->totals.travel);
    CHECK(better->plan->totals.stops == first->plan->totals.stops);
    d.window->settle_plan(); // and not again
    CHECK(order.size() == 4);
}

TEST_CASE("a project opened before the window comes up is what it comes up with") {
    ::setenv("DOTLANE_DATA", DOTLANE_SOURCE "/data", 1);
    Workshop workshop(catalog());
    TemporaryFolder folder;
    app::MainWindow window(workshop, disk(), folder.path + "/state");
    window.files().open_demo();
    window.show();
    window.settle();
    CHECK(window.work().part_view().isVisible());
    CHECK_FALSE(window.findChild<app::StartPage*>());
    app::MainWindow other(workshop, disk(), folder.path + "/state");
    other.show();
    REQUIRE(other.findChild<app::StartPage*>());
    CHECK(other.findChild<app::StartPage*>()->isVisible());
}

TEST_CASE("panels are made when they are first shown, with what is there already") {
    Driver d;
    CHECK_FALSE(d.window->findChild<app::HelpPanel*>());
    CHECK_FALSE(d.window->findChild<app::LanePanel*>());
    CHECK_FALSE(d.window->findChild<app::SheetPanel*>());
    d.trigger("lanes");
    CHECK(d.window->findChild<app::LanePanel*>()->isVisible());
    CHECK(d.window->findChildren<app::LanePanel*>().size() == 1);
    d.trigger("lanes");
    CHECK(d.window->findChildren<app::LanePanel*>().size() == 1);
    d.window->work().show_view(app::WorkPage::View::sheets);
    CHECK(d.find<QComboBox>("stock")->count() > 0);
    CHECK_FALSE(d.find<QComboBox>("stock")->currentText().isEmpty());
}

TEST_CASE("the project of the command line is worked ahead, what is no project is left alone") {
    ::setenv("DOTLANE_DATA", DOTLANE_SOURCE "/data", 1);
    Workshop workshop(catalog());
    CHECK_FALSE(ahead_of(workshop, {"dot-lane"}));
    CHECK_FALSE(ahead_of(workshop, {"dot-lane", "heron.svg"}));
    CHECK(ahead_of(workshop, {"dot-lane", "/nowhere/at all.dotlane"})); // the window says what is wrong
    { CHECK(ahead_of(workshop, {"dot-lane", "--demo"})); }              // waited for at the end
    // The window that opens the same project finds its parts made: they are the workshop's own.
    const auto project = std::make_shared<Project>(must(load_project(disk(), app::demo_path())));
    const auto first = workshop.derive(project), second = workshop.derive(project);
    CHECK(first->parts == second->parts);
}

TEST_CASE("a name field takes what was typed, and only that") {
    Driver d;
    auto* name = d.find<QLineEdit>("part-name");
    const std::string before = d.project().parts.front().name;
    name->setFocus();
    name->clearFocus(); // no edit
    CHECK(d.session().history().count() == 0);
    name->setFocus();
    QTest::keyClick(name, Qt::Key_End);
    QTest::keyClicks(name, " two");
    // A new plan comes while it is typed: it is not overwritten.
    d.session().change("quantity", [](Project& p) { return set_quantity(p, p.parts.front().id, 7); });
    d.settle();
    CHECK(name->text().toStdString() == before + " two");
    QTest::keyClick(name, Qt::Key_Return);
    CHECK(d.project().parts.front().name == before + " two");
    d.trigger("undo");
    CHECK(d.project().parts.front().name == before);
    CHECK(name->text().toStdString() == before);
}
