#include "app/bench/sheets_view.h"

#include <QMouseEvent>
#include <QPainter>
#include <numbers>

#include "core/base/text.h"
#include "core/project/edits.h"
#include "present/sheet_painter.h"

namespace dotlane::app {
namespace {

constexpr double strip_height = 74, cell_width = 62;

/// Parts stay a drag's worth of pixels away from moving, so that a click does not shift them.
constexpr double drag_threshold = 4;

} // namespace

SheetsView::SheetsView(Session& session, QWidget* parent)
    : Canvas(parent)
    , session_(session) {
    setAccessibleName(tr("Bench: the sheets"));
    connect(&session_, &Session::drawnChanged, this, [this] { refresh(); });
    connect(&session_, &Session::choiceChanged, this, [this] {
        if (std::exchange(shown_, session_.choice().sheet) != session_.choice().sheet) fit();
        refresh();
    });
}

QMarginsF SheetsView::rim() const {
    return {36, strip_height + 34, 36, 44};
}

const LaidSheet* SheetsView::laid() const {
    const auto derived = session_.drawn();
    return derived ? derived->sheet(session_.choice().sheet) : nullptr;
}

Box SheetsView::world() const {
    const LaidSheet* sheet = laid();
    return sheet ? present::mat_box(*sheet) : Box{};
}

std::size_t SheetsView::weight() const {
    std::size_t points = 0;
    const auto derived = session_.drawn();
    if (const LaidSheet* sheet = laid())
        for (const PlacedPart& placed : sheet->parts)
            points += derived->part(placed.placement.part)->points;
    return points;
}

Canvas::Painting SheetsView::content() const {
    const auto derived = session_.drawn();
    const SheetId sheet = session_.choice().sheet;
    if (!derived || !derived->sheet(sheet)) return [](auto&, auto&, auto&) {};
    // While a part is dragged it is left out here and painted by the overlay where the pointer has it.
    const PlacementId hidden = drag_ == Drag::none ? PlacementId{} : session_.choice().placement;
    return [derived, sheet, hidden, &catalog = session_.catalog()](
               QPainter& painter, const present::View& view, const QRectF& visible) {
        present::SheetScene scene{derived->project.get(), &catalog, derived.get(), sheet};
        scene.hidden = hidden;
        present::paint_sheet(painter, scene, view, visible);
    };
}

const PlacedPart* SheetsView::chosen_part() const {
    if (const LaidSheet* sheet = laid())
        for (const PlacedPart& p : sheet->parts)
            if (p.placement.id == session_.choice().placement) return &p;
    return nullptr;
}

QPointF SheetsView::turn_handle(const QRectF& area) const {
    return {area.center().x(), area.top() - 22};
}

QRectF SheetsView::strip_cell(std::size_t index) const {
    return {16 + (cell_width + 10) * static_cast<double>(index), 10, cell_width, strip_height - 12};
}

std::optional<std::size_t> SheetsView::strip_hit(QPointF at) const {
    for (std::size_t i = 0; i < session_.project().sheets.size(); ++i)
        if (strip_cell(i).contains(at)) return i;
    return std::nullopt;
}

void SheetsView::paint_strip(QPainter& painter) {
    const present::Theme& theme = present::Theme::current();
    const auto derived = session_.drawn();
    std::erase_if(thumbnails_,
                  [&](const auto& entry) { return !dotlane::find(session_.project(), entry.first); });
    painter.fillRect(QRectF(0, 0, width(), strip_height), theme.panel);
    painter.setPen(QPen(theme.hairline, 1));
    painter.drawLine(QPointF(0, strip_height), QPointF(width(), strip_height));
    for (std::size_t i = 0; derived && i < session_.project().sheets.size(); ++i) {
        const Sheet& sheet = session_.project().sheets[i];
        const LaidSheet* one = derived->sheet(sheet.id);
        const QRectF cell = strip_cell(i);
        if (cell.left() > width()) break;
        if (one) {
            auto& thumbnail = thumbnails_[sheet.id];
            if (!thumbnail) {
                thumbnail = std::make_unique<Thumbnail>();
                connect(thumbnail.get(), &Thumbnail::ready, this, [this] { update(); });
            }
            const QSize size = cell.size().toSize() - QSize(6, 20);
            thumbnail->request(derived, size, devicePixelRatioF(),
                               [derived, id = sheet.id, size, box = present::mat_box(*one),
                                &catalog = session_.catalog()](QPainter& p) {
                                   const QRectF area(0, 0, size.width(), size.height());
                                   present::paint_sheet(
                                       p, {derived->project.get(), &catalog, derived.get(), id},
                                       present::View::fitting(box, area.adjusted(3, 3, -3, -3)), area);
                               });
            painter.drawImage(cell.topLeft() + QPointF(3, 3), thumbnail->image());
        }
        painter.setFont(present::ui_font(8.5));
        painter.setPen(theme.ink);
        painter.drawText(
            QRectF(cell.left(), cell.bottom() - 14, cell.width(), 14), Qt::AlignCenter,
            QFontMetricsF(painter.font())
                .elidedText(QString::fromStdString(sheet.name), Qt::ElideRight, cell.width() - 6));
        if (sheet.id == session_.choice().sheet) {
            painter.setPen(QPen(theme.lamp, 1.8));
            painter.setBrush(Qt::NoBrush);
            painter.drawRoundedRect(cell, 6, 6);
        }
    }
}

void SheetsView::paint_numbers(QPainter& painter, const QRectF& area, const Box& box, Angle turn) const {
    const present::Theme& theme = present::Theme::current();
    const auto text = [&](double v) {
        return QString::fromStdString(to_text(mm(v), session_.project().unit, 1));
    };
    QString words = tr("%1 from the left, %2 from the top").arg(text(box.x0), text(box.y0));
    if (in_radians(turn) != 0)
        words += tr(", turned %1°").arg(QString::fromStdString(number(in_degrees(turn), 1)));
    painter.setFont(present::ui_font(9));
    QRectF tag = QFontMetricsF(painter.font()).boundingRect(words).adjusted(-9, -4, 9, 4);
    tag.moveCenter({area.center().x(), area.bottom() + 16});
    tag.moveLeft(std::clamp(tag.left(), 4.0, std::max(4.0, width() - tag.width() - 4)));
    tag.moveBottom(std::min(tag.bottom(), height() - 6.0));
    painter.setPen(Qt::NoPen);
    painter.setBrush(theme.ink);
    painter.drawRoundedRect(tag, 5, 5);
    painter.setPen(theme.paper);
    painter.drawText(tag, Qt::AlignCenter, words);
}

void SheetsView::paint_chosen(QPainter& painter) const {
    const PlacedPart* part = chosen_part();
    const auto derived = session_.drawn();
    if (!part || !derived) return;
    const present::Theme& theme = present::Theme::current();
    const EvaluatedPart* evaluated = derived->part(part->placement.part);
    Box box = part->box;
    Placement place = part->placement;
    if (drag_ != Drag::none) {
        place = preview_;
        box = placed_box(preview_, evaluated->box);
        present::paint_placed(
            painter, {derived->project.get(), &session_.catalog(), derived.get(), session_.choice().sheet},
            *evaluated, placement_transform(preview_, evaluated->box), view(), rect());
    }
    const QRectF area = view().map(box);
    const bool outside = laid() && !laid()->usable.grown(1e-6).contains(box);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(outside ? theme.error : theme.lamp, 1.8));
    painter.drawRect(area.adjusted(-3, -3, 3, 3));
    const QPointF handle = turn_handle(area);
    painter.drawLine(QPointF(handle.x(), area.top() - 3), handle);
    painter.setBrush(theme.card);
    painter.drawEllipse(handle, 6, 6);
    paint_numbers(painter, area, box, place.turn);
}

void SheetsView::paint_overlay(QPainter& painter) {
    const present::Theme& theme = present::Theme::current();
    if (session_.project().sheets.empty()) {
        painter.setFont(present::ui_font(11));
        painter.setPen(theme.quiet);
        painter.drawText(rect(), Qt::AlignCenter,
                         tr("No sheet yet. Add one at the right: the chosen part is placed on it."));
        return;
    }
    paint_chosen(painter);
    paint_strip(painter);
    if (!chosen_part()) {
        painter.setFont(present::ui_font(9));
        painter.setPen(theme.quiet);
        painter.drawText(QRectF(16, height() - 28, width() - 24, 20), Qt::AlignLeft | Qt::AlignVCenter,
                         tr("The mat as it is loaded. Drag a part to move it; the hatched rim is out of the "
                            "machine's reach."));
    }
}

Placement SheetsView::dragged(QPointF to, Qt::KeyboardModifiers modifiers) const {
    Placement out = before_;
    const auto derived = session_.drawn();
    const EvaluatedPart* part = derived ? derived->part(before_.part) : nullptr;
    if (!part) return out;
    if (drag_ == Drag::turn) {
        const QPointF middle = view().map(placed_box(before_, part->box).centre());
        const QPointF a = drag_from_ - middle, b = to - middle;
        double turn = in_degrees(before_.turn) +
                      (std::atan2(b.y(), b.x()) - std::atan2(a.y(), a.x())) * 180 / std::numbers::pi;
        const double step = modifiers & Qt::ShiftModifier ? 1 : 15;
        turn = std::remainder(std::round(turn / step) * step, 360);
        return turned_about_middle(before_, part->box, degrees(turn == -180 ? 180 : turn));
    }
    const QPointF by = (to - drag_from_) / view().scale;
    out.left += mm(by.x());
    out.top += mm(by.y());
    if (modifiers & Qt::ShiftModifier) return out;
    // Near an edge of the usable area or another part's edge the part goes there exactly.
    const Box box = placed_box(out, part->box);
    std::vector<double> xs{laid()->usable.x0, laid()->usable.x1}, ys{laid()->usable.y0, laid()->usable.y1};
    for (const PlacedPart& other : laid()->parts) {
        if (other.placement.id == before_.id) continue;
        xs.insert(xs.end(), {other.box.x0, other.box.x1});
        ys.insert(ys.end(), {other.box.y0, other.box.y1});
    }
    const double near = 6 / view().scale;
    const auto snap = [near](double lo, double hi, const std::vector<double>& lines) {
        double best = near, shift = 0;
        for (const double l : lines)
            for (const double edge : {lo, hi})
                if (std::abs(l - edge) < best) best = std::abs(l - edge), shift = l - edge;
        return shift;
    };
    out.left += mm(snap(box.x0, box.x1, xs));
    out.top += mm(snap(box.y0, box.y1, ys));
    return out;
}

void SheetsView::mousePressEvent(QMouseEvent* event) {
    Canvas::mousePressEvent(event);
    if (panning() || event->button() != Qt::LeftButton || !laid()) return;
    Choice choice = session_.choice();
    if (const auto cell = strip_hit(event->position())) {
        choice.sheet = session_.project().sheets[*cell].id;
        choice.placement = {};
        return session_.choose(choice);
    }
    drag_from_ = event->position();
    if (const PlacedPart* part = chosen_part()) {
        const QPointF d = event->position() - turn_handle(view().map(part->box));
        if (std::hypot(d.x(), d.y()) < 11) {
            before_ = preview_ = part->placement;
            drag_ = Drag::turn;
            return refresh();
        }
    }
    choice.placement = {};
    for (const PlacedPart& part : laid()->parts)
        if (view().map(part.box).adjusted(-3, -3, 3, 3).contains(event->position())) {
            choice.placement = part.placement.id;
            choice.part = part.placement.part;
            before_ = part.placement;
        }
    session_.choose(choice);
}

void SheetsView::mouseMoveEvent(QMouseEvent* event) {
    Canvas::mouseMoveEvent(event);
    if (!(event->buttons() & Qt::LeftButton) || panning() || !chosen_part() || !laid()) return;
    const QPointF d = event->position() - drag_from_;
    if (drag_ == Drag::none) {
        if (std::hypot(d.x(), d.y()) < drag_threshold || before_.id != session_.choice().placement) return;
        drag_ = Drag::move;
        refresh();
    }
    preview_ = dragged(event->position(), event->modifiers());
    update();
}

void SheetsView::mouseReleaseEvent(QMouseEvent* event) {
    Canvas::mouseReleaseEvent(event);
    if (drag_ == Drag::none) return;
    const bool turned = drag_ == Drag::turn;
    drag_ = Drag::none;
    const Placement to = preview_;
    session_.change(turned ? tr("Turn part") : tr("Move part"),
                    [to](Project& p) { return change_placement(p, to); });
    refresh();
}

void SheetsView::nudge(double dx, double dy) {
    const PlacedPart* part = chosen_part();
    if (!part) return;
    // The document may be ahead of what is derived while a key repeats.
    const Placement* now = find_placement(session_.project(), part->placement.id);
    Placement to = *now;
    to.left += mm(dx);
    to.top += mm(dy);
    session_.change(
        tr("Move part"), [to](Project& p) { return change_placement(p, to); }, "nudge");
}

void SheetsView::keyPressEvent(QKeyEvent* event) {
    const double step = event->modifiers() & Qt::ShiftModifier     ? 10
                        : event->modifiers() & Qt::ControlModifier ? 0.1
                                                                   : 1;
    switch (event->key()) {
    case Qt::Key_Left:
        return nudge(-step, 0);
    case Qt::Key_Right:
        return nudge(step, 0);
    case Qt::Key_Up:
        return nudge(0, -step);
    case Qt::Key_Down:
        return nudge(0, step);
    case Qt::Key_Escape:
        if (drag_ != Drag::none) {
            drag_ = Drag::none;
            return refresh();
        } else {
            Choice choice = session_.choice();
            choice.placement = {};
            return session_.choose(choice);
        }
    default:
        Canvas::keyPressEvent(event);
    }
}

} // namespace dotlane::app
