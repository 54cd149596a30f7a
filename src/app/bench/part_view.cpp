#include "app/bench/part_view.h"

#include <QCoreApplication>
#include <QMouseEvent>
#include <QPainter>
#include <limits>

#include "core/base/text.h"
#include "core/commands/selection.h"
#include "present/part_painter.h"
#include "present/words.h"

namespace dotlane::app {
namespace {

constexpr double reach_px = 6; // how near a click must be to a line

/// The stock a part is made of: that of the first sheet it lies on.
std::optional<QColor> stock_colour(const Project& project, const Catalog& catalog, PartId part) {
    for (const Sheet& sheet : project.sheets)
        for (const Placement& p : sheet.placements)
            if (p.part == part)
                if (const Stock* stock = catalog.stock(sheet.stock)) return present::to_qcolor(stock->colour);
    return std::nullopt;
}

} // namespace

PartView::PartView(Session& session, QWidget* parent)
    : Canvas(parent)
    , session_(session) {
    setAccessibleName(tr("Bench: the part"));
    connect(&session_, &Session::drawnChanged, this, [this] {
        set_unit(session_.project().unit);
        refresh();
    });
    connect(&session_, &Session::choiceChanged, this, [this] {
        if (std::exchange(shown_, session_.choice().part) != session_.choice().part) pressing_ = {}, fit();
        if (pressing_ && session_.choice().step != pressing_) pressing_ = {};
        refresh();
    });
}

void PartView::light(StepId step) {
    if (std::exchange(lit_, step) != step) refresh();
}

Box PartView::world() const {
    const EvaluatedPart* part = session_.evaluated();
    if (!part) return {};
    Box out = part->box;
    // What can be pressed stays in view, and where it is, though it be left out of the part.
    const auto keep = [&](const Region& piece) { out.add(bounds(piece)); };
    if (pressing_)
        for (const Region& piece : fill_places().pieces)
            keep(piece);
    if (const StepReport* report = pieces_report())
        for (const auto& piece : report->pieces)
            keep(piece.region);
    return out;
}

std::size_t PartView::weight() const {
    const EvaluatedPart* part = session_.evaluated();
    if (heat_ && part && heated(*part)) return std::numeric_limits<std::size_t>::max() / 4; // not at once
    return part ? part->points : 0;
}

Canvas::Painting PartView::content() const {
    const auto derived = session_.drawn();
    const PartId id = session_.choice().part;
    if (!derived || !derived->part(id) || !dotlane::find(*derived->project, id))
        return [](auto&, auto&, auto&) {};
    if (heat_ && heated(*derived->part(id))) return heat_content();
    const StepId lit = lit_ ? lit_ : session_.choice().step;
    const std::optional<QColor> stock = stock_colour(*derived->project, session_.catalog(), id);
    return [derived, id, lit, stock, chosen = session_.choice().lines, &catalog = session_.catalog()](
               QPainter& painter, const present::View& view, const QRectF& visible) {
        const Project& project = *derived->project;
        present::PartScene scene{&project, &catalog, dotlane::find(project, id), derived->part(id)};
        scene.chosen = chosen;
        scene.lit = lit;
        scene.ground = stock.value_or(present::Theme::current().paper);
        if (stock) present::paint_stock(painter, scene, *stock, view);
        present::paint_part(painter, scene, view, visible);
    };
}

void PartView::paint_overlay(QPainter& painter) {
    const present::Theme& theme = present::Theme::current();
    const EvaluatedPart* part = session_.evaluated();
    const StepId step = lit_ ? lit_ : session_.choice().step;
    if (part && ink_of(*part, step) && session_.part())
        for (const Step& s : session_.part()->steps)
            if (s.id == step && s.on)
                if (const RunSet* run = ink_run(*part, step); run && !pressing_)
                    paint_fill_callout(painter, *part, s, bounds(run->lines));
    if (heat_) paint_heat_key(painter);
    paint_pieces(painter);
    paint_put(painter);
    if (pressing_) paint_fill_places(painter);
    if (band_from_) {
        QColor tint = theme.lamp;
        tint.setAlpha(40);
        painter.setPen(QPen(theme.lamp, 1));
        painter.setBrush(tint);
        painter.drawRect(QRectF(*band_from_, band_to_).normalized());
    }
    const auto chosen = session_.choice().lines.size();
    const QString hint =
        !session_.part()  ? QString()
        : pressing_       ? press_hint()
        : pieces_report() ? pieces_report()->apart
                                ? tr("Press pieces that keep together; press one again to lay it apart.")
                                : tr("Press a piece to drop it or to keep it.")
        : chosen > 0
            ? tr("%n line(s) chosen. A lane's letter sends the choice there.", nullptr,
                 static_cast<int>(chosen))
            : tr("Bench at %1 %. Drag a box to choose lines, press a lane's letter to send them there.")
                  .arg(percent(), 0, 'f', 0);
    paint_words(painter, hint, 28, present::ui_font(9), theme.quiet);
    const EvaluatedPart* seen = session_.part() ? session_.evaluated() : nullptr;
    if (seen && std::any_of(seen->reports.begin(), seen->reports.end(),
                            [](const auto& report) { return report.second->from_behind; })) {
        paint_words(painter, tr("Mirrored: what you see is the back of the material."), 50,
                    present::ui_font(9, QFont::DemiBold), theme.ink);
    }
    if (!session_.part() && session_.is_open()) {
        painter.setFont(present::ui_font(11));
        painter.drawText(rect(), Qt::AlignCenter, tr("No part yet. Open a drawing, or drop one here."));
    }
}

void PartView::paint_words(QPainter& painter, const QString& words, int up, const QFont& font,
                           const QColor& ink) const {
    if (words.isEmpty()) return;
    const QRectF room(38, height() - up, width() - 50, 20);
    QRectF plate = room;
    plate.setWidth(std::min(QFontMetricsF(font).horizontalAdvance(words) + 12, room.width() + 6));
    QColor paper = present::Theme::current().paper; // that of the bench: seen only where lines lie below
    paper.setAlpha(225);
    painter.setPen(Qt::NoPen);
    painter.setBrush(paper);
    painter.drawRoundedRect(plate.translated(-6, 0), 4, 4);
    painter.setFont(font);
    painter.setPen(ink);
    painter.drawText(room, Qt::AlignLeft | Qt::AlignVCenter, words);
}

void PartView::paint_fill_callout(QPainter& painter, const EvaluatedPart& part_shown, const Step& step,
                                  const Box& filled) const {
    const present::Theme& theme = present::Theme::current();
    const InkReport& report = *ink_of(part_shown, step.id);
    const QRectF area = view().map(filled).adjusted(-8, -8, 8, 8);
    painter.setBrush(Qt::NoBrush);
    QPen dash(theme.lamp, 1.2);
    dash.setDashPattern({4, 3});
    painter.setPen(dash);
    painter.drawRoundedRect(area, 5, 5);
    const Lane* lane = dotlane::find(session_.project(), step.lane);
    const QString heading = tr("%1 fill, %2 at %3°")
                                .arg(lane ? present::words(word(lane->action)) : tr("no lane"),
                                     QString::fromStdString(to_text(report.spacing, session_.project().unit)),
                                     QString::fromStdString(number(in_degrees(report.angle), 1)));
    if (callout_.of != session_.drawn() || callout_.step != step.id)
        callout_ = {session_.drawn(), step.id,
                    fill_figures(report, session_.project(), session_.catalog(), part_shown, step.id)};
    const QStringList& lines = callout_.lines;
    const QFont bold = present::ui_font(9.5, QFont::DemiBold), plain = present::ui_font(9);
    double w = QFontMetricsF(bold).horizontalAdvance(heading);
    for (const QString& l : lines)
        w = std::max(w, QFontMetricsF(plain).horizontalAdvance(l));
    QRectF box(0, 0, w + 26, 26 + 17.0 * static_cast<double>(lines.size()));
    // Outside the part, on the side that the fill is nearer to, so that neither box nor leader covers other
    // lines. Where there is no room nothing is said: the step's card says the same.
    const QRectF part = view().map(world()), room = QRectF(rect()).adjusted(30, 30, -10, -34);
    const QPointF middle = area.center();
    QRectF above = box, below = box, left = box, right = box;
    above.moveTopLeft({middle.x() - box.width() / 2, part.top() - 40 - box.height()});
    below.moveTopLeft({middle.x() - box.width() / 2, part.bottom() + 18});
    left.moveTopRight({part.left() - 18, middle.y() - box.height() / 2});
    right.moveTopLeft({part.right() + 44, middle.y() - box.height() / 2});
    for (QRectF* side : {&above, &below})
        side->moveLeft(
            std::clamp(side->left(), room.left(), std::max(room.left(), room.right() - box.width())));
    for (QRectF* side : {&left, &right})
        side->moveTop(
            std::clamp(side->top(), room.top(), std::max(room.top(), room.bottom() - box.height())));
    const bool up = area.top() - part.top() < part.bottom() - area.bottom();
    const auto fits = [&](const QRectF& side) { return room.contains(side); };
    const QRectF sides[] = {up ? above : below, up ? below : above, right, left};
    const auto* const found = std::find_if(std::begin(sides), std::end(sides), fits);
    if (found == std::end(sides)) return;
    box = *found;
    painter.setPen(QPen(theme.lamp, 1.2));
    if (box.top() > area.bottom())
        painter.drawLine(QPointF(middle.x(), area.bottom()), QPointF(middle.x(), box.top()));
    else if (box.bottom() < area.top())
        painter.drawLine(QPointF(middle.x(), box.bottom()), QPointF(middle.x(), area.top()));
    else if (box.left() > area.right())
        painter.drawLine(QPointF(area.right(), middle.y()), QPointF(box.left(), middle.y()));
    else
        painter.drawLine(QPointF(box.right(), middle.y()), QPointF(area.left(), middle.y()));
    painter.setPen(QPen(theme.hairline, 1));
    painter.setBrush(theme.card);
    painter.drawRoundedRect(box, 7, 7);
    painter.setPen(theme.ink);
    painter.setFont(bold);
    painter.drawText(box.adjusted(13, 6, -13, 0), Qt::AlignLeft | Qt::AlignTop,
                     heading.left(1).toUpper() + heading.mid(1));
    painter.setFont(plain);
    painter.setPen(theme.quiet);
    for (int i = 0; i < lines.size(); ++i)
        painter.drawText(QRectF(box.left() + 13, box.top() + 23 + 17 * i, box.width() - 20, 17),
                         Qt::AlignLeft | Qt::AlignVCenter, lines[i]);
}

std::optional<LineId> PartView::under(QPointF at) const {
    const EvaluatedPart* evaluated = session_.evaluated();
    if (!evaluated) return std::nullopt;
    return line_at(*evaluated, view().unmap(at), mm(reach_px / view().scale));
}

void PartView::choose_with(const std::vector<LineId>& lines, Qt::KeyboardModifiers modifiers) {
    std::set<LineId> chosen;
    if (modifiers & (Qt::ShiftModifier | Qt::ControlModifier)) chosen = session_.choice().lines;
    for (const LineId line : lines)
        if (!chosen.insert(line).second && modifiers & Qt::ControlModifier) chosen.erase(line);
    session_.choose_lines(std::move(chosen));
}

void PartView::mousePressEvent(QMouseEvent* event) {
    Canvas::mousePressEvent(event);
    if (panning() || event->button() != Qt::LeftButton) return;
    if (toggle_piece(event->position()) || press_fill(event->position())) return;
    if (const auto line = under(event->position())) {
        choose_with({*line}, event->modifiers());
    } else {
        band_from_ = band_to_ = event->position();
    }
}

void PartView::mouseMoveEvent(QMouseEvent* event) {
    Canvas::mouseMoveEvent(event);
    if (!band_from_) return;
    band_to_ = event->position();
    update();
}

void PartView::mouseReleaseEvent(QMouseEvent* event) {
    Canvas::mouseReleaseEvent(event);
    if (!band_from_ || event->button() != Qt::LeftButton) return;
    const QRectF band = QRectF(*band_from_, event->position()).normalized();
    band_from_.reset();
    const Point a = view().unmap(band.topLeft()), b = view().unmap(band.bottomRight());
    const EvaluatedPart* evaluated = session_.evaluated();
    const bool drawn = band.width() > 3 || band.height() > 3;
    if (evaluated)
        choose_with(drawn ? lines_in_box(*evaluated, {a.x, a.y, b.x, b.y}) : std::vector<LineId>{},
                    event->modifiers());
    update();
}

void PartView::contextMenuEvent(QContextMenuEvent* event) {
    const auto line = under(event->pos());
    if (line && !session_.choice().lines.contains(*line)) session_.choose_lines({*line});
    Q_EMIT menu_wanted(event->globalPos(), line.value_or(LineId{}));
}

void PartView::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape && pressing_) return choose_pieces_of({});
    if (event->key() == Qt::Key_Escape) return session_.choose_lines({});
    const bool plain = !(event->modifiers() & (Qt::ControlModifier | Qt::AltModifier | Qt::MetaModifier));
    const QString text = event->text().toUpper();
    if (plain && text.size() == 1 && !session_.choice().lines.empty())
        for (const Action action : all_actions)
            if (text[0] == QLatin1Char(action_letter(action))) {
                Q_EMIT lane_letter(action);
                return;
            }
    Canvas::keyPressEvent(event);
}

} // namespace dotlane::app
