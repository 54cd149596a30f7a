#include "present/printed_painter.h"

#include <QBuffer>
#include <QImageReader>
#include <mutex>

#include "core/sources/make.h"
#include "present/theme.h"

namespace dotlane::present {
namespace {

constexpr int most_across = 2000; ///< pixels, of a picture for the screen

/// The last picture that was asked for: unpacking it for every repaint would be felt.
QImage unpacked(const std::shared_ptr<const std::string>& bytes) {
    static std::mutex busy;
    static std::weak_ptr<const std::string> of;
    static QImage image;
    const std::lock_guard lock(busy);
    if (of.lock() == bytes) return image;
    QByteArray data = QByteArray::fromRawData(bytes->data(), static_cast<qsizetype>(bytes->size()));
    QBuffer buffer(&data);
    QImageReader reader(&buffer);
    const QSize size = reader.size();
    if (std::max(size.width(), size.height()) > most_across)
        reader.setScaledSize(size.scaled(most_across, most_across, Qt::KeepAspectRatio));
    image = reader.read(); // a null one paints nothing
    of = bytes;
    return image;
}

QPainterPath path_of(const Region& region, const View& view) {
    QPainterPath path;
    path.setFillRule(Qt::OddEvenFill);
    for (const Ring& ring : region.rings)
        path.addPath(path_of(Polyline{ring, true}, view));
    return path;
}

} // namespace

void paint_printed(QPainter& painter, const PartScene& scene, const View& view) {
    const auto picture = traced_from(scene.part->source.spec);
    if (!picture) return;
    for (const auto& [step, report] : scene.evaluated->reports) {
        if (!report->printed) continue;
        const QImage image = unpacked(picture->bytes);
        const double wide = in_mm(picture->width) * scene.part->scale;
        if (image.isNull()) return;
        const Box box{0, 0, wide, wide * image.height() / image.width()};
        painter.save();
        painter.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
        painter.setClipPath(path_of(report->printed->art, view), Qt::IntersectClip);
        painter.drawImage(view.map(box), image);
        painter.restore();
        painter.save();
        painter.setRenderHint(QPainter::Antialiasing);
        painter.strokePath(path_of(report->printed->whole, view),
                           QPen(Theme::current().quiet, 1, Qt::DotLine));
        painter.restore();
        return;
    }
}

} // namespace dotlane::present
