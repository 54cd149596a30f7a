#include "present/board_painter.h"

#include <cmath>
#include <set>

#include "core/base/text.h"
#include "present/part_painter.h"
#include "present/words.h"

namespace dotlane::present {
namespace {

QString clock(Duration t) {
    return QString::fromStdString(spoken_seconds(in_seconds(t)));
}

double nice_step(double seconds_shown, double width) {
    for (const double step : {10.0, 30.0, 60.0, 120.0, 300.0, 600.0, 1800.0, 3600.0, 7200.0, 14400.0})
        if (width * step / seconds_shown > 72) return step;
    return 28800;
}

} // namespace

std::pair<QString, QList<CalloutLine>> callout(const Plan& plan, std::size_t move) {
    QList<CalloutLine> lines;
    const Duration time = plan.timeline.spans()[move].time;
    if (const auto* stop = std::get_if<StopMove>(&plan.program.moves[move])) {
        for (const HandStep& s : stop->steps)
            lines << CalloutLine{words(s.text), s.kind == HandStep::Kind::care};
        return {Words::tr("Stop %1, about %2").arg(stop->number).arg(clock(time)), lines};
    }
    const auto& pass = std::get<PassMove>(plan.program.moves[move]);
    lines << CalloutLine{Words::tr("%1 in the %2").arg(words(pass.tool), words(pass.slot))}
          << CalloutLine{Words::tr("%n stroke(s), %1 m", nullptr, static_cast<int>(pass.strokes.size()))
                             .arg(QString::fromStdString(number(in_mm(length(pass.strokes)) / 1000, 2)))};
    for (const auto& [at, finding] : plan.broken)
        if (at == move) lines << CalloutLine{words(finding.message), true};
    return {Words::tr("Pass %1: %2, %3").arg(pass.number).arg(words(word(pass.action)), clock(time)), lines};
}

namespace {

void paint_axis(QPainter& painter, const BoardLayout& layout) {
    const Theme& theme = Theme::current();
    painter.setFont(ui_font(8.5));
    const double step = nice_step(layout.seconds_shown, layout.plot.width());
    const double end = layout.seconds_from + layout.seconds_shown;
    for (double t = std::ceil(layout.seconds_from / step) * step; t <= end; t += step) {
        const double x = layout.x(seconds(t));
        painter.setPen(QPen(theme.hairline, 0.8));
        painter.drawLine(QPointF(x, layout.plot.top() - 6), QPointF(x, layout.plot.bottom()));
        painter.setPen(theme.quiet);
        const int whole = static_cast<int>(t);
        const QString text =
            step < 60     ? QStringLiteral("%1:%2").arg(whole / 60).arg(whole % 60, 2, 10, QLatin1Char('0'))
            : step < 3600 ? Words::tr("%1 min").arg(whole / 60)
                          : Words::tr("%1 h").arg(whole / 3600);
        painter.drawText(QRectF(x - 40, layout.plot.top() - 23, 80, 16), Qt::AlignCenter, text);
    }
}

/// The whole run as a strip, with what is shown of it.
void paint_overview(QPainter& painter, const BoardScene& scene, const BoardLayout& layout, const Plan& plan) {
    if (layout.overview.isEmpty()) return;
    const Theme& theme = Theme::current();
    const QRectF& strip = layout.overview;
    painter.setPen(Qt::NoPen);
    painter.setBrush(theme.hairline);
    painter.drawRoundedRect(strip, 2, 2);
    for (std::size_t m = 0; m < plan.program.moves.size(); ++m)
        if (const auto* pass = std::get_if<PassMove>(&plan.program.moves[m])) {
            const MoveSpan span = plan.timeline.spans()[m];
            painter.setBrush(
                look_of(*scene.derived->project, *scene.catalog, pass->lane, theme.panel).colour);
            const double x = layout.overview_x(span.start);
            painter.drawRect(QRectF(x, strip.top(),
                                    std::max(1.0, layout.overview_x(span.start + span.time) - x),
                                    strip.height()));
        }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(theme.lamp, 1.6));
    painter.drawRoundedRect(
        QRectF(QPointF(layout.overview_x(seconds(layout.seconds_from)), strip.top() - 2),
               QPointF(layout.overview_x(seconds(layout.seconds_from + layout.seconds_shown)),
                       strip.bottom() + 2)),
        3, 3);
}

void paint_heads(QPainter& painter, const BoardScene& scene, const BoardLayout& layout, const QRectF& area) {
    const Theme& theme = Theme::current();
    const Project& project = *scene.derived->project;
    for (const auto& track : layout.tracks) {
        const Lane* lane = find(project, track.lane);
        if (!lane) continue;
        if (track.y < layout.plot.top() - 4 || track.y > layout.plot.bottom() + 4) continue; // scrolled out
        const bool two = layout.pitch >= 29;
        const double size = two ? 24 : 17;
        const LaneLook look = look_of(project, *scene.catalog, track.lane, theme.panel);
        paint_plate(painter, {area.left(), track.y - size / 2, size, size},
                    QString::fromStdString(plate(project, track.lane)), look.colour);
        const QRectF text(area.left() + size + 8, track.y - 16, BoardLayout::heads - size - 12, 32);
        painter.setPen(theme.ink);
        painter.setFont(two ? ui_font(9.5, QFont::DemiBold) : ui_font(9));
        // Of many lanes the plate tells the action, so the name is what tells them apart.
        QString action = two ? action_title(lane->action) : QString::fromStdString(lane->name);
        action = QFontMetricsF(painter.font()).elidedText(action, Qt::ElideRight, text.width());
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
    const double high = layout.pitch * static_cast<double>(layout.tracks.size());
    if (high <= layout.plot.height() + 1 || layout.tracks.empty()) return;
    // How many more lanes there are, and where these stand among them.
    const double share = layout.plot.height() / high,
                 above = (layout.plot.top() - (layout.tracks.front().y - layout.pitch / 2)) / high;
    const QRectF rail(layout.plot.left() - 9, layout.plot.top(), 3, layout.plot.height());
    painter.setPen(Qt::NoPen);
    painter.setBrush(theme.hairline);
    painter.drawRoundedRect(rail, 1.5, 1.5);
    painter.setBrush(theme.quiet);
    painter.drawRoundedRect(QRectF(rail.left(), rail.top() + above * rail.height(), 3, share * rail.height()),
                            1.5, 1.5);
}

/// The way from pass to pass, as a track change on a map.
void paint_way(QPainter& painter, const BoardLayout& layout, const Plan& plan) {
    const Theme& theme = Theme::current();
    QPainterPath way;
    bool begun = false;
    QPointF at;
    for (std::size_t m = 0; m < plan.program.moves.size(); ++m) {
        if (layout.group_of(m)) { // it goes on behind what is shown as one
            begun = false;
            continue;
        }
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

/// Bars where sheets change, each named: names that have no room of their own are told together.
void paint_sheets(QPainter& painter, const BoardLayout& layout) {
    const Theme& theme = Theme::current();
    painter.setFont(ui_font(8.5));
    const QFontMetricsF metrics(painter.font());
    const auto shown = [&](const BoardLayout::OfSheet& s) {
        return layout.x(s.stop) > layout.plot.left() && layout.x(s.start) < layout.plot.right();
    };
    // "5 to 7", or "9, 10, 8, 11 to 46" where they run in another order.
    const auto numbers = [&](std::size_t first, std::size_t last, const QString& to) {
        QStringList all;
        for (std::size_t k = first, end = first; k <= last; k = end + 1) {
            for (end = k; end < last && layout.sheets[end + 1].number == layout.sheets[end].number + 1;)
                ++end;
            const bool two = end == k + 1 && (k > first || end < last);
            if (two) end = k; // of a longer list
            const QString from = QString::number(layout.sheets[k].number);
            all << (end > k ? to.arg(from, QString::number(layout.sheets[end].number)) : from);
        }
        return all.join(QStringLiteral(", "));
    };
    const auto words = [&](std::size_t first, std::size_t last) {
        return first == last ? Words::tr("sheet %1").arg(layout.sheets[first].number)
                             : Words::tr("sheets %1").arg(numbers(first, last, Words::tr("%1 to %2")));
    };
    for (std::size_t s = 0; s < layout.sheets.size();) {
        if (!shown(layout.sheets[s])) {
            ++s;
            continue;
        }
        std::size_t last = s;
        const double x = std::max(layout.plot.left(), layout.x(layout.sheets[s].start));
        const auto end_of_label = [&] { return x + 5 + metrics.horizontalAdvance(words(s, last)); };
        const auto* group = layout.group_of(layout.sheets[s].begin);
        if (group) last = group->last;
        while (!group && last + 1 < layout.sheets.size() && shown(layout.sheets[last + 1]) &&
               !layout.group_of(layout.sheets[last + 1].begin) &&
               layout.x(layout.sheets[last + 1].start) < end_of_label() + 6)
            ++last;
        for (std::size_t k = s; k <= last; ++k) {
            const double at = layout.x(layout.sheets[k].start);
            if (at < layout.plot.left() - 1 || layout.group_of(layout.sheets[k].begin)) continue;
            painter.setPen(QPen(theme.quiet, k == s ? 1.6 : 1));
            painter.drawLine(QPointF(at, layout.plot.top() - 6), QPointF(at, layout.plot.bottom() + 4));
        }
        const double room = (last + 1 < layout.sheets.size() ? layout.x(layout.sheets[last + 1].start)
                                                             : layout.plot.right() + 20) -
                            x - 8;
        const QString brief = numbers(s, last, QStringLiteral("%1–%2"));
        QString text = group ? Words::tr("sheets %1, alike").arg(numbers(s, last, Words::tr("%1 to %2")))
                             : words(s, last);
        if (metrics.horizontalAdvance(text) > room) text = metrics.elidedText(brief, Qt::ElideRight, room);
        painter.setPen(theme.quiet);
        painter.drawText(QPointF(x + 5, layout.plot.bottom() + 12), text);
        s = last + 1;
    }
}

/// A small caution that a rule is broken here, over what is there.
void paint_broken(QPainter& painter, const QPointF& at) {
    const Theme& theme = Theme::current();
    QPolygonF mark;
    mark << at + QPointF(0, -7) << at + QPointF(6.5, 4.5) << at + QPointF(-6.5, 4.5);
    painter.setPen(QPen(theme.panel, 2, Qt::SolidLine, Qt::SquareCap, Qt::RoundJoin));
    painter.setBrush(theme.caution);
    painter.drawPolygon(mark);
}

/// Sheets that are run alike and are too narrow to be told apart.
void paint_group(QPainter& painter, const BoardScene& scene, const BoardLayout& layout, const Plan& plan,
                 const BoardLayout::Group& group) {
    const Theme& theme = Theme::current();
    const QRectF band = layout.band(group);
    painter.setPen(QPen(theme.hairline, 1));
    QColor ground = theme.card;
    ground.setAlpha(150);
    painter.setBrush(ground);
    painter.drawRoundedRect(band, 5, 5);
    std::set<LaneId> lanes;
    for (std::size_t m = layout.sheets[group.first].begin; m < layout.sheets[group.last].end; ++m)
        if (const auto* pass = std::get_if<PassMove>(&plan.program.moves[m])) lanes.insert(pass->lane);
    for (const LaneId lane : lanes) {
        const double y = layout.track_y(lane).value_or(band.center().y());
        QColor colour = look_of(*scene.derived->project, *scene.catalog, lane, theme.panel).colour;
        painter.setPen(Qt::NoPen);
        painter.setBrush(colour);
        painter.drawRoundedRect(QRectF(band.left() + 4, y - 3, band.width() - 8, 6), 3, 3);
    }
    std::set<LaneId> marked; // once a lane, the sheets are run alike
    for (const auto& [m, finding] : plan.broken) {
        if (layout.group_of(m) != &group) continue;
        const LaneId lane = std::get<PassMove>(plan.program.moves[m]).lane;
        if (marked.insert(lane).second)
            paint_broken(painter, {band.right() - 8, layout.track_y(lane).value_or(band.center().y()) - 5});
    }
}

void paint_pass(QPainter& painter, const BoardScene& scene, const BoardLayout& layout, const Plan& plan,
                std::size_t m) {
    const Theme& theme = Theme::current();
    const auto& pass = std::get<PassMove>(plan.program.moves[m]);
    const LaneLook look = look_of(*scene.derived->project, *scene.catalog, pass.lane, theme.panel);
    QRectF b = layout.block(plan, m);
    if (scene.dragged && scene.dragged->move == m) b.translate(scene.dragged->shift_px, 0);
    painter.setPen(scene.hovered == m ? QPen(theme.lamp, 2) : Qt::NoPen);
    painter.setBrush(look.colour);
    painter.drawRoundedRect(b, b.height() / 2, b.height() / 2);
    const double minutes = in_seconds(plan.timeline.spans()[m].time) / 60;
    painter.setFont(ui_font(8.5, QFont::DemiBold));
    painter.setPen(text_on(look.colour));
    const QString brief = QString::number(minutes, 'f', minutes < 9.95 ? 1 : 0);
    const QString full = brief + QStringLiteral(" ") + words(word(pass.action));
    const QFontMetricsF metrics(painter.font());
    const QRectF seen = b.intersected(layout.plot);
    if (metrics.horizontalAdvance(full) < seen.width() - 12)
        painter.drawText(seen, Qt::AlignCenter, full);
    else if (metrics.horizontalAdvance(brief) < seen.width() - 8)
        painter.drawText(seen, Qt::AlignCenter, brief);
    if (std::any_of(plan.broken.begin(), plan.broken.end(),
                    [m](const auto& broken) { return broken.first == m; }))
        paint_broken(painter, {b.right() - 3, b.top()});
}

void paint_moves(QPainter& painter, const BoardScene& scene, const BoardLayout& layout, const Plan& plan) {
    const Theme& theme = Theme::current();
    for (const BoardLayout::Group& group : layout.groups)
        paint_group(painter, scene, layout, plan, group);
    const double radius = layout.pitch < 26 ? 5.5 : 7;
    for (std::size_t m = 0; m < plan.program.moves.size(); ++m) {
        if (layout.group_of(m)) continue;
        if (std::holds_alternative<PassMove>(plan.program.moves[m])) {
            paint_pass(painter, scene, layout, plan, m);
            continue;
        }
        const bool hovered = scene.hovered == m;
        painter.setPen(QPen(hovered ? theme.lamp : theme.ink, (hovered ? 3.4 : 2.8) * radius / 7));
        painter.setBrush(theme.card);
        painter.drawEllipse(layout.stop(plan, m), radius, radius);
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
        const QRectF row(layout.total_left + 4, y, BoardLayout::totals_width - 8, pitch);
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
    paint_overview(painter, scene, layout, plan);
    paint_heads(painter, scene, layout, area);
    paint_sheets(painter, layout);
    painter.save();
    painter.setClipRect(layout.plot.adjusted(-9, -9, 9, 3));
    paint_way(painter, layout, plan);
    paint_moves(painter, scene, layout, plan);
    painter.restore();
    if (scene.totals) paint_totals(painter, plan, layout, area);
    if (scene.dragged) paint_drop_mark(painter, layout, plan, *scene.dragged);
    if (const double x = scene.now ? layout.x(*scene.now) : -1;
        x >= layout.plot.left() - 1 && x <= layout.plot.right() + 1) {
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
