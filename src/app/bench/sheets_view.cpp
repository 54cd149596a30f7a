#include "app/bench/sheets_view.h"

#include <QMouseEvent>
#include <QPainter>
#include <numbers>

#include "core/base/text.h"
#include "core/commands/arranging.h"
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
    const std::set<PlacementId> hidden = drag_ == Drag::none ? std::set<PlacementId>{} : chosen();
    return [derived, sheet, hidden, &catalog = session_.catalog()](
               QPainter& painter, const present::View& view, const QRectF& visible) {
        present::SheetScene scene{derived->project.get(), &catalog, derived.get(), sheet};
        scene.hidden = hidden;
        present::paint_sheet(painter, scene, view, visible);
    };
}

std::set<PlacementId> SheetsView::chosen() const {
    const auto all = session_.chosen_placements();
    return {all.begin(), all.end()};
}

std::vector<const PlacedPart*> SheetsView::chosen_parts() const {
    std::vector<const PlacedPart*> out;
    const auto ids = chosen();
    if (const LaidSheet* sheet = laid())
        for (const PlacedPart& p : sheet->parts)
            if (ids.contains(p.placement.id)) out.push_back(&p);
    return out;
}

const PlacedPart* SheetsView::chosen_part() const {
    const auto all = chosen_parts();
    return all.size() == 1 ? all.front() : nullptr;
}

Extent SheetsView::extent_of_part(const Placement& placement) const {
    const auto derived = session_.drawn();
    const EvaluatedPart* part = derived ? derived->part(placement.part) : nullptr;
    return part ? extent_of(*part, placement.piece) : Extent{};
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
    const auto parts = chosen_parts();
    const auto derived = session_.drawn();
    if (parts.empty() || !derived) return;
    const present::Theme& theme = present::Theme::current();
    const present::SheetScene scene{derived->project.get(), &session_.catalog(), derived.get(),
                                    session_.choice().sheet};
    std::vector<Placement> places;
    if (drag_ != Drag::none)
        places = preview_;
    else
        for (const PlacedPart* part : parts)
            places.push_back(part->placement);
    Box all;
    painter.setBrush(Qt::NoBrush);
    for (const Placement& place : places) {
        const EvaluatedPart* part = derived->part(place.part);
        if (!part || !is_there(*part, place.piece)) continue; // gone while it was dragged
        const Box box = placed_box(place, extent_of_part(place));
        all.add(box);
        if (drag_ != Drag::none)
            present::paint_placed(painter, scene, *part, place.piece,
                                  placement_transform(place, extent_of_part(place)), view(), rect());
        const bool outside = laid() && !laid()->usable.grown(1e-6).contains(box);
        painter.setPen(QPen(outside ? theme.error : theme.lamp, 1.8));
        painter.drawRect(view().map(box).adjusted(-3, -3, 3, 3));
    }
    if (all.empty()) return;
    const QRectF area = view().map(all);
    if (places.size() > 1) {
        QPen around(theme.lamp, 1);
        around.setDashPattern({4, 3});
        painter.setPen(around);
        painter.drawRect(area.adjusted(-8, -8, 8, 8));
        return paint_numbers(painter, area, all, {});
    }
    const QPointF handle = turn_handle(area);
    painter.drawLine(QPointF(handle.x(), area.top() - 3), handle);
    painter.setBrush(theme.card);
    painter.drawEllipse(handle, 6, 6);
    paint_numbers(painter, area, all, places.front().turn);
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
    if (band_from_) {
        painter.setPen(QPen(theme.lamp, 1));
        QColor tint = theme.lamp;
        tint.setAlpha(30);
        painter.setBrush(tint);
        painter.drawRect(QRectF(*band_from_, drag_to_).normalized());
    }
    paint_strip(painter);
    if (!session_.choice().placement) {
        painter.setFont(present::ui_font(9));
        painter.setPen(theme.quiet);
        painter.drawText(
            QRectF(16, height() - 28, width() - 24, 20), Qt::AlignLeft | Qt::AlignVCenter,
            tr("The mat as it is loaded. Drag a part to move it, drag a band to choose several; the "
               "hatched rim is out of the machine's reach."));
    }
}

void SheetsView::begin_drag(Drag drag) {
    before_.clear();
    for (const PlacedPart* part : chosen_parts())
        before_.push_back(part->placement);
    preview_ = before_;
    drag_ = before_.empty() ? Drag::none : drag;
}

Placement SheetsView::turned(QPointF to, Qt::KeyboardModifiers modifiers) const {
    const Extent extent = extent_of_part(before_.front());
    const QPointF middle = view().map(placed_box(before_.front(), extent).centre());
    const QPointF a = drag_from_ - middle, b = to - middle;
    double turn = in_degrees(before_.front().turn) +
                  (std::atan2(b.y(), b.x()) - std::atan2(a.y(), a.x())) * 180 / std::numbers::pi;
    const double step = modifiers & Qt::ShiftModifier ? 1 : 15;
    turn = std::remainder(std::round(turn / step) * step, 360);
    return turned_about_middle(before_.front(), extent, degrees(turn == -180 ? 180 : turn));
}

std::vector<Placement> SheetsView::dragged(QPointF to, Qt::KeyboardModifiers modifiers) const {
    if (drag_ == Drag::turn) return {turned(to, modifiers)};
    QPointF by = (to - drag_from_) / view().scale;
    if (!(modifiers & Qt::ShiftModifier)) {
        // Near an edge of the usable area or of what lies still it goes there exactly.
        Box box;
        for (const Placement& place : before_)
            box.add(placed_box(place, extent_of_part(place)));
        const auto moving = chosen();
        std::vector<double> xs{laid()->usable.x0, laid()->usable.x1},
            ys{laid()->usable.y0, laid()->usable.y1};
        for (const PlacedPart& other : laid()->parts) {
            if (moving.contains(other.placement.id)) continue;
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
        by += {snap(box.x0 + by.x(), box.x1 + by.x(), xs), snap(box.y0 + by.y(), box.y1 + by.y(), ys)};
    }
    std::vector<Placement> out = before_;
    for (Placement& place : out)
        place.left += mm(by.x()), place.top += mm(by.y());
    return out;
}

void SheetsView::choose_with(const std::vector<PlacementId>& hit, Qt::KeyboardModifiers modifiers) {
    Choice choice = session_.choice();
    std::set<PlacementId> all;
    if (modifiers & (Qt::ControlModifier | Qt::ShiftModifier)) all = chosen();
    for (const PlacementId id : hit)
        if (!all.insert(id).second && modifiers & Qt::ControlModifier)
            for (const PlacementId together : with_groups(*session_.sheet(), {id}))
                all.erase(together);
    choice.placement = {};
    // What was hit last leads, if it is among them.
    if (!hit.empty() && all.contains(hit.back()))
        choice.placement = hit.back();
    else if (!all.empty())
        choice.placement = *all.begin();
    all.erase(choice.placement);
    choice.with = std::move(all);
    if (const Placement* lead = find_placement(session_.project(), choice.placement))
        choice.part = lead->part;
    session_.choose(choice);
}

void SheetsView::mousePressEvent(QMouseEvent* event) {
    Canvas::mousePressEvent(event);
    if (panning() || event->button() != Qt::LeftButton || !laid()) return;
    if (const auto cell = strip_hit(event->position())) {
        Choice choice = session_.choice();
        choice.sheet = session_.project().sheets[*cell].id;
        choice.placement = {};
        choice.with.clear();
        return session_.choose(choice);
    }
    drag_from_ = drag_to_ = event->position();
    if (const PlacedPart* part = chosen_part()) {
        const QPointF d = event->position() - turn_handle(view().map(part->box));
        if (std::hypot(d.x(), d.y()) < 11) {
            begin_drag(Drag::turn);
            return refresh();
        }
    }
    const PlacedPart* met = under(event->position());
    const PlacementId hit = met ? met->placement.id : PlacementId{};
    const auto modifiers = event->modifiers();
    pressed_ = hit.value != 0;
    if (!pressed_)
        band_from_ = event->position();
    else if (modifiers != Qt::NoModifier || !chosen().contains(hit)) // one of several chosen: drags them all
        choose_with({hit}, modifiers);
}

const PlacedPart* SheetsView::under(QPointF at) const {
    return laid() ? part_at(*laid(), view().unmap(at), 3 / view().scale) : nullptr;
}

void SheetsView::mouseMoveEvent(QMouseEvent* event) {
    Canvas::mouseMoveEvent(event);
    if (!(event->buttons() & Qt::LeftButton) || panning() || !laid()) return;
    drag_to_ = event->position();
    if (band_from_) return update();
    const QPointF d = event->position() - drag_from_;
    if (drag_ == Drag::none) {
        if (!pressed_ || std::hypot(d.x(), d.y()) < drag_threshold) return;
        begin_drag(Drag::move);
        if (drag_ == Drag::none) return;
        refresh();
    }
    preview_ = dragged(event->position(), event->modifiers());
    update();
}

void SheetsView::mouseReleaseEvent(QMouseEvent* event) {
    Canvas::mouseReleaseEvent(event);
    if (event->button() != Qt::LeftButton) return;
    const bool was_pressed = std::exchange(pressed_, false);
    if (band_from_) {
        const QRectF band = QRectF(*band_from_, event->position()).normalized();
        band_from_.reset();
        std::vector<PlacementId> hit;
        if (laid() && (band.width() > drag_threshold || band.height() > drag_threshold))
            for (const PlacedPart& part : laid()->parts)
                if (band.intersects(view().map(part.box))) hit.push_back(part.placement.id);
        choose_with(hit, event->modifiers());
        return update();
    }
    if (drag_ == Drag::none) {
        // A click without a drag on one of several leaves that one.
        if (was_pressed && event->modifiers() == Qt::NoModifier && !session_.choice().with.empty())
            if (const PlacedPart* met = under(event->position())) choose_with({met->placement.id}, {});
        return;
    }
    const bool turned = drag_ == Drag::turn;
    drag_ = Drag::none;
    const Placement &from = before_.front(), &to = preview_.front();
    if (turned)
        session_.run(tr("Turn part"), ChangePlaced{from.id, {}, {}, to.turn});
    else
        shift(to.left - from.left, to.top - from.top);
    refresh();
}

void SheetsView::shift(Length right, Length down, const QString& merge) {
    if (auto all = session_.chosen_placements(); !all.empty())
        session_.run(tr("Move part"), ShiftPlaced{{std::move(all)}, right, down}, merge);
}

void SheetsView::nudge(double dx, double dy) {
    shift(mm(dx), mm(dy), "nudge");
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
        if (drag_ != Drag::none || band_from_) {
            drag_ = Drag::none;
            pressed_ = false;
            band_from_.reset();
            return refresh();
        } else {
            Choice choice = session_.choice();
            choice.placement = {};
            choice.with.clear();
            return session_.choose(choice);
        }
    default:
        Canvas::keyPressEvent(event);
    }
}

} // namespace dotlane::app
