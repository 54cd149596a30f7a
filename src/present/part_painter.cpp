#include "present/part_painter.h"

#include "core/base/measure.h"
#include "present/drawn_painter.h"
#include "present/printed_painter.h"

namespace dotlane::present {

LaneLook look_of(const Project& project, const Catalog& catalog, LaneId id, QColor ground) {
    const Lane* lane = find(project, id);
    if (!lane) return {Action::score, Theme::current().error, 0};
    const Tool* tool = catalog.tool(lane->tool);
    return {lane->action, legible_on(to_qcolor(lane->colour), ground), tool ? in_mm(tool->tip) : 0.4,
            lane->fold};
}

namespace {

void paint_dimension(QPainter& painter, const View& view, const Box& box, LengthUnit unit) {
    const Theme& theme = Theme::current();
    const QRectF r = view.map(box);
    painter.setFont(ui_font(9));
    const QFontMetricsF metrics(painter.font());
    const auto line = [&](QPointF a, QPointF b, const QString& text, bool upright) {
        const QPointF n = upright ? QPointF(4, 0) : QPointF(0, 4);
        painter.setPen(QPen(theme.quiet, 1));
        painter.drawLine(a, b);
        painter.drawLine(a - n, a + n);
        painter.drawLine(b - n, b + n);
        const QPointF middle = (a + b) / 2;
        painter.save();
        painter.translate(middle);
        if (upright) painter.rotate(-90);
        QRectF label = metrics.boundingRect(text).adjusted(-6, -2, 6, 2);
        label.moveCenter({0, 0});
        painter.fillRect(label, theme.paper);
        painter.setPen(theme.ink);
        painter.drawText(label, Qt::AlignCenter, text);
        painter.restore();
    };
    const auto text = [&](double v) { return QString::fromStdString(to_text(mm(v), unit)); };
    line(r.topLeft() + QPointF(0, -20), r.topRight() + QPointF(0, -20), text(box.width()), false);
    line(r.topRight() + QPointF(20, 0), r.bottomRight() + QPointF(20, 0), text(box.height()), true);
}

} // namespace

void paint_stock(QPainter& painter, const PartScene& scene, QColor stock, const View& view) {
    QPainterPath path;
    path.setFillRule(Qt::OddEvenFill);
    for (const RunSet& run : scene.evaluated->runs) {
        const Lane* lane = find(*scene.project, run.lane);
        if (!lane || lane->action != Action::cut) continue;
        for (const Polyline& line : run.lines)
            if (line.closed) path.addPath(path_of(line, view));
    }
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.fillPath(path, stock);
    painter.restore();
}

void paint_part(QPainter& painter, const PartScene& scene, const View& view, const QRectF& visible) {
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    const Theme& theme = Theme::current();
    const auto printed = printed_picture(*scene.project, *scene.part, *scene.evaluated);
    if (printed) paint_printed(painter, *printed, scene.part->scale, {}, view, true);
    const auto shapes = printed_shapes(*scene.project, *scene.catalog, *scene.evaluated, 0, {});
    paint_printed(painter, shapes, view);
    const bool on_print = printed || !shapes.empty();
    // Lines that are set aside, faint, so that what steps work on can still be seen and chosen.
    for (const LineSet& set : scene.part->sets) {
        const bool unassigned = !set.lane && !set.set_aside;
        if (!set.set_aside && !unassigned) continue;
        Polylines lines;
        for (const FlatLine& line : scene.evaluated->lines)
            if (line.set == set.id) lines.insert(lines.end(), line.contours.begin(), line.contours.end());
        if (unassigned) {
            paint_lines(painter, lines, {Action::score, theme.error, 0}, view, visible);
        } else {
            QColor faint = theme.quiet;
            faint.setAlpha(90);
            paint_lines(painter, lines, {Action::draw, faint, 0}, view, visible);
        }
    }
    for (const Step& step : scene.part->steps) { // and what steps made only for later ones
        if (!step.aside || !step.result) continue;
        QColor faint = theme.quiet;
        faint.setAlpha(90);
        for (const FlatLine& line : scene.evaluated->lines)
            if (line.set == step.result)
                paint_lines(painter, line.contours, {Action::draw, faint, 0}, view, visible);
    }
    for (const RunSet& run : scene.evaluated->runs) {
        LaneLook look = look_of(*scene.project, *scene.catalog, run.lane, scene.ground);
        if (look.action == Action::print) continue; // it is seen itself
        const bool fill = run.ink != nullptr;
        // A fill's lines are seen as the ink they will be, whatever leaves it, and no wider when it is lit.
        if (fill) {
            look.action = Action::draw;
            // Thin lines side by side are paler than the ink, as what each covers of a pixel does not add up.
            // Wider ones take ten times as long.
            std::size_t points = 0;
            for (const Polyline& line : run.lines)
                points += line.points.size();
            if (run.ink->spacing < mm(look.tip_mm) && points < 20'000)
                look.tip_mm = std::max(look.tip_mm, 1.4 / view.scale);
        }
        // A cut lies between pale stock and dark bench, or on colours like its own: seen on both.
        if (look.action == Action::cut && (theme.dark || on_print)) {
            QColor rim = on_print ? Theme::light().paper : theme.quiet;
            rim.setAlpha(on_print ? 220 : 150);
            paint_lines(painter, run.lines, {Action::draw, rim, (on_print ? 4 : 3) / view.scale}, view,
                        visible);
        }
        paint_lines(painter, run.lines, look, view, visible, !fill && run.step && run.step == scene.lit);
    }
    if (!scene.chosen.empty()) {
        const bool few = scene.chosen.size() <= 300; // a glow around thousands would be slow fog
        QColor glow = theme.lamp;
        glow.setAlpha(110);
        painter.setBrush(Qt::NoBrush);
        for (const FlatLine& line : scene.evaluated->lines) {
            if (!scene.chosen.contains(line.id)) continue;
            for (const Polyline& c : line.contours) {
                QPen halo(glow, 7);
                halo.setCapStyle(Qt::RoundCap), halo.setJoinStyle(Qt::RoundJoin);
                painter.setPen(halo);
                if (few) paint_way(painter, c, view);
                painter.setPen(QPen(theme.lamp, 1.6));
                paint_way(painter, c, view);
            }
        }
    }
    if (scene.dimensions && !scene.evaluated->box.empty())
        paint_dimension(painter, view, scene.evaluated->box, scene.project->unit);
    painter.restore();
}

namespace {

void paint_runs(QPainter& painter, const PartScene& scene, const View& view) {
    for (const RunSet& run : scene.evaluated->runs) {
        const LaneLook look = look_of(*scene.project, *scene.catalog, run.lane, scene.ground);
        painter.setPen(QPen(look.colour, run.ink ? 0.5 : 1));
        for (const Polyline& line : run.lines)
            paint_way(painter, line, view);
    }
}

} // namespace

void paint_part_thumbnail(QPainter& painter, const PartScene& scene, const QRectF& area) {
    if (scene.evaluated->box.empty()) return;
    const View view = View::fitting(scene.evaluated->box, area.adjusted(4, 4, -4, -4));
    painter.save();
    painter.setClipRect(area);
    painter.setRenderHint(QPainter::Antialiasing);
    paint_runs(painter, scene, view);
    painter.setPen(QPen(Theme::current().error, 1));
    for (const LineSet& set : scene.part->sets)
        if (!set.lane && !set.set_aside)
            for (const FlatLine& line : scene.evaluated->lines)
                if (line.set == set.id)
                    for (const Polyline& c : line.contours)
                        paint_way(painter, c, view);
    painter.restore();
}

void paint_part_place(QPainter& painter, const PartScene& scene, const Box& place, const QRectF& area) {
    // A sliver may be a hair wide: what is around it tells where it is.
    const View view =
        View::fitting(place.grown(std::max(1.5, 0.4 * std::max(place.width(), place.height()))), area);
    painter.save();
    painter.setClipRect(area);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.fillRect(area, Theme::current().paper);
    paint_runs(painter, scene, view);
    QRectF ring = view.map(place);
    const double least = 12;
    ring.adjust(-4, -4, 4, 4);
    if (ring.width() < least) ring.adjust((ring.width() - least) / 2, 0, (least - ring.width()) / 2, 0);
    if (ring.height() < least) ring.adjust(0, (ring.height() - least) / 2, 0, (least - ring.height()) / 2);
    painter.setPen(QPen(Theme::current().lamp, 1.6));
    painter.setBrush(Qt::NoBrush);
    painter.drawRoundedRect(ring & area.adjusted(1, 1, -1, -1), 5, 5);
    painter.restore();
}

void paint_drawing(QPainter& painter, const Drawing& drawing, const View& view, const QRectF& visible) {
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    for (const DrawnLine& line : drawing.lines) {
        const Box box = bounds(line.shape);
        if (box.empty() || !visible.intersects(view.map(box).adjusted(-20, -20, 20, 20))) continue;
        QPainterPath path;
        for (const Contour& c : line.shape.contours)
            path.addPath(path_of(flattened(c, mm(0.2 / view.scale)), view));
        path.setFillRule(line.shape.rule == FillRule::evenodd ? Qt::OddEvenFill : Qt::WindingFill);
        paint_drawn(painter, path, line.drawn, view.scale);
    }
    painter.restore();
}

} // namespace dotlane::present
