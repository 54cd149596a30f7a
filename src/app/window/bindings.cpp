// What does each action.
#include <QMenu>
#include <QMenuBar>
#include <QSettings>

#include "app/bench/canvas.h"
#include "app/bench/part_view.h"
#include "app/bench/rehearsal_view.h"
#include "app/sheets/sheet_panel.h"
#include "app/widgets/notice.h"
#include "app/window/actions.h"
#include "app/window/exporter.h"
#include "app/window/line_actions.h"
#include "app/window/main_window.h"
#include "app/window/palette.h"
#include "app/window/part_actions.h"
#include "app/window/project_files.h"
#include "app/window/style.h"
#include "core/commands/making.h"
#include "core/commands/project.h"
#include "core/commands/sheets.h"
#include "dotlane_config.h"

namespace dotlane::app {

using View = WorkPage::View;

void MainWindow::fill_menus() {
    actions_ = new Actions(this);
    palette_ = new CommandPalette(*actions_, this);
    bind_files();
    bind_lines();
    bind_sheets();
    bind_views();
    actions_->check_all_bound();
    actions_->fill(menuBar());
    QMenu* project = menuBar()->actions().front()->menu();
    auto* recent = new QMenu(tr("Open &recent"), project);
    project->insertMenu(actions_->find("open-drawing"), recent);
    connect(recent, &QMenu::aboutToShow, this, [this, recent] {
        recent->clear();
        for (const QString& path : files_->recent())
            connect(recent->addAction(path), &QAction::triggered, this,
                    [this, path] { files_->open_path(path); });
        if (recent->isEmpty()) recent->addAction(tr("None yet"))->setEnabled(false);
    });
    connect(&session_, &Session::projectChanged, this, &MainWindow::follow_situation);
    connect(&session_, &Session::choiceChanged, this, &MainWindow::follow_situation);
    connect(work_, &WorkPage::shown, this, &MainWindow::follow_situation);
    connect(&session_.history(), &QUndoStack::indexChanged, this, &MainWindow::follow_situation);
    follow_situation();
}

void MainWindow::follow_situation() {
    const QUndoStack& history = session_.history();
    Situation now;
    now.project = session_.is_open();
    now.part = session_.part() != nullptr;
    now.lines = now.part && !session_.choice().lines.empty();
    // What is not seen is not turned or taken off by a key.
    now.placed = work_->view() == View::sheets && !session_.chosen_placements().empty();
    now.undo = history.canUndo();
    now.redo = history.canRedo();
    actions_->set_situation(now);
    const auto tell = [this](const char* id, const QString& words, const QString& what) {
        actions_->find(id)->setText(what.isEmpty() ? words : words + " " + what);
    };
    tell("undo", tr("&Undo"), history.undoText());
    tell("redo", tr("&Redo"), history.redoText());
}

void MainWindow::bind_files() {
    const auto bind = [this](const char* id, auto&& run) { actions_->bind(id, [run](bool) { run(); }); };
    bind("new", [this] { files_->new_project(); });
    bind("open", [this] { files_->ask_to_open_project(); });
    bind("open-drawing", [this] { files_->ask_to_open_drawing(); });
    bind("demo", [this] { files_->open_demo(); });
    bind("save", [this] { files_->save(); });
    bind("save-as", [this] { files_->save_as(); });
    bind("close", [this] { files_->close_project(); });
    bind("quit", [this] { close(); });
    bind("export", [this] { exporter_->export_to({}, false); });
    bind("inches", [this] {
        ChangeProject change;
        change.unit = session_.project().unit == LengthUnit::mm ? LengthUnit::inch : LengthUnit::mm;
        session_.run(tr("Unit"), change);
    });
    bind("undo", [this] { session_.history().undo(); });
    bind("redo", [this] { session_.history().redo(); });
    bind("find-command", [this] { palette_->open(); });
}

void MainWindow::bind_lines() {
    const auto bind = [this](const QString& id, auto&& run) { actions_->bind(id, [run](bool) { run(); }); };
    bind("choose-all", [this] {
        if (work_->view() == View::sheets)
            work_->sheet_panel().arrange().choose_all();
        else
            lines_->choose_all();
    });
    bind("same-colour", [this] { lines_->choose_same_colour(); });
    bind("inside", [this] { lines_->choose_inside(); });
    bind("jobs", [this] { show_jobs(); });
    for (const SourceKind& kind : source_kinds())
        bind(QString("make-") + kind.key, [this, key = kind.key] { Q_EMIT work_->make_wanted(key); });
    bind("add-step", [this] { work_->show_steps(); });
    for (const StepKind& kind : step_kinds())
        if (!kind.inks) bind(QString("step-") + kind.key, [this, key = kind.key] { lines_->add_step(key); });
    bind("fill", [this] { lines_->fill({}); });
    bind("tone", [this] { parts_->tone(this); });
    bind("crosses", [this] {
        parts_->add_crosses();
        work_->show_view(WorkPage::View::sheets);
    });
    bind("samples", [this] { Q_EMIT work_->samples_wanted(); });
    bind("drop-empty-lanes", [this] { session_.run(tr("Remove empty lanes"), RemoveEmptyLanes{}); });
    bind("aside", [this] { lines_->set_chosen_aside(); });
    bind("copy-part", [this] { parts_->copy(); });
    bind("remove-part", [this] { parts_->remove(); });
    for (const Action action : all_actions)
        bind(action_name(action), [this, action] { lines_->send_to_action(action); });
}

void MainWindow::bind_sheets() {
    const auto bind = [this](const char* id, auto run) {
        actions_->bind(id, [this, run](bool) { run(work_->sheet_panel()); });
    };
    bind("add-sheet", [this](SheetPanel& panel) {
        work_->show_view(View::sheets);
        panel.add_sheet();
    });
    bind("place", [this](SheetPanel& panel) {
        work_->show_view(View::sheets);
        panel.place_part();
    });
    bind("quarter", [](SheetPanel& panel) { panel.arrange().turn(degrees(90)); });
    bind("mirror", [](SheetPanel& panel) { panel.arrange().mirror(); });
    bind("duplicate", [](SheetPanel& panel) { panel.duplicate(); });
    bind("group", [](SheetPanel& panel) { panel.arrange().group(); });
    bind("ungroup", [](SheetPanel& panel) { panel.arrange().ungroup(); });
    bind("take-off", [](SheetPanel& panel) { panel.remove_placed(); });
    bind("clear-sheet", [this](SheetPanel&) {
        work_->show_view(View::sheets);
        session_.run(tr("Clear the sheet"), ClearSheet{session_.choice().sheet});
    });
}

void MainWindow::bind_views() {
    const auto bind = [this](const char* id, auto&& run) { actions_->bind(id, [run](bool) { run(); }); };
    bind("view-part", [this] { work_->show_view(View::part); });
    bind("view-sheets", [this] { work_->show_view(View::sheets); });
    bind("view-rehearsal", [this] { work_->show_view(View::rehearsal); });
    bind("view-findings", [this] { work_->show_findings(); });
    bind("glyph-table", [this] { work_->show_glyphs(); });
    bind("lanes", [this] {
        const auto& lanes = session_.project().lanes;
        work_->show_lanes(lanes.empty() ? LaneId{} : lanes.front().id);
    });
    bind("play", [this] {
        work_->show_view(View::rehearsal);
        work_->rehearsal().toggle();
    });
    bind("next-stop", [this] {
        work_->show_view(View::rehearsal);
        work_->rehearsal().next_stop();
    });
    bind("why", [this] { work_->show_why(); });
    bind("wishes", [this] { work_->show_wishes(); });
    bind("usual-order", [this] { session_.run(tr("Usual order of passes"), in_order({})); });
    bind("zoom-in", [this] { work_->canvas()->zoom_in(); });
    bind("zoom-out", [this] { work_->canvas()->zoom_out(); });
    bind("fit", [this] { work_->canvas()->fit(); });
    bind("keys", [this] { work_->show_help(*actions_); });
    bind("about", [this] {
        work_->notice().tell(Notice::Kind::news,
                             tr("Dot Lane %1. Free software under the GNU General Public License, "
                                "version 3 or later, without any warranty.")
                                 .arg(DOTLANE_VERSION));
    });
    actions_->bind("dark", [](bool on) {
        QSettings().setValue("dark", on);
        apply_style(on);
    });
    actions_->find("dark")->setChecked(present::Theme::current().dark);
    actions_->bind("heat", [this](bool on) {
        work_->show_view(View::part);
        work_->part_view().show_heat(on);
    });
    actions_->bind("full-screen", [this](bool on) { on ? showFullScreen() : showNormal(); });
}

} // namespace dotlane::app
