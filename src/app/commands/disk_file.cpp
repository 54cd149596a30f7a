#include "app/commands/disk_file.h"

#include "core/base/text.h"
#include "core/project/format.h"

namespace dotlane::app {

DiskFile::DiskFile(FileSystem& files, QObject* parent)
    : QObject(parent)
    , files_(files) {
    settle_.setSingleShot(true);
    settle_.setInterval(250);
    const auto soon = [this] { settle_.start(); };
    connect(&watcher_, &QFileSystemWatcher::fileChanged, this, soon);
    connect(&watcher_, &QFileSystemWatcher::directoryChanged, this, soon);
    connect(&settle_, &QTimer::timeout, this, &DiskFile::look);
}

std::optional<std::uint64_t> DiskFile::hash_now() {
    const auto bytes = files_.read(path_, project_max_bytes);
    return bytes ? std::optional(content_hash(*bytes)) : std::nullopt;
}

void DiskFile::follow(const QString& path, std::optional<std::uint64_t> known_hash) {
    path_ = path.toStdString();
    settle_.stop();
    mark_ = path_.empty() ? FileMark{} : files_.mark(path_);
    const auto now = path_.empty() ? std::nullopt : hash_now();
    hash_ = known_hash.value_or(now.value_or(0));
    told_ = now.value_or(0);
    if (now && *now != hash_) mark_ = {}; // differs from the beginning: saving asks
    watch();
}

/// A file that is replaced is no longer the one that was watched; its folder is told of the new one.
void DiskFile::watch() {
    if (!watcher_.files().isEmpty()) watcher_.removePaths(watcher_.files());
    if (!watcher_.directories().isEmpty()) watcher_.removePaths(watcher_.directories());
    if (path_.empty()) return;
    const std::string folder = path_.substr(0, path_.find_last_of('/') + 1);
    if (!folder.empty()) watcher_.addPath(QString::fromStdString(folder));
    if (files_.exists(path_)) watcher_.addPath(QString::fromStdString(path_));
}

bool DiskFile::differs() {
    if (path_.empty()) return false;
    const FileMark now = files_.mark(path_);
    if (!now.there || now == mark_) return false;
    const auto hash = hash_now();
    if (!hash || *hash != hash_) return true;
    mark_ = now; // only touched
    return false;
}

void DiskFile::look() {
    if (path_.empty()) return;
    if (!watcher_.files().contains(QString::fromStdString(path_)) && files_.exists(path_))
        watcher_.addPath(QString::fromStdString(path_));
    if (!differs()) return;
    const auto now = hash_now();
    if (!now || std::exchange(told_, *now) == *now) return;
    Q_EMIT changed();
}

} // namespace dotlane::app
