#include "present/print_pdf.h"

#include <QPdfWriter>

#include "present/drawn_painter.h"
#include "present/pdf.h"
#include "present/theme.h"

namespace dotlane::present {
namespace {

QPainterPath path_in_mm(const Polylines& contours, FillRule rule) {
    QPainterPath path;
    path.setFillRule(rule == FillRule::evenodd ? Qt::OddEvenFill : Qt::WindingFill);
    for (const Polyline& line : contours) {
        if (line.points.empty()) continue;
        path.moveTo(line.points[0].x, line.points[0].y);
        for (std::size_t i = 1; i < line.points.size(); ++i)
            path.lineTo(line.points[i].x, line.points[i].y);
        if (line.closed) path.closeSubpath();
    }
    return path;
}

void paint_marks(QPainter& painter, const PrintSheet& print) {
    painter.setPen(QPen(QColor("#9a958c"), 0.1));
    painter.setBrush(Qt::NoBrush);
    for (const Polyline& mark : print.marks)
        painter.drawPath(path_in_mm({mark}, FillRule::nonzero));
    if (!print.square) return;
    const QRectF square(print.square->x0, print.square->y0, print.square->width(), print.square->height());
    painter.drawRect(square);
    painter.setPen(QColor("#6d6a64"));
    QFont font = ui_font(8);
    font.setPixelSize(3); // millimetres here
    painter.setFont(font);
    painter.drawText(square, Qt::AlignCenter, QStringLiteral("%1 mm").arg(print.square->width()));
}

void paint_image(QPainter& painter, const PlacedImage& placed) {
    const ColourImage& of = placed.image;
    const QImage image(of.rgb.data(), of.width, of.height, of.width * 3, QImage::Format_RGB888);
    const Affine& m = placed.to_sheet;
    painter.save();
    painter.setRenderHint(QPainter::LosslessImageRendering);
    painter.setClipPath(path_in_mm(placed.inside, FillRule::evenodd), Qt::IntersectClip);
    painter.setTransform(QTransform(m.a, m.b, m.c, m.d, m.e, m.f), true);
    painter.drawImage(QRectF(0, 0, of.width, of.height), image);
    painter.restore();
}

} // namespace

void paint_print(QPainter& painter, const PrintSheet& print) {
    for (const PrintShape& shape : print.shapes)
        paint_drawn(painter, path_in_mm(shape.contours, shape.rule), shape.drawn, 1);
    paint_marks(painter, print);
}

Result<std::string> print_pdf(const PrintSheet& print, const std::vector<PlacedImage>& images,
                              const std::string& title) {
    constexpr int dots = 1200;
    const Box& page = print.sheet.stock_area;
    const QPageSize size({page.width(), page.height()}, QPageSize::Millimeter, QString(),
                         QPageSize::ExactMatch);
    return pdf_bytes(size, {}, QString::fromStdString(title), dots, [&](QPdfWriter& writer) {
        QPainter painter(&writer);
        painter.scale(dots / mm_per_inch, dots / mm_per_inch);
        painter.translate(-page.x0, -page.y0);
        for (const PlacedImage& placed : images)
            paint_image(painter, placed);
        paint_print(painter, print);
    });
}

} // namespace dotlane::present
