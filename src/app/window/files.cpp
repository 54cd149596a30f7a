// Project files: new, open, save, the guard before leaving, export, recovery.
#include <QCloseEvent>
#include <QDateTime>
#include <QDesktopServices>
#include <QFileInfo>
#include <QLabel>
#include <QMenuBar>
#include <QStackedWidget>
#include <QUrl>
#include <QtConcurrent>

#include "app/commands/dialogs.h"
#include "app/opening/opening_panel.h"
#include "app/widgets/notice.h"
#include "app/window/ahead.h"
#include "app/window/findings_panel.h"
#include "app/window/main_window.h"
#include "app/window/start_page.h"
#include "core/base/caught.h"
#include "core/base/text.h"
#include "core/project/format.h"
#include "core/workflow/data_folder.h"
#include "core/workflow/placing.h"
#include "present/pdf.h"
#include "present/words.h"

namespace dotlane::app {

void MainWindow::start_project(Project project, const QString& path,
                               std::optional<std::uint64_t> known_hash) {
    settle_placements(project, session_.workshop()); // of an old file: once, before anything can be changed
    session_.start(std::move(project), path, known_hash);
    saved_at_ = path.isEmpty() ? QDateTime() : QFileInfo(path).lastModified();
    show_view(View::part);
    show_saved();
}

void MainWindow::new_project() {
    if (!may_leave()) return;
    start_project(session_.workshop().new_project(tr("Untitled").toStdString()), {});
}

void MainWindow::open_file_dialog(bool project) {
    const auto path =
        project ? dialogs().file_to_open(this, tr("Open a project"), tr("Dot Lane projects (*.dotlane)"))
                : dialogs().file_to_open(this, tr("Open a drawing as a new part"),
                                         tr("Drawings (*.svg *.svgz *.dxf *.hpgl *.plt *.png *.jpg *.jpeg)"));
    if (path) open_path(*path);
}

void MainWindow::open_path(const QString& path) {
    if (path.endsWith(QLatin1String(project_extension)))
        open_project(path);
    else
        open_drawing(path);
}

void MainWindow::open_project(const QString& path) {
    if (!may_leave()) return;
    std::uint64_t hash = 0;
    auto loaded = caught([&] {
        return session_.files().read(path.toStdString(), project_max_bytes).and_then([&](const auto& bytes) {
            hash = content_hash(bytes);
            return read_project(bytes, path.toStdString());
        });
    });
    if (!loaded) return void(Q_EMIT session_.failed(loaded.error())); // what is open stays open
    start_project(std::move(*loaded), path, hash);
    recent_.add(QFileInfo(path).absoluteFilePath());
}

void MainWindow::open_drawing(const QString& path) {
    opener_.open(path);
}

/// A drawing waits for its size and lanes; a picture that says how large it is needs no questions, as all its
/// numbers can be changed afterwards.
void MainWindow::take_opened(std::shared_ptr<OpenedFile> file) {
    notice_->clear();
    if (file->picture && !file->picture->asks_scale) {
        if (file_waiting()) opening_panel_->forget(); // it takes the place of the one at hand
        return make_from(file->picture->picture, QString::fromStdString(file->picture->name));
    }
    if (!session_.is_open())
        start_project(
            session_.workshop().new_project(file->picture ? file->picture->name : file->opened.name), {});
    offer_recovery();
    opening_panel_->show_file(std::move(file));
    bench_->setCurrentWidget(opening_view_);
    show_side(opening_panel_);
}

void MainWindow::open_demo() {
    if (!may_leave()) return;
    if (const auto read = ahead_ ? ahead_->project(demo_path()) : nullptr) return start_project(*read, {});
    auto loaded = load_project(session_.files(), demo_path());
    if (!loaded) return void(Q_EMIT session_.failed(loaded.error()));
    start_project(std::move(*loaded), {}); // without its path: the shipped file is never written to
}

bool MainWindow::save() {
    if (!session_.is_open()) return true;
    if (session_.path().isEmpty()) return save_as();
    return save_to(session_.path(), false);
}

bool MainWindow::save_as() {
    const QString name = QString::fromStdString(session_.project().name) + project_extension;
    const auto path = dialogs().file_to_save(this, tr("Save the project"),
                                             session_.path().isEmpty() ? name : session_.path());
    return path && save_to(*path, true); // the dialog has asked whether to replace what is there
}

bool MainWindow::save_to(const QString& path, bool over_changes) {
    switch (session_.save(path, over_changes)) {
    case Session::Saved::no:
        return false;
    case Session::Saved::changed_on_disk:
        switch (dialogs().changed_on_disk(this, path)) {
        case Dialogs::ChangedOnDisk::take_theirs:
            return session_.take_from_disk();
        case Dialogs::ChangedOnDisk::keep_mine:
            return save_to(path, true);
        case Dialogs::ChangedOnDisk::other_name:
            return save_as();
        case Dialogs::ChangedOnDisk::cancel:
            return false;
        }
        return false;
    case Session::Saved::yes:
        break;
    }
    saved_at_ = QDateTime::currentDateTime();
    recovery_.clear();
    recent_.add(session_.path());
    show_saved();
    return true;
}

void MainWindow::tell_changed_on_disk() {
    notice_->tell(Notice::Kind::news,
                  tr("%1 was changed by another program.").arg(QFileInfo(session_.path()).fileName()),
                  {{tr("Take that in"), [this] { session_.take_from_disk(); }},
                   {tr("Keep mine"), [this] { session_.keep_mine(); }},
                   {tr("Save mine under another name"), [this] { save_as(); }}});
}

bool MainWindow::may_leave() {
    if (!session_.modified()) return true;
    switch (dialogs().unsaved(this, QString::fromStdString(session_.project().name))) {
    case Dialogs::Unsaved::save:
        return save();
    case Dialogs::Unsaved::discard:
        recovery_.clear();
        return true;
    default:
        return false;
    }
}

void MainWindow::close_project() {
    if (!may_leave()) return;
    session_.close();
    show_start();
}

/// What is being typed is taken now, while there is a project to take it.
void MainWindow::settle_typing() {
    if (QWidget* field = focusWidget()) field->clearFocus();
}

void MainWindow::closeEvent(QCloseEvent* event) {
    settle_typing();
    if (!may_leave()) return event->ignore();
    recovery_.clear();
    event->accept();
}

void MainWindow::show_start() {
    start_->show_lists(recent_.list(), Recovery::left_behind(session_.files(), recovery_folder_));
    pages_->setCurrentWidget(start_);
}

void MainWindow::offer_recovery() {
    if (std::exchange(recovery_offered_, true) || !session_.is_open() ||
        Recovery::left_behind(session_.files(), recovery_folder_).empty())
        return;
    notice_->tell(Notice::Kind::news, tr("An earlier run ended with unsaved work; a copy was kept."),
                  {{tr("Look at it"), [this] { close_project(); }}});
}

void MainWindow::recover(const LeftBehind& copy) {
    auto project = Recovery::read(session_.files(), copy);
    if (!project) return void(Q_EMIT session_.failed(project.error()));
    // Where the copy does not say what its file held, a file that is newer than the copy was changed since.
    auto known = copy.file_hash;
    if (!known && QFileInfo(copy.path).lastModified() > copy.at()) known = 0;
    start_project(std::move(*project), copy.path, known);
    session_.mark_modified();
    recovery_.adopt(copy);
    notice_->tell(Notice::Kind::news,
                  tr("\"%1\" is back as it was at %2. Save it to keep it.").arg(copy.name, copy.when()) +
                      (session_.file().differs()
                           ? " " + tr("Its file has been changed since; saving will ask what to do.")
                           : QString()));
}

void MainWindow::show_saved() {
    const QString name = QString::fromStdString(session_.project().name);
    setWindowTitle(session_.is_open() ? tr("%1[*] - Dot Lane").arg(name) : tr("Dot Lane"));
    setWindowModified(session_.modified());
    QString text;
    if (session_.is_open()) {
        if (session_.modified())
            text = tr("%1, not saved").arg(name);
        else if (!saved_at_.isValid())
            text = name;
        else {
            const auto minutes = saved_at_.secsTo(QDateTime::currentDateTime()) / 60;
            text = minutes < 1 ? tr("%1, saved just now").arg(name)
                   : minutes < 120
                       ? tr("%1, saved %2 min ago").arg(name).arg(minutes)
                       : tr("%1, saved on %2")
                             .arg(name, QLocale().toString(saved_at_.date(), QLocale::ShortFormat));
        }
    }
    saved_->setText(text);
    // A menu bar lays its corner out only when the corner changes.
    saved_->setFixedSize(text.isEmpty() ? 0 : saved_->fontMetrics().horizontalAdvance(text) + 26, 22);
    menuBar()->setCornerWidget(saved_);
    saved_->show();
}

void MainWindow::export_to(QString folder, bool override_errors) {
    const auto derived = session_.derived();
    if (!derived || session_.deriving() || exporter_.isRunning()) return;
    if (folder.isEmpty()) {
        // Errors are told before a folder is asked for.
        if (blocks_export(derived->findings) && !override_errors) {
            show_findings();
            findings_panel_->ask_override(true);
            return;
        }
        const auto chosen = dialogs().folder(this, tr("Folder for the export"), export_folder_);
        if (!chosen) return;
        folder = *chosen;
    }
    export_folder_ = folder;
    notice_->tell(Notice::Kind::news, tr("Exporting..."));
    exporter_.setFuture(QtConcurrent::run(
        [derived, folder, override_errors, &catalog = session_.catalog(), &files = session_.files()] {
            return std::make_shared<Result<ExportResult>>(caught([&] {
                return export_folder(*derived, catalog, files, folder.toStdString(),
                                     {override_errors, present::pdf_painter()});
            }));
        }));
}

} // namespace dotlane::app
