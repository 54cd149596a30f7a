// The project's file when others write to it, and copies of unsaved work: what is told, asked and kept.
#include <QElapsedTimer>
#include <fstream>
#include <sys/stat.h>

#include "app/commands/recovery.h"
#include "core/project/format.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;
using Changed = app::Dialogs::ChangedOnDisk;

namespace {

struct Saved : Driver {
    std::string path = folder / "walk.dotlane";
    Saved() {
        answers.save = QString::fromStdString(path);
        trigger("save");
        answers.asked = 0;
    }
    /// What another program does: reads, changes, replaces.
    void written_by_another(const char* name) {
        Project p = must(load_project(disk(), path));
        p.parts.front().name = name;
        must(save_project(disk(), path, p));
    }
    std::string on_disk() { return must(load_project(disk(), path)).parts.front().name; }
    bool waits_for(const char* words) {
        QElapsedTimer timer;
        for (timer.start(); timer.elapsed() < 10'000 && !notice_says(words);)
            QTest::qWait(20);
        return notice_says(words);
    }
    unsigned mode_of(const std::string& file) {
        struct stat info {};
        CHECK(::stat(file.c_str(), &info) == 0);
        return info.st_mode & 0777;
    }
};

} // namespace

TEST_CASE_METHOD(Saved, "another program's change is noticed and can be taken in, and undone") {
    type("quantity", "24");
    written_by_another("Theirs");
    REQUIRE(waits_for("changed by another program"));
    CHECK(project().parts.front().name != "Theirs");
    press_words("Take that in");
    CHECK(project().parts.front().name == "Theirs");
    CHECK_FALSE(window->isWindowModified());
    trigger("undo"); // mine is not lost
    CHECK(session().part()->quantity == 24);
    CHECK(window->isWindowModified());
    trigger("save"); // what was taken in is known: nothing is asked
    CHECK(answers.asked == 0);
    CHECK(on_disk() != "Theirs");
}

TEST_CASE_METHOD(Saved, "saving over another program's change asks first, each answer does what it says") {
    type("quantity", "24");
    written_by_another("Theirs");
    answers.changed_answer = Changed::cancel;
    trigger("save");
    CHECK(answers.asked == 1);
    CHECK(on_disk() == "Theirs");
    CHECK(window->isWindowModified());
    answers.changed_answer = Changed::other_name;
    answers.save = QString::fromStdString(folder / "mine.dotlane");
    trigger("save");
    CHECK(on_disk() == "Theirs");
    CHECK(must(load_project(disk(), folder / "mine.dotlane")) == project());
    CHECK(session().path() == *answers.save);
}

TEST_CASE_METHOD(Saved, "keeping mine replaces theirs, taking theirs replaces mine") {
    type("quantity", "24");
    written_by_another("Theirs");
    answers.changed_answer = Changed::keep_mine;
    trigger("save");
    CHECK(must(load_project(disk(), path)) == project());
    written_by_another("Theirs again");
    answers.changed_answer = Changed::take_theirs;
    trigger("save");
    CHECK(project().parts.front().name == "Theirs again");
    CHECK_FALSE(window->isWindowModified());
}

TEST_CASE_METHOD(Saved, "keep mine on the notice marks the project as not saved and is not asked again") {
    written_by_another("Theirs");
    REQUIRE(waits_for("changed by another program"));
    press_words("Keep mine");
    CHECK(window->isWindowModified());
    trigger("save");
    CHECK(answers.asked == 0);
    CHECK(on_disk() == project().parts.front().name);
}

TEST_CASE_METHOD(Saved, "a file that was only touched or taken away raises no question") {
    type("quantity", "24");
    const std::string bytes = file(path);
    must(disk().write_atomically(path, bytes)); // the same again: another time stamp, another inode
    QTest::qWait(500);
    CHECK_FALSE(notice_says("another program"));
    trigger("save");
    CHECK(answers.asked == 0);
    disk().remove(path);
    type("quantity", "25");
    trigger("save");
    CHECK(answers.asked == 0);
    CHECK(must(load_project(disk(), path)) == project());
}

TEST_CASE_METHOD(Saved, "a file that may only be read is not replaced") {
    REQUIRE(::chmod(path.c_str(), 0444) == 0);
    type("quantity", "24");
    trigger("save");
    CHECK(notice_says("may only be read"));
    CHECK(window->isWindowModified());
}

TEST_CASE_METHOD(
    Saved, "a second kill right after restoring loses nothing, and saving asks when the file is newer") {
    type("quantity", "24");
    window->files().recovery().flush();
    const std::string recovery = folder / "state/recovery";
    // The copy as a process that is gone would have left it.
    std::string copy, note;
    for (const std::string& name : disk().list(recovery))
        (name.ends_with(".json") ? note : copy) = file(recovery + "/" + name);
    must(disk().write_atomically(recovery + "/1-0.dotlane", copy));
    must(disk().write_atomically(recovery + "/1-0.json", note));
    written_by_another("Newer");
    const auto left = app::Recovery::left_behind(disk(), recovery);
    REQUIRE(left.size() == 1);
    CHECK(left[0].path == QString::fromStdString(path));

    app::MainWindow window_again(workshop, disk(), folder / "state2");
    // A window of its own state folder, into which the copy is laid.
    must(disk().make_folder(folder / "state2/recovery"));
    must(disk().write_atomically(folder / "state2/recovery/1-0.dotlane", copy));
    must(disk().write_atomically(folder / "state2/recovery/1-0.json", note));
    window_again.show();
    window_again.settle();
    auto* restore = window_again.findChild<QPushButton*>("restore");
    REQUIRE(restore);
    QTest::mouseClick(restore, Qt::LeftButton);
    // At every moment from here on a copy stands: the old one until the new one is whole.
    CHECK(disk().list(folder / "state2/recovery").size() >= 2);
    window_again.settle();
    window_again.files().recovery().flush();
    QTest::qWait(50);
    const auto names = disk().list(folder / "state2/recovery");
    CHECK(names.size() == 2);
    CHECK(std::find(names.begin(), names.end(), "1-0.dotlane") == names.end());
    for (const std::string& name : names)
        CHECK(mode_of(folder / "state2/recovery/" + name) == 0600);
    CHECK(mode_of(folder / "state2/recovery") == 0700);
    CHECK(window_again.session().part()->quantity == 24);
    CHECK(window_again.notice_text().contains("saving will ask"));
    answers.asked = 0;
    answers.changed_answer = Changed::cancel;
    window_again.findChild<QAction*>("save")->trigger();
    CHECK(answers.asked == 1);
    CHECK(on_disk() == "Newer");
    answers.unsaved_answer = app::Dialogs::Unsaved::discard;
    window_again.close();
    CHECK(disk().list(folder / "state2/recovery").empty()); // thrown away on purpose
}

TEST_CASE("a path is kept from the root on, wherever the program is started the second time") {
    Driver d;
    const std::string here = std::filesystem::current_path().string();
    std::filesystem::current_path(d.folder.path);
    d.answers.save = QStringLiteral("relative.dotlane");
    d.trigger("save");
    std::filesystem::current_path(here);
    CHECK(d.session().path() == QString::fromStdString(d.folder / "relative.dotlane"));
    d.type("quantity", "24");
    d.window->files().recovery().flush();
    const std::string recovery = d.folder / "state/recovery";
    for (const std::string& name : disk().list(recovery))
        if (name.ends_with(".json"))
            CHECK(file(recovery + "/" + name).find(d.folder.path) != std::string::npos);
    d.trigger("save");
    CHECK(must(load_project(disk(), d.folder / "relative.dotlane")) == d.project());
}

TEST_CASE("a folder that no copy can be written to is told once") {
    Driver d(false);
    std::ofstream(d.folder / "state") << "a file stands where the folder should";
    app::MainWindow window(d.workshop, disk(), d.folder / "state");
    window.show();
    window.files().start_project(
        must(load_project(disk(), DOTLANE_SOURCE "/tests/support/invitation.dotlane")), {});
    window.settle();
    int told = 0;
    QObject::connect(&window.files().recovery(), &app::Recovery::failed, [&] { ++told; });
    for (const int n : {24, 25, 26}) {
        window.session().change("n", [&](Project& p) { return set_quantity(p, p.parts.front().id, n); });
        window.files().recovery().flush();
        QTest::qWait(20);
    }
    CHECK(told == 1);
    CHECK(window.notice_text().contains("No copy of unsaved work"));
    d.answers.unsaved_answer = app::Dialogs::Unsaved::discard;
    window.close();
}
