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

QPainterPath path_of(const Region& region, const Affine& to, const View& view) {
    QPainterPath path;
    path.setFillRule(Qt::OddEvenFill);
    for (const Ring& ring : region.rings)
        path.addPath(path_of(transformed(Polyline{ring, true}, to), view));
    return path;
}

} // namespace

void paint_printed(QPainter& painter, const Part& part, const EvaluatedPart& evaluated, const Affine& to,
                   const View& view, bool bleed) {
    const auto picture = traced_from(part.source.spec);
    if (!picture) return;
    for (const auto& [step, report] : evaluated.reports) {
        if (!report->printed) continue;
        const QImage image = unpacked(picture->bytes);
        if (image.isNull()) return;
        const double wide = in_mm(picture->width) * part.scale, s = view.scale;
        painter.save();
        painter.setRenderHints(QPainter::Antialiasing | QPainter::SmoothPixmapTransform);
        painter.setClipPath(path_of(report->printed->art, to, view), Qt::IntersectClip);
        painter.setTransform(QTransform(to.a * s, to.b * s, to.c * s, to.d * s, to.e * s + view.shift.x(),
                                        to.f * s + view.shift.y()),
                             true);
        painter.drawImage(QRectF(0, 0, wide, wide * image.height() / image.width()), image);
        painter.restore();
        if (!bleed) return;
        painter.save();
        painter.setRenderHint(QPainter::Antialiasing);
        painter.strokePath(path_of(report->printed->whole, to, view),
                           QPen(Theme::current().quiet, 1, Qt::DotLine));
        painter.restore();
        return;
    }
}

bool stands_for_picture(const Project& project, const Part& part, const EvaluatedPart& evaluated,
                        const RunSet& run) {
    const Lane* lane = find(project, run.lane);
    if (!lane || row(lane->action).run) return false;
    return std::any_of(part.steps.begin(), part.steps.end(), [&](const Step& step) {
        const auto report = evaluated.reports.find(step.id);
        return report != evaluated.reports.end() && report->second->printed &&
               (step.of.empty() || std::find(step.of.begin(), step.of.end(), run.set) != step.of.end());
    });
}

} // namespace dotlane::present
