#include "present/heat_painter.h"

namespace dotlane::present {

QColor heat_colour(Heat::Ink ink) {
    // Apart in lightness first, then in blue against yellow, which nearly all eyes tell.
    switch (ink) {
    case Heat::once:
        return QColor("#7fb0cf");
    case Heat::twice:
        return QColor("#1f4e79");
    case Heat::bare:
        return QColor("#ffd84d");
    case Heat::over:
        return QColor("#c2571a");
    case Heat::none:
        break;
    }
    return QColor(0, 0, 0, 0);
}

QImage heat_image(const Heat& heat) {
    QImage out(static_cast<int>(heat.columns), static_cast<int>(heat.rows), QImage::Format_Indexed8);
    QList<QRgb> colours;
    for (const Heat::Ink ink : {Heat::none, Heat::bare, Heat::once, Heat::twice, Heat::over})
        colours.push_back(heat_colour(ink).rgba());
    out.setColorTable(colours);
    for (int row = 0; row < out.height(); ++row)
        std::copy_n(heat.ink.begin() + static_cast<std::ptrdiff_t>(row) * heat.columns, heat.columns,
                    out.scanLine(row));
    return out;
}

void paint_heat(QPainter& painter, const Heat& heat, const QImage& image, const View& view) {
    if (image.isNull()) return;
    const QPointF corner = view.map(Point{heat.box.x0, heat.box.y0});
    const double square = heat.square * view.scale;
    painter.save();
    // Shown smaller, squares are averaged; shown larger, each stays a square.
    painter.setRenderHint(QPainter::SmoothPixmapTransform, square < 1);
    painter.drawImage(QRectF(corner, QSizeF(square * image.width(), square * image.height())), image);
    painter.restore();
}

} // namespace dotlane::present
