#include "app/window/project_files.h"

#include <QFileInfo>
#include <QtConcurrent>

#include "app/commands/dialogs.h"
#include "app/widgets/notice.h"
#include "app/window/ahead.h"
#include "core/base/caught.h"
#include "core/base/text.h"
#include "core/commands/placing.h"
#include "core/project/format.h"
#include "present/words.h"

namespace dotlane::app {

ProjectFiles::ProjectFiles(Session& session, Notice& notice, const std::string& state_folder,
                           std::chrono::milliseconds copy_delay, QWidget* window)
    : QObject(window)
    , session_(session)
    , notice_(notice)
    , window_(window)
    , recovery_folder_(state_folder + "/recovery")
    , recovery_(session, session.files(), recovery_folder_, copy_delay)
    , recent_(session.files(), state_folder)
    , opener_(session.files(), session.workshop()) {
    connect_opener();
    connect(&reading_, &QFutureWatcherBase::finished, this, &ProjectFiles::take_project);
    connect(&recovery_, &Recovery::failed, this, &ProjectFiles::failed);
    connect(&session_.file(), &DiskFile::changed, this, &ProjectFiles::tell_changed_on_disk);
}

ProjectFiles::~ProjectFiles() {
    reading_.waitForFinished();
}

void ProjectFiles::connect_opener() {
    connect(&opener_, &Opener::started, this, [this](const QString& name) {
        notice_.work(tr("Opening %1").arg(name), 0, [this] { opener_.cancel(); });
        Q_EMIT reading();
    });
    connect(&opener_, &Opener::progressed, this, [this](double f) {
        if (opener_.busy()) notice_.set_progress(f);
    });
    connect(&opener_, &Opener::finished, this, [this] {
        if (notice_.working()) notice_.clear();
        Q_EMIT idle();
    });
    connect(&opener_, &Opener::failed, this, &ProjectFiles::failed);
    connect(&opener_, &Opener::opened, this, &ProjectFiles::opened);
    connect(&opener_, &Opener::large, this, [this](const Error& error, const QString& path) {
        Q_EMIT asked();
        notice_.tell(Notice::Kind::error, present::words(error),
                     {{tr("Open it all the same"), [this, path] { opener_.open(path, true); }}});
    });
}

void ProjectFiles::start_project(Project project, const QString& path,
                                 std::optional<std::uint64_t> known_hash) {
    settle_placements(project, session_.workshop()); // of an old file: once, before anything can be changed
    session_.start(std::move(project), path, known_hash);
    saved_at_ = path.isEmpty() ? QDateTime() : QFileInfo(path).lastModified();
    Q_EMIT started();
}

void ProjectFiles::new_project() {
    if (may_leave()) start_project(session_.workshop().new_project(tr("Untitled").toStdString()), {});
}

void ProjectFiles::open_empty(const QString& name) {
    if (session_.is_open()) return;
    start_project(session_.workshop().new_project((name.isEmpty() ? tr("Untitled") : name).toStdString()),
                  {});
}

void ProjectFiles::ask_to_open_project() {
    if (const auto path =
            dialogs().file_to_open(window_, tr("Open a project"), tr("Dot Lane projects (*.dotlane)")))
        open_path(*path);
}

void ProjectFiles::ask_to_open_drawing() {
    if (const auto path =
            dialogs().file_to_open(window_, tr("Open a drawing as a new part"),
                                   tr("Drawings (*.svg *.svgz *.dxf *.hpgl *.plt *.png *.jpg *.jpeg)")))
        open_path(*path);
}

void ProjectFiles::open_path(const QString& path) {
    if (!path.endsWith(QLatin1String(project_extension))) return opener_.open(path);
    if (may_leave()) read_project_file(path, false);
}

/// Reads and parses off the window's thread; what is open stays so until the other is there.
void ProjectFiles::read_project_file(const QString& path, bool shipped) {
    reading_project_ = true;
    reading_.setFuture(
        QtConcurrent::run([path, shipped, &files = session_.files(), &workshop = session_.workshop()] {
            auto read = std::make_shared<Read>(Read{path, shipped, Project{}, 0});
            read->project = caught([&] {
                return files.read(path.toStdString(), project_max_bytes)
                    .and_then([&](const std::string& bytes) {
                        read->hash = content_hash(bytes);
                        return read_project(bytes, path.toStdString());
                    })
                    .map([&](Project project) {
                        settle_placements(project, workshop);
                        return project;
                    });
            });
            return read;
        }));
    notice_.work(tr("Opening %1").arg(QFileInfo(path).fileName()), 0, [this] {
        reading_project_ = false;
        reading_.setFuture(QFuture<std::shared_ptr<Read>>());
        Q_EMIT idle();
    });
    Q_EMIT reading();
}

void ProjectFiles::take_project() {
    if (!std::exchange(reading_project_, false)) return; // it was given up
    const std::shared_ptr<Read> read = reading_.result();
    if (notice_.working()) notice_.clear();
    if (!read->project) {
        Q_EMIT failed(read->project.error()); // what is open stays open
    } else if (may_leave()) {                 // something may have been changed meanwhile
        // A shipped file is opened without its path: it is never written to.
        if (read->shipped)
            start_project(std::move(*read->project), {});
        else {
            start_project(std::move(*read->project), read->path, read->hash);
            recent_.add(QFileInfo(read->path).absoluteFilePath());
        }
    }
    Q_EMIT idle();
}

void ProjectFiles::open_demo() {
    if (!may_leave()) return;
    if (const auto read = ahead_ ? ahead_->project(demo_path()) : nullptr) return start_project(*read, {});
    read_project_file(QString::fromStdString(demo_path()), true);
}

bool ProjectFiles::save() {
    if (!session_.is_open()) return true;
    if (session_.path().isEmpty()) return save_as();
    return save_to(session_.path(), false);
}

bool ProjectFiles::save_as() {
    const QString name = QString::fromStdString(session_.project().name) + project_extension;
    const auto path = dialogs().file_to_save(window_, tr("Save the project"),
                                             session_.path().isEmpty() ? name : session_.path());
    return path && save_to(*path, true); // the dialog has asked whether to replace what is there
}

bool ProjectFiles::save_to(const QString& path, bool over_changes) {
    switch (session_.save(path, over_changes)) {
    case Session::Saved::no:
        return false;
    case Session::Saved::changed_on_disk:
        switch (dialogs().changed_on_disk(window_, path)) {
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
    Q_EMIT saved();
    return true;
}

void ProjectFiles::tell_changed_on_disk() {
    notice_.tell(Notice::Kind::news,
                 tr("%1 was changed by another program.").arg(QFileInfo(session_.path()).fileName()),
                 {{tr("Take that in"), [this] { session_.take_from_disk(); }},
                  {tr("Keep mine"), [this] { session_.keep_mine(); }},
                  {tr("Save mine under another name"), [this] { save_as(); }}});
}

bool ProjectFiles::may_leave() {
    if (!session_.modified()) return true;
    switch (dialogs().unsaved(window_, QString::fromStdString(session_.project().name))) {
    case Dialogs::Unsaved::save:
        return save();
    case Dialogs::Unsaved::discard:
        recovery_.clear();
        return true;
    default:
        return false;
    }
}

void ProjectFiles::close_project() {
    if (!may_leave()) return;
    session_.close();
    Q_EMIT closed();
}

std::vector<LeftBehind> ProjectFiles::left_behind() const {
    return Recovery::left_behind(session_.files(), recovery_folder_);
}

void ProjectFiles::offer_recovery() {
    if (!session_.is_open() || std::exchange(recovery_offered_, true) || left_behind().empty()) return;
    notice_.tell(Notice::Kind::news, tr("An earlier run ended with unsaved work; a copy was kept."),
                 {{tr("Look at it"), [this] { close_project(); }}});
}

void ProjectFiles::forget(const LeftBehind& copy) {
    Recovery::forget(session_.files(), copy);
}

void ProjectFiles::recover(const LeftBehind& copy) {
    auto project = Recovery::read(session_.files(), copy);
    if (!project) return void(Q_EMIT failed(project.error()));
    // Where the copy does not say what its file held, a file that is newer than the copy was changed since.
    auto known = copy.file_hash;
    if (!known && QFileInfo(copy.path).lastModified() > copy.at()) known = 0;
    start_project(std::move(*project), copy.path, known);
    session_.mark_modified();
    recovery_.adopt(copy);
    notice_.tell(Notice::Kind::news,
                 tr("\"%1\" is back as it was at %2. Save it to keep it.").arg(copy.name, copy.when()) +
                     (session_.file().differs()
                          ? " " + tr("Its file has been changed since; saving will ask what to do.")
                          : QString()));
}

QString ProjectFiles::state_words() const {
    if (!session_.is_open()) return {};
    const QString name = QString::fromStdString(session_.project().name);
    if (session_.modified()) return tr("%1, not saved").arg(name);
    if (!saved_at_.isValid()) return name;
    const auto minutes = saved_at_.secsTo(QDateTime::currentDateTime()) / 60;
    return minutes < 1 ? tr("%1, saved just now").arg(name)
           : minutes < 120
               ? tr("%1, saved %2 min ago").arg(name).arg(minutes)
               : tr("%1, saved on %2").arg(name, QLocale().toString(saved_at_.date(), QLocale::ShortFormat));
}

} // namespace dotlane::app
