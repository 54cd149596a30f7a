#include "app/commands/opener.h"

#include <QtConcurrent>

#include "core/base/caught.h"
#include "core/formats/trace/picture.h"

namespace dotlane::app {

Opener::Opener(FileSystem& files, Workshop& workshop, QObject* parent)
    : QObject(parent)
    , files_(files)
    , workshop_(workshop) {
    connect(&watcher_, &QFutureWatcherBase::finished, this, [this] {
        const auto progress = std::exchange(progress_, nullptr);
        const Read read = watcher_.result();
        if (progress && !progress->cancelled()) {
            if (*read)
                Q_EMIT opened(std::make_shared<OpenedFile>(std::move(**read)));
            else if (may_be_large(read->error()) && !asked_)
                Q_EMIT large(read->error(), path_);
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

void Opener::open(const QString& path, bool large) {
    start(path, large ? How::large : How::usual);
}

void Opener::open_as_picture() {
    start(path_, How::as_picture);
}

void Opener::start(const QString& path, How how) {
    cancel();
    watcher_.waitForFinished();
    path_ = path;
    asked_ = how == How::large;
    // Reports come from the working thread; Qt takes the signal over to this one.
    progress_ = std::make_shared<Progress>([this](double fraction) { Q_EMIT progressed(fraction); });
    Q_EMIT started(QString::fromStdString(file_name(path.toStdString())));
    watcher_.setFuture(QtConcurrent::run([this, path = path.toStdString(), progress = progress_,
                                          as_picture = how == How::as_picture,
                                          limits = asked_ ? ReadLimits::large() : ReadLimits{}]() -> Read {
        return std::make_shared<Result<OpenedFile>>(caught([&]() -> Result<OpenedFile> {
            auto bytes = files_.read(path, default_max_bytes);
            if (!bytes) return tl::make_unexpected(bytes.error());
            const auto picture = [](OpenedPicture one) { return OpenedFile{{}, {}, std::move(one)}; };
            if (as_picture)
                return dotlane::open_as_picture(*bytes, path, workshop_.fonts(), limits).map(picture);
            if (looks_like_picture(*bytes)) return open_picture(std::move(*bytes), path, limits).map(picture);
            auto opened = open_drawing(std::move(*bytes), path, workshop_.fonts(), *progress, limits);
            if (!opened) return tl::make_unexpected(opened.error());
            OpenedFile out{std::move(*opened), {}, {}};
            out.gatherings = gather_lanes(*out.opened.source.drawing, workshop_.catalog());
            return out;
        }));
    }));
}

void Opener::cancel() {
    if (progress_) progress_->cancel();
}

} // namespace dotlane::app
