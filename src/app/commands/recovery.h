// Recovery copies: while a project has unsaved changes, a copy is written every few seconds; after a crash
// the next start offers it. Each running program keeps its copies under a name that no other process can
// have, so a copy whose process is gone was left behind.
#pragma once

#include <QFutureWatcher>
#include <QObject>
#include <QTimer>
#include <optional>

#include "app/commands/session.h"

namespace dotlane::app {

struct LeftBehind {
    QString name;           ///< of the project
    QString path;           ///< its file; empty when it was never saved
    QString saved_at;       ///< ISO 8601, local time
    std::string copy, note; ///< files in the recovery folder
};

class Recovery : public QObject {
    Q_OBJECT

  public:
    /// `delay` is the most that can be lost between an unsaved change and its copy.
    Recovery(Session& session, FileSystem& files, std::string folder,
             std::chrono::milliseconds delay = std::chrono::seconds(8), QObject* parent = nullptr);
    ~Recovery() override;

    /// Copies of processes that are gone, newest first.
    static std::vector<LeftBehind> left_behind(FileSystem& files, const std::string& folder);
    static Result<Project> read(FileSystem& files, const LeftBehind& copy);
    static void forget(FileSystem& files, const LeftBehind& copy);
    /// The project is saved or closed on purpose: nothing to recover.
    void clear();
    /// Writes a copy now when one is due and waits for it.
    void flush();

  private:
    void changed();
    void write();

    Session& session_;
    FileSystem& files_;
    std::string folder_, key_;
    QTimer timer_;
    QFutureWatcher<void> writer_;
    std::shared_ptr<const Project> written_;
};

} // namespace dotlane::app
