#include "present/print_pdf.h"

#include <QPdfWriter>

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

QPen pen_of(const Drawn& ink) {
    QColor colour = to_qcolor(*ink.stroke);
    colour.setAlphaF(static_cast<float>(ink.stroke_opacity));
    const double width = std::max(in_mm(ink.stroke_width), 1e-3); // a pen of no width would be one dot wide
    QPen pen(colour, width);
    pen.setCapStyle(ink.cap == LineCap::round    ? Qt::RoundCap
                    : ink.cap == LineCap::square ? Qt::SquareCap
                                                 : Qt::FlatCap);
    pen.setJoinStyle(ink.join == LineJoin::round   ? Qt::RoundJoin
                     : ink.join == LineJoin::bevel ? Qt::BevelJoin
                                                   : Qt::SvgMiterJoin);
    pen.setMiterLimit(ink.mitre_limit);
    if (!ink.dashes_mm.empty()) {
        QList<double> dashes; // in widths of the pen
        for (std::size_t i = 0; i < ink.dashes_mm.size() * (ink.dashes_mm.size() % 2 + 1); ++i)
            dashes << ink.dashes_mm[i % ink.dashes_mm.size()] / width;
        pen.setDashPattern(dashes);
        pen.setDashOffset(ink.dash_offset_mm / width);
    }
    return pen;
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

} // namespace

Result<std::string> print_pdf(const PrintSheet& print, const std::string& title) {
    constexpr int dots = 1200;
    const Box& page = print.sheet.stock_area;
    const QPageSize size({page.width(), page.height()}, QPageSize::Millimeter, QString(),
                         QPageSize::ExactMatch);
    return pdf_bytes(size, {}, QString::fromStdString(title), dots, [&](QPdfWriter& writer) {
        QPainter painter(&writer);
        painter.scale(dots / mm_per_inch, dots / mm_per_inch);
        painter.translate(-page.x0, -page.y0);
        for (const PrintShape& shape : print.shapes) {
            const QPainterPath path = path_in_mm(shape.contours, shape.rule);
            if (shape.drawn.fill) {
                QColor colour = to_qcolor(*shape.drawn.fill);
                colour.setAlphaF(static_cast<float>(shape.drawn.fill_opacity));
                painter.fillPath(path, colour);
            }
            if (shape.drawn.stroke) painter.strokePath(path, pen_of(shape.drawn));
        }
        paint_marks(painter, print);
    });
}

} // namespace dotlane::present
