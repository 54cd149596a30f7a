#include "present/board_painter.h"

#include <cmath>

#include "core/base/text.h"
#include "present/part_painter.h"
#include "present/words.h"

namespace dotlane::present {
namespace {

constexpr double heads = 150, totals_width = 176, axis = 30;

QString clock(Duration t) {
    return QString::fromStdString(spoken_seconds(in_seconds(t)));
}

double nice_step(double seconds_shown, double width) {
    for (const double step : {10.0, 30.0, 60.0, 120.0, 300.0, 600.0, 1800.0, 3600.0, 7200.0, 14400.0})
        if (width * step / seconds_shown > 72) return step;
    return 28800;
}

} // namespace

BoardLayout::BoardLayout(const BoardScene& scene, const QRectF& whole)
    : area(whole) {
    total_left = area.right() - (scene.totals ? totals_width : -28);
    plot = QRectF(QPointF(area.left() + heads + 8, area.top() + axis),
                  QPointF(total_left - 28, area.bottom() - 18));
    if (!scene.derived) return;
    const auto add = [&](LaneId lane) {
        for (const Track& t : tracks)
            if (t.lane == lane) return;
        tracks.push_back({lane, 0});
    };
    // Lanes that run, in the order of their passes; then those that wait for lines.
    const std::shared_ptr<const Plan>& plan = scene.derived->plan;
    if (plan)
        for (const Move& move : plan->program.moves)
            if (const auto* pass = std::get_if<PassMove>(&move)) add(pass->lane);
    for (const Lane& lane : scene.derived->project->lanes)
        add(lane.id);
    const double room = plot.height() / std::max<double>(1, static_cast<double>(tracks.size()));
    const double pitch = std::min(room, 38.0);
    const double first =
        plot.top() + (plot.height() - pitch * static_cast<double>(tracks.size())) / 2 + pitch / 2;
    for (std::size_t i = 0; i < tracks.size(); ++i)
        tracks[i].y = first + pitch * static_cast<double>(i);
    if (plan) seconds_shown = std::max(1.0, in_seconds(plan->timeline.total()) * 1.02);
}

std::optional<LaneId> BoardLayout::head_hit(QPointF at) const {
    for (const Track& t : tracks)
        if (at.x() >= area.left() && at.x() < plot.left() - 8 && std::abs(at.y() - t.y) <= 16) return t.lane;
    return std::nullopt;
}

Duration BoardLayout::time(double x_px) const {
    return seconds(std::clamp((x_px - plot.left()) / plot.width() * seconds_shown, 0.0, seconds_shown));
}

std::optional<double> BoardLayout::track_y(LaneId lane) const {
    for (const Track& t : tracks)
        if (t.lane == lane) return t.y;
    return std::nullopt;
}

QRectF BoardLayout::block(const Plan& plan, std::size_t move) const {
    const auto& pass = std::get<PassMove>(plan.program.moves[move]);
    const MoveSpan span = plan.timeline.spans()[move];
    const double h = tracks.size() > 6 ? 12 : 18;
    // A pass of seconds is a round dot about its own middle.
    const double w = std::max(h, x(span.start + span.time) - x(span.start));
    const double x0 = std::max(plot.left(), x(span.start + span.time / 2) - w / 2);
    return {x0, track_y(pass.lane).value_or(plot.top()) - h / 2, w, h};
}

QPointF BoardLayout::stop(const Plan& plan, std::size_t move) const {
    const MoveSpan span = plan.timeline.spans()[move];
    // On the track of the pass it makes ready; the last one on the track of the pass before it.
    double y = plot.center().y();
    const std::size_t beside = move + 1 < plan.program.moves.size() ? move + 1 : move > 0 ? move - 1 : move;
    if (const auto* pass = std::get_if<PassMove>(&plan.program.moves[beside]))
        y = track_y(pass->lane).value_or(y);
    return {x(span.start + span.time / 2), y};
}

std::optional<std::size_t> BoardLayout::hit(const Plan& plan, QPointF at) const {
    for (std::size_t m = 0; m < plan.program.moves.size(); ++m) {
        if (std::holds_alternative<StopMove>(plan.program.moves[m])) {
            const QPointF d = at - stop(plan, m);
            if (std::hypot(d.x(), d.y()) < 11) return m;
        }
    }
    for (std::size_t m = 0; m < plan.program.moves.size(); ++m)
        if (std::holds_alternative<PassMove>(plan.program.moves[m]) &&
            block(plan, m).adjusted(-2, -5, 2, 5).contains(at))
            return m;
    return std::nullopt;
}

std::pair<QString, QList<CalloutLine>> callout(const Plan& plan, std::size_t move) {
    QList<CalloutLine> lines;
    const Duration time = plan.timeline.spans()[move].time;
    if (const auto* stop = std::get_if<StopMove>(&plan.program.moves[move])) {
        for (const HandStep& s : stop->steps)
            lines << CalloutLine{QString::fromStdString(s.text), s.kind == HandStep::Kind::care};
        return {Words::tr("Stop %1, about %2").arg(stop->number).arg(clock(time)), lines};
    }
    const auto& pass = std::get<PassMove>(plan.program.moves[move]);
    lines << CalloutLine{Words::tr("%1 in the %2")
                             .arg(QString::fromStdString(pass.tool), QString::fromStdString(pass.slot))}
          << CalloutLine{Words::tr("%n stroke(s), %1 m", nullptr, static_cast<int>(pass.strokes.size()))
                             .arg(QString::fromStdString(number(in_mm(length(pass.strokes)) / 1000, 2)))};
    return {Words::tr("Pass %1: %2, %3")
                .arg(pass.number)
                .arg(QString::fromLatin1(action_name(pass.action)), clock(time)),
            lines};
}

namespace {

void paint_axis(QPainter& painter, const BoardLayout& layout) {
    const Theme& theme = Theme::current();
    painter.setFont(ui_font(8.5));
    const double step = nice_step(layout.seconds_shown, layout.plot.width());
    for (double t = 0; t <= layout.seconds_shown; t += step) {
        const double x = layout.x(seconds(t));
        painter.setPen(QPen(theme.hairline, 0.8));
        painter.drawLine(QPointF(x, layout.plot.top() - 6), QPointF(x, layout.plot.bottom()));
        painter.setPen(theme.quiet);
        const QString text = step < 60 ? QStringLiteral("%1 s").arg(t) : Words::tr("%1 min").arg(t / 60);
        painter.drawText(QRectF(x - 40, layout.plot.top() - 26, 80, 16), Qt::AlignCenter, text);
    }
}

void paint_heads(QPainter& painter, const BoardScene& scene, const BoardLayout& layout, const QRectF& area) {
    const Theme& theme = Theme::current();
    const Project& project = *scene.derived->project;
    for (const auto& track : layout.tracks) {
        const Lane* lane = find(project, track.lane);
        if (!lane) continue;
        const double size = layout.tracks.size() > 5 ? 18 : 24;
        const LaneLook look = look_of(project, *scene.catalog, track.lane, theme.panel);
        paint_plate(painter, {area.left(), track.y - size / 2, size, size},
                    QString::fromStdString(plate(project, track.lane)), look.colour);
        const QRectF text(area.left() + size + 8, track.y - 16, heads - size - 12, 32);
        painter.setPen(theme.ink);
        painter.setFont(ui_font(9.5, QFont::DemiBold));
        QString action = QString::fromLatin1(action_name(lane->action));
        action[0] = action[0].toUpper();
        const bool two = layout.tracks.size() <= 5;
        painter.drawText(two ? text.adjusted(0, 0, 0, -15) : text, Qt::AlignLeft | Qt::AlignVCenter, action);
        if (two) {
            painter.setFont(ui_font(8.5));
            painter.setPen(theme.quiet);
            painter.drawText(
                text.adjusted(0, 15, 0, 0), Qt::AlignLeft | Qt::AlignVCenter,
                QFontMetricsF(painter.font())
                    .elidedText(QString::fromStdString(lane->name), Qt::ElideRight, text.width()));
        }
        const QColor rail = theme.dark ? theme.hairline : QColor("#dfd8cb");
        painter.setPen(QPen(track.lane == scene.lit ? theme.lamp : rail, 4, Qt::SolidLine, Qt::RoundCap));
        painter.drawLine(QPointF(layout.plot.left(), track.y), QPointF(layout.plot.right(), track.y));
    }
}

/// The way from pass to pass, as a track change on a map.
void paint_way(QPainter& painter, const BoardLayout& layout, const Plan& plan) {
    const Theme& theme = Theme::current();
    QPainterPath way;
    bool begun = false;
    QPointF at;
    for (std::size_t m = 0; m < plan.program.moves.size(); ++m) {
        QPointF from, to;
        if (std::holds_alternative<PassMove>(plan.program.moves[m])) {
            const QRectF b = layout.block(plan, m);
            from = {b.left(), b.center().y()}, to = {b.right(), b.center().y()};
        } else {
            from = to = layout.stop(plan, m);
        }
        if (!begun)
            way.moveTo(from), begun = true;
        else if (std::abs(from.y() - at.y()) < 0.5)
            way.lineTo(from);
        else {
            const double run = std::min(14.0, std::max(4.0, (from.x() - at.x()) / 2));
            const double bend = from.x() - at.x() >= 2 * run ? from.x() - 2 * run : at.x();
            way.lineTo(bend, at.y());
            way.cubicTo({bend + run, at.y()}, {from.x() - run, from.y()}, from);
        }
        way.lineTo(to);
        at = to;
    }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(theme.dark ? QColor("#7d8084") : QColor("#8b8576"), 2.6, Qt::SolidLine, Qt::RoundCap,
                        Qt::RoundJoin));
    painter.drawPath(way);
}

void paint_moves(QPainter& painter, const BoardScene& scene, const BoardLayout& layout, const Plan& plan) {
    const Theme& theme = Theme::current();
    SheetId sheet;
    int number = 0;
    double label_end = -1e9;
    for (std::size_t m = 0; m < plan.program.moves.size(); ++m) {
        const bool hovered = scene.hovered == m;
        if (const auto* stop = std::get_if<StopMove>(&plan.program.moves[m])) {
            if (stop->sheet != sheet && stop->sheet) {
                sheet = stop->sheet;
                ++number;
                const double x = layout.x(plan.timeline.spans()[m].start);
                painter.setPen(QPen(theme.quiet, 1.6));
                painter.drawLine(QPointF(x, layout.plot.top() - 6), QPointF(x, layout.plot.bottom() + 4));
                if (x > label_end) {
                    painter.setFont(ui_font(8.5));
                    const QString text = Words::tr("sheet %1").arg(number);
                    painter.drawText(QPointF(x + 5, layout.plot.bottom() + 12), text);
                    label_end = x + QFontMetricsF(painter.font()).horizontalAdvance(text) + 12;
                }
            }
            const QPointF c = layout.stop(plan, m);
            painter.setPen(QPen(hovered ? theme.lamp : theme.ink, hovered ? 3.4 : 2.8));
            painter.setBrush(theme.card);
            painter.drawEllipse(c, 7, 7);
            continue;
        }
        const auto& pass = std::get<PassMove>(plan.program.moves[m]);
        const LaneLook look = look_of(*scene.derived->project, *scene.catalog, pass.lane, theme.panel);
        QRectF b = layout.block(plan, m);
        if (scene.dragged && scene.dragged->move == m) b.translate(scene.dragged->shift_px, 0);
        painter.setPen(hovered ? QPen(theme.lamp, 2) : Qt::NoPen);
        painter.setBrush(look.colour);
        painter.drawRoundedRect(b, b.height() / 2, b.height() / 2);
        const double minutes = in_seconds(plan.timeline.spans()[m].time) / 60;
        painter.setFont(ui_font(8.5, QFont::DemiBold));
        painter.setPen(text_on(look.colour));
        const QString brief = QString::number(minutes, 'f', minutes < 9.95 ? 1 : 0);
        const QString full = brief + QStringLiteral(" ") + QString::fromLatin1(action_name(pass.action));
        const QFontMetricsF metrics(painter.font());
        if (metrics.horizontalAdvance(full) < b.width() - 12)
            painter.drawText(b, Qt::AlignCenter, full);
        else if (metrics.horizontalAdvance(brief) < b.width() - 8)
            painter.drawText(b, Qt::AlignCenter, brief);
    }
}

void paint_totals(QPainter& painter, const Plan& plan, const BoardLayout& layout, const QRectF& area) {
    const Theme& theme = Theme::current();
    painter.setPen(QPen(theme.hairline, 1));
    painter.drawLine(QPointF(layout.total_left - 12, area.top() + 4),
                     QPointF(layout.total_left - 12, area.bottom() - 4));
    const PlanTotals& t = plan.totals;
    const std::pair<QString, QString> rows[] = {{Words::tr("Machine"), clock(t.machine)},
                                                {Words::tr("Hands on"), clock(t.hands)},
                                                {Words::tr("Stops"), QString::number(t.stops)},
                                                {Words::tr("Sheets"), QString::number(t.sheets)},
                                                {Words::tr("Cost"), QString::number(t.cost, 'f', 2)}};
    const double pitch = std::min(27.0, (area.height() - 30) / 5);
    double y = area.top() + 2;
    for (const auto& [name, value] : rows) {
        const QRectF row(layout.total_left + 4, y, totals_width - 8, pitch);
        painter.setFont(ui_font(9.5));
        painter.setPen(theme.quiet);
        painter.drawText(row, Qt::AlignLeft | Qt::AlignVCenter, name);
        painter.setFont(ui_font(11, QFont::DemiBold));
        painter.setPen(theme.ink);
        painter.drawText(row, Qt::AlignRight | Qt::AlignVCenter, value);
        y += pitch;
    }
}

void paint_callout(QPainter& painter, const BoardLayout& layout, const Plan& plan, std::size_t move,
                   const QRectF& area) {
    const auto [heading, lines] = callout(plan, move);
    const QFont bold = ui_font(9.5, QFont::DemiBold), plain = ui_font(9);
    double width = QFontMetricsF(bold).horizontalAdvance(heading);
    for (const CalloutLine& l : lines)
        width = std::max(width, QFontMetricsF(plain).horizontalAdvance(l.text));
    width = std::min(width + 24, area.width() * 0.6);
    // A hand's step is read to its end, whatever the size of the foil: it wraps.
    std::vector<double> heights;
    double h = 28;
    for (const CalloutLine& l : lines) {
        heights.push_back(QFontMetricsF(plain)
                              .boundingRect(QRectF(0, 0, width - 24, 1e4), Qt::TextWordWrap, l.text)
                              .height() +
                          1);
        h += heights.back();
    }
    const QPointF anchor = std::holds_alternative<StopMove>(plan.program.moves[move])
                               ? layout.stop(plan, move)
                               : layout.block(plan, move).center();
    QRectF box(anchor.x() - width / 2, anchor.y() + 14, width, h);
    if (box.bottom() > area.bottom()) box.moveBottom(std::max(anchor.y() - 14, area.top() + h));
    box.moveLeft(std::clamp(box.left(), area.left(), std::max(area.left(), area.right() - width)));
    if (box.top() < area.top()) box.moveTop(area.top());
    painter.setPen(Qt::NoPen);
    painter.setBrush(QColor("#22282c"));
    painter.drawRoundedRect(box, 6, 6);
    painter.setPen(QColor("#fffdf9"));
    painter.setFont(bold);
    painter.drawText(box.adjusted(12, 6, -12, 0), Qt::AlignLeft | Qt::AlignTop, heading);
    painter.setFont(plain);
    double y = box.top() + 23;
    for (qsizetype i = 0; i < lines.size(); ++i) {
        const double height = heights[static_cast<std::size_t>(i)];
        painter.setPen(QColor(lines[i].care ? "#f0a878" : "#d9d4ca"));
        painter.drawText(QRectF(box.left() + 12, y, width - 24, height),
                         Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, lines[i].text);
        y += height;
    }
}

/// Where a dragged pass would go.
void paint_drop_mark(QPainter& painter, const BoardLayout& layout, const Plan& plan,
                     const BoardScene::Dragged& dragged) {
    double x = layout.plot.right();
    if (dragged.before)
        x = layout.block(plan, *dragged.before).left() - 5;
    else
        for (std::size_t m = 0; m < plan.program.moves.size(); ++m)
            if (std::holds_alternative<PassMove>(plan.program.moves[m]))
                x = layout.block(plan, m).right() + 5;
    painter.setPen(QPen(Theme::current().lamp, 2.4));
    painter.drawLine(QPointF(x, layout.plot.top() - 4), QPointF(x, layout.plot.bottom() + 4));
}

} // namespace

void paint_board(QPainter& painter, const BoardScene& scene, const QRectF& area) {
    const Theme& theme = Theme::current();
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    const BoardLayout layout(scene, area);
    if (!scene.derived || !scene.derived->plan) {
        if (scene.derived) paint_heads(painter, scene, layout, area);
        painter.setPen(theme.quiet);
        painter.setFont(ui_font(10.5));
        const bool nothing = !scene.derived || scene.derived->no_plan.code == "plan.nothing";
        const QString why =
            nothing
                ? Words::tr("The passes appear here once a part lies on a sheet and its lines have lanes.")
                : words(scene.derived->no_plan);
        QRectF box =
            QFontMetricsF(painter.font()).boundingRect(layout.plot, Qt::AlignCenter | Qt::TextWordWrap, why);
        painter.fillRect(box.adjusted(-10, -4, 10, 4),
                         theme.panel); // the tracks do not run through the words
        painter.drawText(layout.plot, Qt::AlignCenter | Qt::TextWordWrap, why);
        painter.restore();
        return;
    }
    const Plan& plan = *scene.derived->plan;
    paint_axis(painter, layout);
    paint_heads(painter, scene, layout, area);
    paint_way(painter, layout, plan);
    paint_moves(painter, scene, layout, plan);
    if (scene.totals) paint_totals(painter, plan, layout, area);
    if (scene.dragged) paint_drop_mark(painter, layout, plan, *scene.dragged);
    if (scene.now) {
        const double x = layout.x(*scene.now);
        painter.setPen(QPen(theme.lamp, 2));
        painter.drawLine(QPointF(x, layout.plot.top() - 8), QPointF(x, layout.plot.bottom() + 4));
        painter.setBrush(theme.lamp);
        painter.setPen(Qt::NoPen);
        painter.drawEllipse(QPointF(x, layout.plot.top() - 8), 5, 5);
    }
    if (scene.hovered && *scene.hovered < plan.program.moves.size())
        paint_callout(painter, layout, plan, *scene.hovered, area);
    painter.restore();
}

} // namespace dotlane::present
