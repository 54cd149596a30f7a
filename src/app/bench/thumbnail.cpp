#include "app/bench/thumbnail.h"

#include <QPainter>
#include <QtConcurrent>

#include "core/base/caught.h"
#include "present/theme.h"

namespace dotlane::app {

Thumbnail::Thumbnail(QObject* parent)
    : QObject(parent) {
    connect(&watcher_, &QFutureWatcherBase::finished, this, [this] {
        image_ = watcher_.result();
        if (const auto next = std::exchange(next_, nullptr)) next();
        Q_EMIT ready();
    });
}

Thumbnail::~Thumbnail() {
    watcher_.waitForFinished();
}

void Thumbnail::request(std::shared_ptr<const void> of, QSize size, double ratio, Painting painting) {
    const bool dark = present::Theme::current().dark;
    if (of == of_ && size == size_ && dark == dark_) return;
    of_ = std::move(of);
    size_ = size;
    dark_ = dark;
    const auto start = [this, size, ratio, painting = std::move(painting)] {
        watcher_.setFuture(QtConcurrent::run([size, ratio, painting] {
            return caught([&]() -> Result<QImage> {
                       QImage image(size * ratio, QImage::Format_ARGB32_Premultiplied);
                       image.setDevicePixelRatio(ratio);
                       image.fill(Qt::transparent);
                       QPainter painter(&image);
                       painting(painter);
                       return image;
                   })
                .value_or(QImage());
        }));
    };
    if (watcher_.isRunning())
        next_ = start;
    else
        start();
}

} // namespace dotlane::app
