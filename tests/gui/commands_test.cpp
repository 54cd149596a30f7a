// Every command, in every state that the window can be in: nothing breaks, and what it did can be taken back.
#include <QLabel>
#include <QListWidget>
#include <QMenuBar>

#include "app/window/actions.h"
#include "core/project/edits.h"
#include "tests/gui/driver.h"

using namespace dotlane;
using namespace dotlane::test;
using View = app::WorkPage::View;

namespace {

struct Commander : Driver {
    explicit Commander(bool demo)
        : Driver(demo) {
        answers.unsaved_answer = app::Dialogs::Unsaved::discard;
    }
    /// All but those that end the window or leave the project.
    std::vector<QAction*> commands() {
        static const std::set<QString> leave{"quit", "close", "new",         "open", "demo",
                                             "undo", "redo",  "full-screen", "dark"};
        std::vector<QAction*> out;
        for (const app::Actions::One& one : window->actions()->all())
            if (!leave.contains(one.entry.id)) out.push_back(one.action);
        return out;
    }
    void whole() {
        REQUIRE(window->isVisible());
        if (session().is_open()) must(check_rules(project()));
    }
};

} // namespace

TEST_CASE("every command can be given with nothing open, an empty project, nothing chosen, and all chosen") {
    Random random("every command");
    INFO("seed " << random.seed());
    for (const int state : {0, 1, 2, 3}) {
        Commander d(state >= 2);
        if (state == 1) d.window->files().start_project(d.workshop.new_project("empty"), {});
        const View views[] = {View::part, View::sheets, View::rehearsal};
        for (const View view : {views[random.whole(0, 2)]}) {
            if (state > 0) d.window->work().show_view(view);
            d.settle();
            std::size_t given = 0;
            for (QAction* action : d.commands()) {
                // With a project each takes a moment: some of them at a time, others the next.
                if (state >= 2 && random.coin(0.9)) continue;
                INFO("state " << state << ", view " << static_cast<int>(view) << ", "
                              << action->objectName().toStdString());
                if (state == 3) d.trigger("choose-all");
                const auto before = d.session().is_open() ? d.project() : Project{};
                const int steps = d.session().history().index();
                action->trigger();
                d.settle();
                d.whole();
                ++given;
                // Taken back, the project is what it was.
                if (state >= 2 && d.session().history().index() > steps) {
                    while (d.session().history().index() > steps)
                        d.session().history().undo();
                    d.settle();
                    CHECK(d.project() == before);
                }
                if (QWidget* popup = QApplication::activePopupWidget()) popup->close();
            }
            CHECK(given > (state >= 2 ? 1 : 60));
        }
    }
}

TEST_CASE("random commands and clicks: the project keeps its rules, and undo and redo run the whole way") {
    Random random("commands");
    INFO("seed " << random.seed());
    Commander d(true);
    const Project begin = d.project();
    const auto all = d.commands();
    std::string story;
    for (int i = 0; i < 25; ++i) {
        if (random.coin(0.3)) {
            d.window->work().show_view(random.coin() ? View::part : View::sheets);
            d.settle();
        }
        if (random.coin(0.5)) {
            const QRect area = d.canvas()->rect();
            const QPoint at(random.whole(40, area.width() - 40), random.whole(110, area.height() - 40));
            QTest::mouseClick(d.canvas(), Qt::LeftButton,
                              random.coin() ? Qt::ControlModifier : Qt::NoModifier, at);
        }
        QAction* action = all[static_cast<std::size_t>(random.whole(0, static_cast<int>(all.size()) - 1))];
        story += action->objectName().toStdString() + "; ";
        INFO(story);
        action->trigger();
        d.settle();
        d.whole();
        if (QWidget* popup = QApplication::activePopupWidget()) popup->close();
    }
    INFO(story);
    const Project end = d.project();
    while (d.session().history().canUndo())
        d.session().history().undo();
    d.settle();
    CHECK(d.project() == begin);
    while (d.session().history().canRedo())
        d.session().history().redo();
    d.settle();
    CHECK(d.project() == end);
    must(check_rules(d.project()));
}

TEST_CASE("each action has its own name, words and keys, and is enabled when it can be used") {
    Commander d(true);
    std::set<QString> ids, words, keys;
    for (const app::ActionEntry& entry : app::action_entries()) {
        INFO(entry.id.toStdString());
        CHECK(ids.insert(entry.id).second);
        CHECK(words.insert(app::Actions::path(entry)).second);
        for (const QKeySequence& key : entry.keys) {
            CHECK_FALSE(key.isEmpty());
            CHECK(keys.insert(key.toString()).second);
        }
    }
    const auto enabled = [&](const char* id) { return d.window->actions()->find(id)->isEnabled(); };
    CHECK(enabled("add-step"));
    CHECK_FALSE(enabled("same-colour")); // no line is chosen
    CHECK_FALSE(enabled("undo"));
    CHECK_FALSE(enabled("quarter"));
    d.trigger("choose-all");
    CHECK(enabled("same-colour"));
    d.trigger("add-sheet");
    CHECK(enabled("undo"));
    CHECK(d.window->actions()->find("undo")->text().contains("sheet"));
    d.trigger("undo");
    CHECK(enabled("redo"));
    // What lies on a sheet is turned or taken off only where it is seen: Delete on the part's bench is not
    // for it.
    d.window->work().show_view(View::sheets);
    app::Choice choice = d.session().choice();
    choice.placement = d.project().sheets.front().placements.front().id;
    choice.sheet = d.project().sheets.front().id;
    d.session().choose(choice);
    CHECK(enabled("take-off"));
    d.window->work().show_view(View::part);
    CHECK_FALSE(enabled("take-off"));
    const Project before = d.project();
    d.key(Qt::Key_Delete);
    CHECK(d.project() == before);
    d.answers.unsaved_answer = app::Dialogs::Unsaved::discard;
    d.trigger("close");
    for (const char* id : {"save", "add-step", "undo", "export", "view-sheets"})
        CHECK_FALSE(enabled(id));
    for (const char* id : {"open", "make-label", "jobs"})
        CHECK(enabled(id));
}

TEST_CASE("menus, palette and the help of keys show the same actions") {
    Commander d(true);
    std::size_t in_menus = 0;
    for (const QAction* top : d.window->menuBar()->actions())
        for (const QAction* action : top->menu()->actions())
            in_menus += !action->isSeparator() && !action->menu();
    std::size_t wanted = 0, possible = 0;
    QStringList keys;
    for (const app::Actions::One& one : d.window->actions()->all()) {
        wanted += one.entry.in_menu;
        possible += one.action->isEnabled();
        for (const QKeySequence& key : one.entry.keys)
            keys << key.toString(QKeySequence::NativeText);
    }
    CHECK(in_menus == wanted);
    d.trigger("find-command");
    CHECK(static_cast<std::size_t>(d.find<QListWidget>("palette-list")->count()) == possible);
    QTest::keyClick(d.find<QLineEdit>("palette-field"), Qt::Key_Escape);
    d.trigger("keys");
    QString told;
    for (const QLabel* label : d.window->findChildren<QLabel*>())
        if (label->isVisible()) told += label->text() + "\n";
    for (const QString& key : keys) {
        INFO(key.toStdString());
        CHECK(told.contains(key));
    }
}
