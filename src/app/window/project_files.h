// The project's file: new, open, save, the guard before leaving, recovery copies, and what is opened into it.
#pragma once

#include <QDateTime>
#include <QFutureWatcher>

#include "app/commands/opener.h"
#include "app/commands/recent.h"
#include "app/commands/recovery.h"
#include "app/commands/session.h"

namespace dotlane::app {

class Ahead;
class Notice;

class ProjectFiles : public QObject {
    Q_OBJECT

  public:
    /// `copy_delay`: the most that a kill may lose of what is not saved. `window`: above which dialogs stand.
    ProjectFiles(Session& session, Notice& notice, const std::string& state_folder,
                 std::chrono::milliseconds copy_delay, QWidget* window);
    ~ProjectFiles() override;

    /// What was read while the window was being made; it must outlive this.
    void set_ahead(const Ahead* ahead) { ahead_ = ahead; }
    void new_project();
    /// With a project of this name when none is open.
    void open_empty(const QString& name);
    void ask_to_open_project();
    void ask_to_open_drawing();
    void open_path(const QString& path); ///< a drawing or a project, by its ending
    void open_demo();
    /// For a project in memory: as if it had been opened from `path` (may be empty).
    void start_project(Project project, const QString& path, std::optional<std::uint64_t> known_hash = {});
    bool save();
    bool save_as();
    void close_project();
    bool may_leave(); ///< saved, thrown away on purpose, or nothing to lose
    /// The window ends: nothing is to be recovered.
    void left() { recovery_.clear(); }
    void recover(const LeftBehind& copy);
    void forget(const LeftBehind& copy);
    /// Says that an earlier run left unsaved work behind, when a project is opened past the start page.
    void offer_recovery();

    bool busy() const { return opener_.busy() || reading_project_; }
    Opener& opener() { return opener_; }
    Recovery& recovery() { return recovery_; }
    QStringList recent() const { return recent_.list(); }
    std::vector<LeftBehind> left_behind() const;
    /// "Walk, saved 3 min ago"
    QString state_words() const;

  Q_SIGNALS:
    void started(); ///< another project is open
    void closed();  ///< none is
    void reading(); ///< a file is being read: its progress stands in the notice
    void idle();    ///< it was read, or given up
    void saved();
    void failed(const dotlane::Error& error);
    void opened(std::shared_ptr<dotlane::app::OpenedFile> file);
    /// The notice asks a question about a file.
    void asked();

  private:
    struct Read {
        QString path;
        bool shipped = false;
        Result<Project> project;
        std::uint64_t hash = 0;
    };
    void connect_opener();
    void read_project_file(const QString& path, bool shipped);
    void take_project();
    bool save_to(const QString& path, bool over_changes);
    void tell_changed_on_disk();

    Session& session_;
    Notice& notice_;
    QWidget* window_;
    std::string recovery_folder_;
    Recovery recovery_;
    Recent recent_;
    Opener opener_;
    QFutureWatcher<std::shared_ptr<Read>> reading_;
    const Ahead* ahead_ = nullptr;
    QDateTime saved_at_;
    bool recovery_offered_ = false;
    bool reading_project_ = false; ///< until it has been taken in
};

} // namespace dotlane::app
