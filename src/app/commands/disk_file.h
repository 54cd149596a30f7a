// The file that the open project came from or was last saved to. Notices when somebody else has written to
// it since.
#pragma once

#include <QFileSystemWatcher>
#include <QObject>
#include <QTimer>
#include <optional>

#include "core/base/files.h"

namespace dotlane::app {

class DiskFile : public QObject {
    Q_OBJECT

  public:
    explicit DiskFile(FileSystem& files, QObject* parent = nullptr);
    /// What lies there now is what the project was read from or saved as; an empty path: it has no file.
    /// With `known_hash`, only if it has that content: otherwise somebody has written to it.
    void follow(const QString& path, std::optional<std::uint64_t> known_hash = {});
    /// Hash of the content that is known (base/text.h).
    std::uint64_t known_hash() const { return hash_; }
    /// Whether another content than the known one lies there now.
    bool differs();

  Q_SIGNALS:
    /// Once for each content that somebody else wrote.
    void changed();

  private:
    void look();
    void watch();
    std::optional<std::uint64_t> hash_now();

    FileSystem& files_;
    std::string path_;
    FileMark mark_;
    std::uint64_t hash_ = 0, told_ = 0;
    QFileSystemWatcher watcher_;
    QTimer settle_; ///< a writer may need several steps
};

} // namespace dotlane::app
