// Project files in the window: the guard, saving, recent files, recovery after a kill.
#include <csignal>
#include <sys/wait.h>
#include <unistd.h>

#include "app/commands/recovery.h"
#include "core/project/format.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;
using Unsaved = app::Dialogs::Unsaved;

TEST_CASE("saving, the unsaved mark, opening again, recent files") {
    Driver d;
    const QString path = QString::fromStdString(d.folder / "walk.dotlane");
    d.answers.save = path;
    d.trigger("save"); // the demo has no file of its own: it asks
    CHECK(d.answers.asked == 1);
    CHECK(must(load_project(disk(), path.toStdString())) == d.project());
    CHECK_FALSE(d.window->isWindowModified());
    d.type("quantity", "24");
    CHECK(d.window->isWindowModified());
    d.trigger("undo");
    CHECK_FALSE(d.window->isWindowModified()); // undone to what is saved
    d.trigger("redo");
    d.trigger("save");
    CHECK(d.answers.asked == 1);
    const Project saved = d.project();
    d.trigger("close");
    CHECK(d.shown("recent"));
    d.press("recent");
    CHECK(d.project() == saved);
}

TEST_CASE("nothing unsaved is lost by closing, opening or quitting") {
    Driver d;
    d.answers.save = QString::fromStdString(d.folder / "a.dotlane");
    d.trigger("save");
    d.type("quantity", "24");
    const Project mine = d.project();
    d.answers.unsaved_answer = Unsaved::cancel;
    for (const char* leave : {"new", "close", "demo"}) {
        d.trigger(leave);
        CHECK(d.project() == mine);
    }
    CHECK_FALSE(d.window->close());
    CHECK(d.window->isVisible());
    d.answers.unsaved_answer = Unsaved::save;
    d.trigger("new");
    CHECK(must(load_project(disk(), d.folder / "a.dotlane")) == mine);
    CHECK(d.project().parts.empty());
    CHECK(d.window->close());
}

TEST_CASE("a save that fails says so and keeps the changes") {
    Driver d;
    d.type("quantity", "24");
    d.answers.save = QString::fromStdString(d.folder / "no/such/folder/a.dotlane");
    d.trigger("save");
    CHECK(d.window->notice_text().contains("could not be"));
    CHECK(d.window->isWindowModified());
    CHECK(d.session().part()->quantity == 24);
}

TEST_CASE("undo and redo of a long random session end where they began") {
    Driver d;
    Random random("undo");
    const Project start = d.project();
    std::vector<Project> versions{start};
    for (int i = 0; i < 40; ++i) {
        const int what = random.whole(0, 5);
        d.session().change("step", [&](Project& p) -> Result<void> {
            const Part& part = p.parts.front();
            const auto line = part.source.drawing->lines[static_cast<std::size_t>(random.whole(0, 6))].id;
            const LaneId lane =
                p.lanes[static_cast<std::size_t>(random.whole(0, static_cast<int>(p.lanes.size()) - 1))].id;
            switch (what) {
            case 0:
                return assign(p, part.id, {line}, lane);
            case 1:
                return scale_part(p, part.id, random.real(0.3, 1));
            case 2:
                return change_sheet(p, p.sheets[0].id, "s" + std::to_string(i), p.sheets[0].stock,
                                    p.sheets[0].mat);
            case 3:
                add_lane(p, {{}, Action::draw, "pen", "pen-0.4", {1, 2, 3}, 1});
                return {};
            case 4:
                return place(p, p.sheets[0].id, {{}, part.id, mm(i), mm(5), {}, false}).map([](PlacementId) {
                });
            default:
                return set_pass_order(p, {lane});
            }
        });
        if (!(d.project() == versions.back())) versions.push_back(d.project());
    }
    INFO("seed " << random.seed());
    for (std::size_t i = versions.size() - 1; i-- > 0;) {
        d.session().history().undo();
        CHECK(d.project() == versions[i]);
    }
    CHECK(d.project() == start);
    for (std::size_t i = 1; i < versions.size(); ++i)
        d.session().history().redo();
    CHECK(d.project() == versions.back());
    d.settle();
    CHECK(*d.session().derived()->project == d.project()); // what is derived has caught up
}

TEST_CASE("a recovery copy is kept while there are unsaved changes and no longer") {
    Driver d;
    const std::string folder = d.folder / "state/recovery";
    d.type("quantity", "24");
    d.window->files().recovery().flush();
    CHECK(disk().list(folder).size() == 2);
    CHECK(app::Recovery::left_behind(disk(), folder).empty()); // its process still lives
    d.answers.save = QString::fromStdString(d.folder / "a.dotlane");
    d.trigger("save");
    CHECK(disk().list(folder).empty());
}

// Not a test of its own: what the next one starts in another process and kills.
TEST_CASE("edits until it is killed", "[.]") {
    Workshop workshop(catalog());
    app::MainWindow window(workshop, disk(), std::string(std::getenv("XDG_STATE_HOME")) + "/dot-lane");
    window.show();
    window.files().open_demo();
    window.settle();
    window.session().change("edit",
                            [&](Project& p) { return set_quantity(p, window.session().choice().part, 24); });
    QApplication::exec();
}

TEST_CASE("kill -9 in the middle of editing: the copy is offered and brings the work back") {
    TemporaryFolder folder;
    // A window in a process of its own, with unsaved changes.
    const std::string state = folder / "state";
    int ready[2];
    REQUIRE(::pipe(ready) == 0);
    const pid_t child = ::fork();
    if (child == 0) {
        ::setenv("XDG_STATE_HOME", state.c_str(), 1);
        ::setenv("QT_QPA_PLATFORM", "offscreen", 1);
        ::setenv("DOTLANE_DATA", DOTLANE_SOURCE "/data", 1);
        ::execl("/proc/self/exe", "gui", "edits until it is killed", static_cast<char*>(nullptr));
        ::_exit(127);
    }
    ::close(ready[0]), ::close(ready[1]);
    const std::string recovery = state + "/dot-lane/recovery";
    QElapsedTimer timer;
    timer.start();
    const auto copied = [&] {
        for (const std::string& name : disk().list(recovery))
            if (name.ends_with(".json")) return true;
        return false;
    };
    while (!copied() && timer.elapsed() < 180000)
        QTest::qWait(50);
    ::kill(child, SIGKILL);
    siginfo_t ended;
    REQUIRE(::waitid(P_PID, static_cast<id_t>(child), &ended, WEXITED | WNOWAIT) == 0);
    // It has ended, though nobody has waited for it: what starts it may never do so.
    CHECK(app::Recovery::left_behind(disk(), recovery).size() == 1);
    int status = 0;
    ::waitpid(child, &status, 0);
    CHECK(WIFSIGNALED(status));
    const auto left = app::Recovery::left_behind(disk(), recovery);
    REQUIRE(left.size() == 1);
    CHECK(left[0].name == "Saltmarsh Lantern Walk");

    Answers answers;
    app::set_dialogs(&answers);
    Workshop workshop(catalog());
    {
        app::MainWindow window(workshop, disk(), state + "/dot-lane");
        window.show();
        window.settle();
        auto* restore = window.findChild<QPushButton*>("restore");
        REQUIRE(restore);
        QTest::mouseClick(restore, Qt::LeftButton);
        window.settle();
        REQUIRE(window.session().part());
        CHECK(window.session().part()->quantity == 24);
        CHECK(window.isWindowModified()); // it still differs from any file
        CHECK(app::Recovery::left_behind(disk(), recovery).empty());
    }
    app::set_dialogs(nullptr);
}

TEST_CASE("a recovery copy that is damaged is told, not lost silently") {
    Driver d(false);
    const std::string folder = d.folder / "state/recovery";
    must(disk().make_folder(folder));
    must(disk().write_atomically(folder + "/1-0.dotlane", "{ damaged"));
    must(disk().write_atomically(folder + "/1-0.json",
                                 R"({"name": "Old walk", "path": "", "saved_at": "2026-01-02T03:04:05"})"));
    const auto left = app::Recovery::left_behind(disk(), folder);
    REQUIRE(left.size() == 1);
    CHECK_FALSE(app::Recovery::read(disk(), left[0]));
    CHECK(disk().exists(folder + "/1-0.dotlane"));
}
