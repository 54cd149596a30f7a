#include "present/sheet_painter.h"

#include "present/printed_painter.h"
#include "present/words.h"

#include <cmath>

namespace dotlane::present {

Box mat_box(const LaidSheet& laid) {
    return {0, 0, in_mm(laid.mat_width), in_mm(laid.mat_height)};
}

void paint_mat(QPainter& painter, const SheetScene& scene, const View& view, bool details) {
    const Theme& theme = Theme::current();
    const LaidSheet* laid = scene.derived->sheet(scene.sheet);
    const Sheet* sheet = find(*scene.project, scene.sheet);
    if (!laid || !sheet) return;
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF mat = view.map(mat_box(*laid));
    // The mat's rim and its loading edge, which is the top one.
    const QColor rim = theme.dark ? QColor("#3a4a4d") : QColor("#b9c6c3");
    painter.setPen(Qt::NoPen);
    painter.setBrush(rim);
    const double border = details ? std::min(16.0, 9 * view.scale) : 2;
    painter.drawRoundedRect(mat.adjusted(-border, -border, border, border), border * 0.7, border * 0.7);
    painter.setBrush(theme.dark ? QColor("#2c3a3d") : QColor("#d5dedb"));
    painter.drawRect(mat);
    if (details) { // grid: 10 mm, or 1 in when inches are shown
        const double step = scene.project->unit == LengthUnit::mm ? 10 : mm_per_inch;
        QColor grid = rim;
        grid.setAlpha(120);
        painter.setPen(QPen(grid, 0.6));
        if (step * view.scale > 5) {
            for (double x = step; x < in_mm(laid->mat_width); x += step)
                painter.drawLine(view.map(Point{x, 0}), view.map(Point{x, in_mm(laid->mat_height)}));
            for (double y = step; y < in_mm(laid->mat_height); y += step)
                painter.drawLine(view.map(Point{0, y}), view.map(Point{in_mm(laid->mat_width), y}));
        }
        const QPointF tip(mat.center().x(), mat.top() - border + 3);
        painter.setPen(Qt::NoPen);
        painter.setBrush(theme.dark ? QColor("#8fb2b5") : QColor("#5f7f80"));
        painter.drawPolygon(QPolygonF{tip, tip + QPointF(7, border - 6), tip + QPointF(-7, border - 6)});
    }
    if (const Stock* stock = scene.catalog->stock(sheet->stock)) {
        const QRectF paper = view.map(laid->stock).intersected(mat);
        painter.setPen(Qt::NoPen);
        if (details) {
            painter.setBrush(QColor(0, 0, 0, 26));
            painter.drawRect(paper.translated(1.5, 2));
        }
        painter.setBrush(to_qcolor(stock->colour));
        painter.setPen(QPen(theme.hairline, 0.8));
        painter.drawRect(paper);
        if (details) { // beyond the usable area the tool does not reach
            QPainterPath out;
            out.addRect(paper);
            QPainterPath in;
            in.addRect(view.map(laid->usable));
            painter.setPen(Qt::NoPen);
            painter.setBrush(QBrush(QColor(60, 60, 60, 60), Qt::BDiagPattern));
            painter.drawPath(out.subtracted(in));
            painter.setBrush(Qt::NoBrush);
            QPen edge(QColor(90, 90, 90, 140), 0.8);
            edge.setDashPattern({6, 4});
            painter.setPen(edge);
            painter.drawRect(view.map(laid->usable));
        }
    }
    painter.restore();
}

namespace {

constexpr double detail_scale = 0.4; // px per mm below which patterns and grids would only be noise

QColor ground_of(const SheetScene& scene) {
    const Sheet* sheet = find(*scene.project, scene.sheet);
    const Stock* stock = sheet ? scene.catalog->stock(sheet->stock) : nullptr;
    return stock ? to_qcolor(stock->colour) : Theme::current().paper;
}

} // namespace

void paint_placed(QPainter& painter, const SheetScene& scene, const EvaluatedPart& part, int piece,
                  const Affine& to_sheet, const View& view, const QRectF& visible) {
    const QColor ground = ground_of(scene);
    const Part* own = find(*scene.project, part.part);
    const auto printed = own && piece == 0 ? printed_picture(*scene.project, *own, part) : std::nullopt;
    if (printed) paint_printed(painter, *printed, own->scale, to_sheet, view, false);
    if (own)
        paint_printed(painter, printed_shapes(*scene.project, *scene.catalog, part, piece, to_sheet), view);
    for (std::size_t r = 0; r < part.runs.size(); ++r) {
        const RunSet& run = part.runs[r];
        const Polylines& lines = lines_of(part, r, piece);
        LaneLook look = look_of(*scene.project, *scene.catalog, run.lane, ground);
        if (look.action == Action::print) continue;
        if (view.scale <= detail_scale) {
            painter.setPen(QPen(look.colour, 0.7));
            for (const Polyline& line : lines)
                paint_way(painter, transformed(line, to_sheet), view);
            continue;
        }
        if (run.step) look.action = Action::draw, look.tip_mm *= 0.5;
        paint_lines(painter, transformed(lines, to_sheet), look, view, visible);
    }
}

void paint_sheet(QPainter& painter, const SheetScene& scene, const View& view, const QRectF& visible) {
    const LaidSheet* laid = scene.derived->sheet(scene.sheet);
    const Sheet* sheet = find(*scene.project, scene.sheet);
    if (!laid || !sheet) return;
    const bool details = view.scale > detail_scale;
    paint_mat(painter, scene, view, details);
    if (!scene.parts) return;
    const Theme& theme = Theme::current();
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    for (const PlacedPart& placed : laid->parts) {
        const EvaluatedPart* part = scene.derived->part(placed.placement.part);
        if (!part || scene.hidden.contains(placed.placement.id)) continue;
        const QRectF area = view.map(placed.box);
        if (!visible.intersects(area.adjusted(-4, -4, 4, 4))) continue;
        paint_placed(painter, scene, *part, placed.placement.piece, placed.to_sheet, view, visible);
        if (!laid->usable.grown(1e-6).contains(placed.outline)) {
            QPen frame(theme.error, 1.2);
            frame.setDashPattern({5, 3});
            painter.setPen(frame);
            painter.setBrush(Qt::NoBrush);
            painter.drawRect(area.adjusted(-3, -3, 3, 3));
        }
        if (placed.placement.mirrored && details) {
            painter.setFont(ui_font(8, QFont::DemiBold));
            painter.setPen(theme.tide);
            painter.drawText(area.adjusted(2, 2, -2, -2), Qt::AlignRight | Qt::AlignTop,
                             Words::tr("mirrored"));
        }
    }
    painter.restore();
}

namespace {

QPen ink_pen(const PassMove& pass, const View& view) {
    QColor colour = to_qcolor(pass.colour);
    double width = std::max(in_mm(pass.tip) * view.scale, 0.6);
    if (pass.action == Action::score || pass.action == Action::emboss) colour.setAlpha(90);
    if (pass.action == Action::cut)
        colour = QColor("#1c1f21"), width = std::max(1.3, width); // a cut opens: dark gap
    QPen pen(colour, width);
    pen.setCapStyle(Qt::RoundCap), pen.setJoinStyle(Qt::RoundJoin);
    if (pass.action == Action::perforate) pen.setDashPattern({3, 2});
    return pen;
}

} // namespace

void paint_strokes(QPainter& painter, const PassMove& pass, std::size_t from, std::size_t to,
                   const View& view) {
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    const QPen ink = ink_pen(pass, view);
    painter.setPen(ink);
    for (std::size_t s = from; s < to; ++s)
        paint_way(painter, stroke_of(pass, s), view);
    if (pass.action == Action::foil && ink.widthF() > 1.2) { // a sheen along the middle of each stroke
        QPen sheen(QColor(255, 246, 214, 150), ink.widthF() * 0.3);
        sheen.setCapStyle(Qt::RoundCap);
        painter.setPen(sheen);
        for (std::size_t s = from; s < to; ++s)
            paint_way(painter, stroke_of(pass, s), view);
    }
    painter.restore();
}

namespace {

QPen travel_pen() {
    QColor faint = Theme::current().tide;
    faint.setAlpha(90);
    QPen pen(faint, 0.8);
    pen.setDashPattern({2, 4});
    return pen;
}

} // namespace

void paint_travel(QPainter& painter, const Program& program, const PassMove& pass, std::size_t from,
                  std::size_t to, const View& view) {
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(travel_pen());
    for (std::size_t s = from; s < to; ++s) {
        const Polyline* before = s > 0 ? &stroke_of(pass, s - 1) : nullptr;
        const Point at = !before          ? rest_position(program, pass.sheet)
                         : before->closed ? before->points.front()
                                          : before->points.back();
        painter.drawLine(view.map(at), view.map(stroke_of(pass, s).points.front()));
    }
    painter.restore();
}

void paint_carriage(QPainter& painter, const RehearsalScene& scene, const MachineState& state,
                    const View& view, const QRectF& mat) {
    const Theme& theme = Theme::current();
    const auto* pass = std::get_if<PassMove>(&scene.plan->program.moves[state.move]);
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    const QPointF at = view.map(state.at);
    if (pass && state.kind == TimelineEntry::Kind::stroke) {
        painter.setPen(ink_pen(*pass, view));
        paint_way(painter, started(stroke_of(*pass, state.strokes_done), state.drawn), view);
    }
    if (scene.show_travel && state.kind == TimelineEntry::Kind::travel) {
        painter.setPen(travel_pen());
        painter.drawLine(view.map(scene.plan->timeline.entries()[state.entry].from), at);
    }
    // Rail across the mat, and the carriage with its slots; the filled one is the one at work.
    QColor ghost = theme.ink;
    ghost.setAlpha(60);
    painter.setPen(QPen(ghost, 2));
    painter.drawLine(QPointF(mat.left() - 10, at.y() - 20), QPointF(mat.right() + 10, at.y() - 20));
    const int slots = static_cast<int>(scene.plan->program.slots.size());
    const double w = 18;
    int working = 0;
    if (pass)
        for (int s = 0; s < slots; ++s)
            if (scene.plan->program.slots[static_cast<std::size_t>(s)] == pass->slot) working = s;
    QRectF body(at.x() - w * working - w / 2, at.y() - 32, w * slots, 24);
    painter.setBrush(QColor(theme.card.red(), theme.card.green(), theme.card.blue(), 215));
    painter.setPen(QPen(theme.quiet, 1));
    painter.drawRoundedRect(body, 5, 5);
    for (int s = 0; s < slots; ++s) {
        const QPointF c(body.left() + w * s + w / 2, body.center().y());
        const bool on = pass && s == working;
        painter.setPen(QPen(theme.quiet, 1));
        painter.setBrush(on ? to_qcolor(pass->colour) : theme.panel);
        painter.drawEllipse(c, 5, 5);
    }
    if (pass) {
        painter.setPen(QPen(to_qcolor(pass->colour), state.tool_down ? 2.2 : 1));
        painter.drawLine(QPointF(at.x(), body.bottom()), at - QPointF(0, state.tool_down ? 0 : 4));
    }
    painter.restore();
}

} // namespace dotlane::present
