#include "app/commands/opener.h"

#include <QtConcurrent>

namespace dotlane::app {

Opener::Opener(FileSystem& files, FontShelf& fonts, QObject* parent)
    : QObject(parent)
    , files_(files)
    , fonts_(fonts) {
    connect(&watcher_, &QFutureWatcherBase::finished, this, [this] {
        const auto progress = std::exchange(progress_, nullptr);
        const Read read = watcher_.result();
        if (progress && !progress->cancelled()) {
            if (*read)
                Q_EMIT opened(std::make_shared<Opened>(std::move(**read)), path_);
            else
                Q_EMIT failed(read->error());
        }
        Q_EMIT finished();
    });
}

Opener::~Opener() {
    cancel();
    watcher_.disconnect(this);
    watcher_.waitForFinished();
}

void Opener::open(const QString& path) {
    cancel();
    watcher_.waitForFinished();
    path_ = path;
    // Reports come from the working thread; Qt takes the signal over to this one.
    progress_ = std::make_shared<Progress>([this](double fraction) { Q_EMIT progressed(fraction); });
    Q_EMIT started(QString::fromStdString(file_name(path.toStdString())));
    watcher_.setFuture(QtConcurrent::run([this, path = path.toStdString(), progress = progress_]() -> Read {
        auto bytes = files_.read(path, default_max_bytes);
        if (!bytes) return std::make_shared<Result<Opened>>(tl::make_unexpected(bytes.error()));
        return std::make_shared<Result<Opened>>(open_svg(std::move(*bytes), path, fonts_, *progress));
    }));
}

void Opener::cancel() {
    if (progress_) progress_->cancel();
}

} // namespace dotlane::app
