// Recovery copies: while a project has unsaved changes, a copy is written every few seconds; after a crash
// the next start offers it. Each running program keeps its copies under a name that no other process can
// have, so a copy whose process is gone was left behind.
#pragma once

#include <QDateTime>
#include <QFutureWatcher>
#include <QLocale>
#include <QObject>
#include <QTimer>
#include <optional>
#include <vector>

#include "app/commands/session.h"

namespace dotlane::app {

struct LeftBehind {
    QString name;     ///< of the project
    QString path;     ///< its file, absolute; empty when it was never saved
    QString saved_at; ///< ISO 8601, local time
    /// Of the file's content that the project went back to; none when the note does not say.
    std::optional<std::uint64_t> file_hash;
    std::string copy, note; ///< files in the recovery folder

    QDateTime at() const { return QDateTime::fromString(saved_at, Qt::ISODateWithMs); }
    /// As people write it here.
    QString when() const {
        return at().isValid() ? QLocale().toString(at(), QLocale::ShortFormat) : saved_at;
    }
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
    /// The open project came out of this copy, which stays until a new one stands.
    void adopt(const LeftBehind& copy);
    /// The project is saved or closed on purpose: nothing to recover.
    void clear();
    /// Writes a copy now when one is due and waits for it.
    void flush();

  Q_SIGNALS:
    /// No copy can be written; told once.
    void failed(const dotlane::Error& error);

  private:
    void changed();
    void write();
    void settled();

    Session& session_;
    FileSystem& files_;
    std::string folder_, key_;
    QTimer timer_;
    QFutureWatcher<Result<void>> writer_;
    std::shared_ptr<const Project> written_;
    std::vector<LeftBehind> adopted_;
    bool told_ = false;
};

} // namespace dotlane::app
