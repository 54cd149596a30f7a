#include "present/drawn_painter.h"

#include "present/theme.h"

namespace dotlane::present {
namespace {

QColor with_opacity(Colour colour, double opacity) {
    QColor out = to_qcolor(colour);
    out.setAlphaF(static_cast<float>(opacity));
    return out;
}

QPen pen_of(const Drawn& drawn, double dots_per_mm) {
    // A pen of no width would be one dot wide.
    const double width = std::max(in_mm(drawn.stroke_width) * dots_per_mm, 1e-3);
    QPen pen(with_opacity(*drawn.stroke, drawn.stroke_opacity), width);
    pen.setCapStyle(drawn.cap == LineCap::round    ? Qt::RoundCap
                    : drawn.cap == LineCap::square ? Qt::SquareCap
                                                   : Qt::FlatCap);
    pen.setJoinStyle(drawn.join == LineJoin::round   ? Qt::RoundJoin
                     : drawn.join == LineJoin::bevel ? Qt::BevelJoin
                                                     : Qt::SvgMiterJoin);
    pen.setMiterLimit(drawn.mitre_limit);
    if (drawn.dashes_mm.empty()) return pen;
    QList<qreal> dashes; // in widths of the pen
    for (const double v : drawn.dashes_mm)
        dashes << v * dots_per_mm / width;
    if (dashes.size() % 2 == 1) dashes += QList<qreal>(dashes);
    pen.setDashPattern(dashes);
    pen.setDashOffset(drawn.dash_offset_mm * dots_per_mm / width);
    return pen;
}

} // namespace

void paint_drawn(QPainter& painter, const QPainterPath& path, const Drawn& drawn, double dots_per_mm) {
    if (drawn.fill) painter.fillPath(path, with_opacity(*drawn.fill, drawn.fill_opacity));
    if (!drawn.stroke) return;
    const QPen pen = pen_of(drawn, dots_per_mm);
    if (drawn.nib == Drawn{}.nib) return painter.strokePath(path, pen);
    const auto [a, b, c, d] = drawn.nib;
    const QTransform nib(a, b, c, d, 0, 0);
    painter.save();
    painter.setTransform(nib, true);
    painter.strokePath(nib.inverted().map(path), pen);
    painter.restore();
}

} // namespace dotlane::present
