// How the lines of a lane look, so that no one needs to see colour: a pattern for each action, in the lane's
// colour, and the letter plate.
#pragma once

#include <QPainter>
#include <QPainterPath>

#include "core/geometry/polyline.h"
#include "core/project/project.h"
#include "present/theme.h"

namespace dotlane::present {

struct LaneLook {
    Action action = Action::cut;
    QColor colour;
    double tip_mm = 0;
    Fold fold = Fold::valley;
};

/// Millimetres to pixels: uniform scale and shift.
struct View {
    double scale = 1; ///< px per mm
    QPointF shift;
    QPointF map(Point p) const { return {p.x * scale + shift.x(), p.y * scale + shift.y()}; }
    Point unmap(QPointF q) const { return {(q.x() - shift.x()) / scale, (q.y() - shift.y()) / scale}; }
    QRectF map(const Box& b) const { return {map(Point{b.x0, b.y0}), map(Point{b.x1, b.y1})}; }
    /// Shows the box in the rectangle, as large as fits.
    static View fitting(const Box& box, const QRectF& into);
};

/// Points closer than about a third of a pixel are merged, so that a drawing of any size costs what the
/// screen can show.
QPainterPath path_of(const Polyline& line, const View& view);
QPolygonF polygon_of(const Polyline& line, const View& view);
/// In the painter's pen; a line of one place is a dot.
void paint_way(QPainter& painter, const Polyline& line, const View& view);

/// Lines in the lane's pattern, clipped to what `visible` (px) shows. `strong` is for chosen lines.
void paint_lines(QPainter& painter, const Polylines& lines, const LaneLook& look, const View& view,
                 const QRectF& visible, bool strong = false);
/// A short sample of the pattern, for legends and tracks.
void paint_sample(QPainter& painter, const LaneLook& look, const QRectF& area);
/// The letter plate: rounded tile with the lane's letter.
void paint_plate(QPainter& painter, const QRectF& area, const QString& letter, QColor colour);

} // namespace dotlane::present
