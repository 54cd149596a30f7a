#include "present/lane_style.h"

#include <cmath>

namespace dotlane::present {
namespace {

QPen pen(QColor colour, double width, Qt::PenCapStyle cap = Qt::FlatCap) {
    QPen p(colour, width);
    p.setCapStyle(cap);
    // Round joins take as long as the line itself, and are seen only where it is wide.
    p.setJoinStyle(width < 2 ? Qt::BevelJoin : Qt::RoundJoin);
    return p;
}

QPen dashed(QColor colour, double width, QList<qreal> pattern) {
    QPen p = pen(colour, width);
    p.setDashPattern(pattern);
    return p;
}

/// Calls at(point, direction) every `step` px along the line.
template<class At>
void along(const QPolygonF& line, double step, double first, At at) {
    double due = first, done = 0;
    for (int i = 1; i < line.size(); ++i) {
        const QPointF d = line[i] - line[i - 1];
        const double l = std::hypot(d.x(), d.y());
        if (l <= 0) continue;
        while (due <= done + l) {
            at(line[i - 1] + d * ((due - done) / l), d / l);
            due += step;
        }
        done += l;
    }
}

/// Whether the line is this long, px.
bool reaches(const QPolygonF& line, double length) {
    for (int i = 1; i < line.size() && length > 0; ++i)
        length -= std::hypot(line[i].x() - line[i - 1].x(), line[i].y() - line[i - 1].y());
    return length <= 0;
}

void wedge(QPainter& painter, const QPolygonF& line, QColor colour) {
    for (int i = 1; i < line.size(); ++i) {
        const QPointF d = line[i] - line[0];
        const double l = std::hypot(d.x(), d.y());
        if (l < 3) continue;
        const QPointF u = d / l, n(-u.y(), u.x());
        painter.save();
        painter.setPen(Qt::NoPen);
        painter.setBrush(colour);
        painter.drawPolygon(QPolygonF{line[0] + n * 3.2, line[0] + u * 8, line[0] - n * 3.2});
        painter.restore();
        return;
    }
}

void paint_one(QPainter& painter, const QPolygonF& line, const LaneLook& look, const View& view,
               double extra) {
    const QColor c = look.colour;
    switch (look.action) {
    case Action::cut:
        painter.setPen(pen(c, 1.4 + extra));
        painter.drawPolyline(line);
        if (reaches(line, 70)) wedge(painter, line, c); // it would hide a dash or a crumb
        break;
    case Action::perforate:
        painter.setPen(dashed(c, 1.6 + extra, {4, 3}));
        painter.drawPolyline(line);
        break;
    case Action::score:
        painter.setPen(dashed(c, 1.6 + extra, {9, 3}));
        painter.drawPolyline(line);
        if (look.fold == Fold::mountain) { // a tick on one side at the middle of each dash
            painter.setPen(pen(c, 1.4 + extra));
            const double period = 12 * (1.6 + extra);
            along(line, period, period * 0.375,
                  [&](QPointF p, QPointF u) { painter.drawLine(p, p + QPointF(u.y(), -u.x()) * 4.5); });
        }
        break;
    case Action::draw: {
        // Lines of up to a pixel are painted ten times as fast as wider ones, and round ends cost as much as
        // the line.
        const double w = look.tip_mm * view.scale;
        painter.setPen(
            pen(c, w + extra < 1.3 ? 1 : std::max(1.2, w) + extra, w < 2 ? Qt::FlatCap : Qt::RoundCap));
        painter.drawPolyline(line);
        break;
    }
    case Action::foil: {
        // Twin lines while there is room between them, one when there is not.
        const double w = std::max(2.6, std::min(look.tip_mm * view.scale, 6.0));
        QPainterPathStroker stroker;
        stroker.setWidth(w);
        stroker.setJoinStyle(Qt::RoundJoin);
        painter.setPen(pen(c, 0.9 + extra));
        if (line.size() < 400 && w > 2.2) {
            QPainterPath path;
            path.addPolygon(line);
            painter.drawPath(stroker.createStroke(path));
        } else {
            painter.drawPolyline(line);
        }
        break;
    }
    case Action::engrave:
        painter.setPen(pen(c, 1.2 + extra));
        painter.drawPolyline(line);
        along(line, 9, 4, [&](QPointF p, QPointF u) {
            painter.drawLine(p + QPointF(-u.y(), u.x()) * 2.6, p - QPointF(-u.y(), u.x()) * 2.6);
        });
        break;
    case Action::emboss: {
        painter.setPen(Qt::NoPen);
        painter.setBrush(c);
        along(line, 6, 0,
              [&](QPointF p, QPointF) { painter.drawEllipse(p, 1.6 + extra / 2, 1.6 + extra / 2); });
        painter.setBrush(Qt::NoBrush);
        break;
    }
    case Action::print: {
        QColor tint = c;
        tint.setAlpha(70);
        painter.setPen(Qt::NoPen);
        painter.setBrush(tint);
        painter.drawPolygon(line);
        painter.setBrush(Qt::NoBrush);
        break;
    }
    }
}

} // namespace

View View::fitting(const Box& box, const QRectF& into) {
    View v;
    const double w = std::max(box.width(), 1e-6), h = std::max(box.height(), 1e-6);
    v.scale = std::clamp(std::min(into.width() / w, into.height() / h), 1e-3, 400.0);
    v.shift = into.center() - QPointF(box.centre().x, box.centre().y) * v.scale;
    return v;
}

QPolygonF polygon_of(const Polyline& line, const View& view) {
    QPolygonF out;
    const double least = 0.1; // px squared: a third of a pixel
    QPointF last;
    const std::size_t n = line.points.size();
    for (std::size_t i = 0; i < n; ++i) {
        const QPointF p = view.map(line.points[i]);
        const QPointF d = p - last;
        if (i == 0 || i + 1 == n || d.x() * d.x() + d.y() * d.y() > least) out << p, last = p;
    }
    if (line.closed && n > 1) out << view.map(line.points.front());
    return out;
}

QPainterPath path_of(const Polyline& line, const View& view) {
    QPainterPath path;
    path.addPolygon(polygon_of(line, view));
    if (line.closed) path.closeSubpath();
    if (line.points.size() == 1)
        path.lineTo(path.currentPosition() + QPointF(0.01, 0)); // else it has no end to be seen
    return path;
}

void paint_way(QPainter& painter, const Polyline& line, const View& view) {
    if (line.points.size() == 1)
        painter.drawPoint(view.map(line.points.front()));
    else
        painter.drawPolyline(polygon_of(line, view));
}

void paint_lines(QPainter& painter, const Polylines& lines, const LaneLook& look, const View& view,
                 const QRectF& visible, bool strong) {
    painter.save();
    painter.setBrush(Qt::NoBrush);
    const QRectF room = visible.adjusted(-12, -12, 12, 12);
    // What is drawn is as wide as its ink.
    const double dot = look.action == Action::draw ? look.tip_mm * view.scale : 0;
    const QPen speck =
        pen(look.colour, std::max(dot, 1.0) + (strong ? 1.4 : 0), dot < 2 ? Qt::SquareCap : Qt::RoundCap);
    for (const Polyline& line : lines) {
        const QRectF box = view.map(bounds(line));
        if (!room.intersects(box.adjusted(-0.5, -0.5, 0.5, 0.5))) continue;
        if (box.width() < 0.6 && box.height() < 0.6) { // a speck: one dot, whatever it holds
            painter.setPen(speck);
            painter.drawPoint(box.center());
            continue;
        }
        paint_one(painter, polygon_of(line, view), look, view, strong ? 1.4 : 0);
    }
    painter.restore();
}

void paint_sample(QPainter& painter, const LaneLook& look, const QRectF& area) {
    painter.save();
    painter.setBrush(Qt::NoBrush);
    View view;
    view.scale = look.action == Action::draw ? std::min(6.0, 4 / std::max(look.tip_mm, 0.1)) : 6;
    QPolygonF line{QPointF(area.left(), area.center().y()), QPointF(area.right(), area.center().y())};
    if (look.action == Action::print)
        line = QPolygonF(area.adjusted(0, area.height() * 0.25, 0, -area.height() * 0.25));
    paint_one(painter, line, look, view, 0);
    painter.restore();
}

void paint_plate(QPainter& painter, const QRectF& area, const QString& letter, QColor colour) {
    if (area.height() < 2) return; // before it has been given a place
    painter.save();
    painter.setPen(Qt::NoPen);
    painter.setBrush(colour);
    painter.drawRoundedRect(area, area.height() * 0.22, area.height() * 0.22);
    painter.setPen(text_on(colour));
    QFont font = ui_font(10, QFont::DemiBold);
    font.setPixelSize(static_cast<int>(area.height() * (letter.size() > 1 ? 0.55 : 0.64)));
    painter.setFont(font);
    painter.drawText(area, Qt::AlignCenter, letter);
    painter.restore();
}

} // namespace dotlane::present
