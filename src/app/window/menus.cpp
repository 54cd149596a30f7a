// The menus: every command has a place here and, where it is used often, a key.
#include <QApplication>
#include <QContextMenuEvent>
#include <QLabel>
#include <QMenuBar>
#include <QSettings>

#include "app/bench/part_view.h"
#include "app/bench/rehearsal_view.h"
#include "app/bench/sheets_view.h"
#include "app/opening/opening_panel.h"
#include "app/sheets/sheet_panel.h"
#include "app/widgets/notice.h"
#include "app/widgets/plate_button.h"
#include "app/window/help_panel.h"
#include "app/window/main_window.h"
#include "app/window/style.h"
#include "core/commands/parts.h"
#include "core/commands/project.h"
#include "core/project/edits.h"
#include "core/workflow/making.h"
#include "dotlane_config.h"
#include "present/words.h"

namespace dotlane::app {

/// Their names only: what is in them comes with `wake`.
void MainWindow::build_menus() {
    for (const QString& title : {tr("&Project"), tr("&Edit"), tr("P&art"), tr("&Lane"), tr("&Sheet"),
                                 tr("&Run"), tr("&View"), tr("&Help")})
        menuBar()->addAction(title);
    saved_ = new QLabel(menuBar());
    saved_->setProperty("role", "quiet");
    saved_->setContentsMargins(0, 0, 16, 0);
    saved_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    menuBar()->setCornerWidget(saved_);
    saved_timer_.setInterval(30000);
    connect(&saved_timer_, &QTimer::timeout, this, &MainWindow::show_saved);
    saved_timer_.start();
}

void MainWindow::fill_menus() {
    std::vector<QMenu*> menus;
    for (QAction* action : menuBar()->actions()) {
        menus.push_back(new QMenu(menuBar()));
        action->setMenu(menus.back());
    }
    const auto add = [this](QMenu* menu, const char* id, const QString& text, const QKeySequence& key,
                            auto&& run) {
        QAction* action = menu->addAction(text);
        action->setObjectName(id);
        action->setShortcut(key);
        connect(action, &QAction::triggered, this, std::forward<decltype(run)>(run));
        return action;
    };
    QMenu* project = menus[0];
    add(project, "new", tr("&New"), QKeySequence::New, [this] { new_project(); });
    add(project, "open", tr("&Open project..."), QKeySequence::Open, [this] { open_file_dialog(true); });
    QMenu* recent = project->addMenu(tr("Open &recent"));
    connect(recent, &QMenu::aboutToShow, this, [this, recent] {
        recent->clear();
        for (const QString& path : recent_.list())
            connect(recent->addAction(path), &QAction::triggered, this, [this, path] { open_project(path); });
        if (recent->isEmpty()) recent->addAction(tr("None yet"))->setEnabled(false);
    });
    add(project, "open-drawing", tr("Open &drawing as part..."), QKeySequence("Ctrl+Shift+O"),
        [this] { open_file_dialog(false); });
    add(project, "demo", tr("Open the de&mo"), {}, [this] { open_demo(); });
    project->addSeparator();
    add(project, "save", tr("&Save"), QKeySequence::Save, [this] { save(); });
    add(project, "save-as", tr("Save &as..."), QKeySequence("Ctrl+Shift+S"), [this] { save_as(); });
    project->addSeparator();
    add(project, "inches", tr("Show &inches"), {}, [this] {
        ChangeProject change;
        change.unit = session_.project().unit == LengthUnit::mm ? LengthUnit::inch : LengthUnit::mm;
        session_.run(tr("Unit"), change);
    });
    add(project, "close", tr("&Close project"), QKeySequence::Close, [this] { close_project(); });
    add(project, "quit", tr("&Quit"), QKeySequence::Quit, [this] { close(); });

    QMenu* edit = menus[1];
    QAction* undo = session_.history().createUndoAction(this, tr("&Undo"));
    undo->setShortcut(QKeySequence::Undo);
    undo->setObjectName("undo");
    QAction* redo = session_.history().createRedoAction(this, tr("&Redo"));
    redo->setShortcuts({QKeySequence("Ctrl+Shift+Z"), QKeySequence("Ctrl+Y")});
    redo->setObjectName("redo");
    edit->addAction(undo);
    edit->addAction(redo);
    edit->addSeparator();
    add(edit, "choose-all", tr("Choose &all"), QKeySequence::SelectAll, [this] {
        if (view_ == View::sheets) return sheet_panel_->arrange().choose_all();
        if (const EvaluatedPart* part = session_.evaluated()) {
            std::set<LineId> all;
            for (const FlatLine& line : part->lines)
                all.insert(line.id);
            session_.choose_lines(std::move(all));
        }
    });
    add(edit, "same-colour", tr("Choose all of this &colour"), QKeySequence("Ctrl+Alt+C"),
        [this] { choose_same_colour(); });
    add(edit, "inside", tr("Choose all &inside this outline"), QKeySequence("Ctrl+Alt+I"),
        [this] { choose_inside(); });
    edit->addSeparator();
    add(edit, "find-command", tr("&Find a command..."), QKeySequence("Ctrl+K"), [this] { find_command(); });

    QMenu* part = menus[2];
    QMenu* jobs = part->addMenu(tr("&New part"));
    for (const SourceKind& kind : source_kinds())
        add(jobs, (std::string("make-") + kind.key).c_str(),
            QCoreApplication::translate("Sources", kind.name), {}, [this, key = kind.key] { make(key); });
    add(jobs, "jobs", tr("&All jobs..."), QKeySequence("Ctrl+T"), [this] { show_jobs(); });
    QMenu* steps = part->addMenu(tr("&Add step"));
    for (const StepKind& kind : step_kinds())
        if (!kind.inks) // it has a place of its own below
            add(steps, (std::string("step-") + kind.key).c_str(),
                QCoreApplication::translate("Steps", kind.name), {},
                [this, key = kind.key] { add_step(key); });
    part->addSeparator();
    add(part, "fill", tr("&Fill the chosen lines"), QKeySequence("Ctrl+Alt+F"), [this] { fill({}); });
    add(part, "aside", tr("&Set the chosen lines aside"), QKeySequence("Ctrl+Alt+A"),
        [this] { set_chosen_aside(); });
    add(part, "glyph-table", tr("&Glyphs of the font..."), QKeySequence("Ctrl+Alt+G"),
        [this] { show_glyphs(); });
    part->addSeparator();
    add(part, "copy-part", tr("&Copy part"), QKeySequence("Ctrl+Alt+D"), [this] {
        if (!session_.part()) return;
        const auto done = session_.run(tr("Copy part"), CopyPart{session_.choice().part, {}});
        if (!done) return;
        session_.choose_part(done->part);
        tell_done(*done);
    });
    add(part, "remove-part", tr("&Remove part"), {}, [this] {
        if (!session_.part()) return;
        if (const auto done = session_.run(tr("Remove part"), RemovePart{session_.choice().part}))
            tell_done(*done);
    });

    QMenu* lane = menus[3];
    for (const Action action : all_actions)
        add(lane, action_name(action),
            tr("Send to %1\t%2").arg(present::action_title(action)).arg(QLatin1Char(action_letter(action))),
            {}, [this, action] { send_to_action(action); });
    lane->addSeparator();
    add(lane, "lanes", tr("&All lanes..."), QKeySequence("Ctrl+L"), [this] {
        const auto& lanes = session_.project().lanes;
        show_lanes(lanes.empty() ? LaneId{} : lanes.front().id);
    });

    QMenu* sheet = menus[4];
    add(sheet, "add-sheet", tr("&Add sheet"), {}, [this] {
        show_view(View::sheets);
        sheet_panel_->add_sheet();
    });
    add(sheet, "place", tr("&Place the chosen part"), QKeySequence("Ctrl+P"), [this] {
        show_view(View::sheets);
        sheet_panel_->place_part();
    });
    sheet->addSeparator();
    add(sheet, "quarter", tr("&Quarter turn"), QKeySequence("Ctrl+R"),
        [this] { sheet_panel_->arrange().turn(degrees(90)); });
    add(sheet, "mirror", tr("&Mirror"), QKeySequence("Ctrl+M"), [this] { sheet_panel_->arrange().mirror(); });
    add(sheet, "duplicate", tr("&Duplicate"), QKeySequence("Ctrl+D"), [this] { sheet_panel_->duplicate(); });
    add(sheet, "group", tr("&Group: move together"), QKeySequence("Ctrl+G"),
        [this] { sheet_panel_->arrange().group(); });
    add(sheet, "ungroup", tr("&Ungroup"), QKeySequence("Ctrl+Shift+G"),
        [this] { sheet_panel_->arrange().ungroup(); });
    add(sheet, "take-off", tr("&Take off the sheet"), QKeySequence::Delete,
        [this] { sheet_panel_->remove_placed(); });

    QMenu* run = menus[5];
    add(run, "export", tr("&Export..."), QKeySequence("Ctrl+E"), [this] { export_to({}, false); });
    run->addSeparator();
    add(run, "play", tr("&Play or pause the rehearsal"), QKeySequence("F5"), [this] {
        show_view(View::rehearsal);
        rehearsal_view_->toggle();
    });
    add(run, "next-stop", tr("&Next stop"), QKeySequence("F6"), [this] {
        show_view(View::rehearsal);
        rehearsal_view_->next_stop();
    });
    add(run, "why", tr("&Why this order?"), {}, [this] { show_why(); });
    add(run, "usual-order", tr("Usual &order of passes"), {}, [this] {
        session_.change(tr("Usual order of passes"), [](Project& p) { return set_pass_order(p, {}); });
    });

    QMenu* show = menus[6];
    const std::pair<const char*, QString> views[] = {
        {"view-part", tr("&Part")}, {"view-sheets", tr("&Sheets")}, {"view-rehearsal", tr("&Rehearsal")}};
    for (int i = 0; i < 3; ++i) {
        QAction* action =
            add(show, views[i].first, views[i].second, {}, [this, i] { show_view(static_cast<View>(i)); });
        action->setShortcuts(
            {QKeySequence(QString::number(i + 1)), QKeySequence(QStringLiteral("Ctrl+%1").arg(i + 1))});
    }
    add(show, "view-findings", tr("F&indings"), QKeySequence("F8"), [this] { show_findings(); });
    show->addSeparator();
    add(show, "zoom-in", tr("Zoom &in"), QKeySequence::ZoomIn, [this] { canvas()->zoom_in(); });
    add(show, "zoom-out", tr("Zoom &out"), QKeySequence::ZoomOut, [this] { canvas()->zoom_out(); });
    add(show, "fit", tr("&Fit"), QKeySequence("Ctrl+0"), [this] { canvas()->fit(); });
    show->addSeparator();
    QAction* dark = add(show, "dark", tr("&Dark theme"), {}, [](bool on) {
        QSettings().setValue("dark", on);
        apply_style(on);
    });
    dark->setCheckable(true);
    dark->setChecked(present::Theme::current().dark);
    QAction* full = add(show, "full-screen", tr("F&ull screen"), QKeySequence("F11"),
                        [this](bool on) { on ? showFullScreen() : showNormal(); });
    full->setCheckable(true);

    QMenu* help = menus[7];
    add(help, "keys", tr("&Keys and words"), QKeySequence("F1"), [this] { show_help(); });
    add(help, "about", tr("&About Dot Lane"), {}, [this] { show_about(); });
}

void MainWindow::show_help() {
    show_side(help_panel_);
}

void MainWindow::show_about() {
    notice_->tell(Notice::Kind::news, tr("Dot Lane %1. Free software under the GNU General Public License, "
                                         "version 3 or later, without any warranty.")
                                          .arg(DOTLANE_VERSION));
}

void MainWindow::part_menu(const QPoint& at, LineId under) {
    QMenu menu(this);
    const bool any = !session_.choice().lines.empty();
    for (const char* id : {"same-colour", "inside", "fill", "aside"}) {
        QAction* action = findChild<QAction*>(id);
        if (action && (any || under)) menu.addAction(action);
    }
    if (any) {
        menu.addSeparator();
        for (const Lane& lane : session_.project().lanes) {
            QAction* action = menu.addAction(
                plate_icon(session_.project(), lane.id),
                tr("To %1, %2").arg(present::action_title(lane.action), QString::fromStdString(lane.name)));
            connect(action, &QAction::triggered, this, [this, id = lane.id] {
                const auto& chosen = session_.choice().lines;
                session_.change(tr("Send lines to a lane"), [&](Project& p) {
                    const EvaluatedPart* part = session_.evaluated();
                    return part ? send_lines(p, *part, {chosen.begin(), chosen.end()}, id) : Result<void>{};
                });
            });
        }
    }
    if (!menu.isEmpty()) menu.exec(at);
}

} // namespace dotlane::app
