#include "present/printed_painter.h"

#include <QBuffer>
#include <QImageReader>
#include <mutex>

#include "present/drawn_painter.h"
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

QPainterPath path_of(const Region& region, const Affine& to, const View& view) {
    QPainterPath path;
    path.setFillRule(Qt::OddEvenFill);
    for (const Ring& ring : region.rings)
        path.addPath(path_of(transformed(Polyline{ring, true}, to), view));
    return path;
}

/// `wide`: mm before `to`. False: it cannot be unpacked.
bool paint_inside(QPainter& painter, const std::shared_ptr<const std::string>& bytes, double wide,
                  const QPainterPath& art, const Affine& to, const View& view) {
    const QImage image = unpacked(bytes);
    if (image.isNull()) return false;
    const double s = view.scale;
    painter.save();
    painter.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
    painter.setClipPath(art, Qt::IntersectClip);
    painter.setTransform(QTransform(to.a * s, to.b * s, to.c * s, to.d * s, to.e * s + view.shift.x(),
                                    to.f * s + view.shift.y()),
                         true);
    painter.drawImage(QRectF(0, 0, wide, wide * image.height() / image.width()), image);
    painter.restore();
    return true;
}

} // namespace

void paint_picture(QPainter& painter, const PrintPicture& picture, const View& view) {
    QPainterPath art;
    art.setFillRule(Qt::OddEvenFill);
    for (const Polyline& line : picture.art)
        art.addPath(path_of(line, view));
    paint_inside(painter, picture.bytes, in_mm(picture.width), art, picture.to_sheet, view);
}

void paint_printed(QPainter& painter, const std::vector<PrintShape>& shapes, const View& view) {
    QColor hair = Theme::current().quiet;
    hair.setAlpha(110);
    for (const PrintShape& shape : shapes) {
        QPainterPath path;
        path.setFillRule(shape.rule == FillRule::evenodd ? Qt::OddEvenFill : Qt::WindingFill);
        for (const Polyline& line : shape.contours)
            path.addPath(path_of(line, view));
        paint_drawn(painter, path, shape.drawn, view.scale);
        if (shape.drawn.fill && !shape.drawn.stroke) painter.strokePath(path, QPen(hair, 0.7));
    }
}

void paint_printed(QPainter& painter, const PrintedPicture& printed, double scale, const Affine& to,
                   const View& view, bool bleed) {
    const bool painted = paint_inside(painter, printed.from.bytes, in_mm(printed.from.width) * scale,
                                      path_of(printed.areas->art, to, view), to, view);
    if (!painted || !bleed) return;
    painter.strokePath(path_of(printed.areas->whole, to, view), QPen(Theme::current().quiet, 1, Qt::DotLine));
}

} // namespace dotlane::present
