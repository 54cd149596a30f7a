// The pieces that a fill is given to, chosen by pressing them on the bench.
#include <QCoreApplication>
#include <QPainter>
#include <algorithm>

#include "app/bench/part_view.h"
#include "core/commands/inking.h"
#include "core/commands/steps.h"
#include "core/derive/inking.h"
#include "present/lane_style.h"
#include "present/theme.h"

namespace dotlane::app {

void PartView::choose_pieces_of(StepId fill) {
    const StepId wanted = pressing_ == fill ? StepId{} : fill;
    places_of_ = nullptr; // they are of another fill
    if (wanted) {
        Choice choice = session_.choice();
        choice.step = wanted;
        session_.choose(choice);
        setFocus();
    }
    pressing_ = wanted; // choosing ends what was pressed before
    refresh();
}

const FillPlaces& PartView::fill_places() const {
    const auto derived = session_.drawn();
    if (places_of_ != derived) {
        places_of_ = derived;
        const EvaluatedPart* part = session_.evaluated();
        places_ = part ? places_for(*part, pressing_) : FillPlaces();
    }
    return places_;
}

namespace {

/// Short words in pills beside places; where many lie close, as many as there is room for.
class Pills {
  public:
    explicit Pills(QPainter& painter)
        : painter_(painter) {
        painter.setFont(present::ui_font(8));
    }
    void put(const QString& text, QPointF middle, const QColor& rim) {
        const QFontMetricsF metrics(painter_.font());
        QRectF box(0, 0, std::max(metrics.height(), metrics.horizontalAdvance(text) + 8), metrics.height());
        box.moveCenter(middle);
        if (std::any_of(taken_.begin(), taken_.end(),
                        [&](const QRectF& other) { return other.intersects(box); }))
            return;
        taken_.push_back(box);
        painter_.setPen(QPen(rim, 1.2));
        painter_.setBrush(present::Theme::current().card);
        painter_.drawRoundedRect(box, box.height() / 2, box.height() / 2);
        painter_.setPen(present::Theme::current().ink);
        painter_.drawText(box, Qt::AlignCenter, text);
    }

  private:
    QPainter& painter_;
    std::vector<QRectF> taken_;
};

/// A strip of material that is too narrow, and how wide it is: ringed, as it may be a pixel long.
void paint_narrow(QPainter& painter, Pills& pills, QPointF a, QPointF b, const QString& width) {
    constexpr double room = 7; // px
    const QColor tint = present::Theme::current().error;
    painter.setPen(QPen(tint, 2.5, Qt::SolidLine, Qt::FlatCap));
    painter.drawLine(a, b);
    const double around = QLineF(a, b).length() / 2 + room;
    painter.setPen(QPen(tint, 1.5));
    painter.setBrush(Qt::NoBrush);
    painter.drawEllipse((a + b) / 2, around, around);
    pills.put(width, (a + b) / 2 + QPointF(0, around + 9), tint);
}

} // namespace

/// What a chosen step put where: bridges; and in which order hands work.
void PartView::paint_put(QPainter& painter) const {
    const EvaluatedPart* part = session_.evaluated();
    const StepId step = lit_ ? lit_ : session_.choice().step;
    const RecipeChain::Link* link = part ? link_of(*part, step) : nullptr;
    if (!link) return;
    const present::Theme& theme = present::Theme::current();
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    Pills pills(painter);
    for (const StepReport::Put& put : link->report->put) {
        const QPointF a = view().map(put.a), b = view().map(put.b);
        if (put.narrow) {
            paint_narrow(
                painter, pills, a, b,
                QString::fromStdString(to_text(mm(distance(put.a, put.b)), session_.project().unit)));
            continue;
        }
        QColor tint = theme.lamp;
        tint.setAlpha(pressing_ ? 150 : 90);
        painter.setPen(
            QPen(tint, std::max(2.0, in_mm(put.width) * view().scale), Qt::SolidLine, Qt::FlatCap));
        painter.drawLine(a, b);
        if (!put.by_hand) continue;
        painter.setPen(QPen(theme.card, 1.5));
        painter.setBrush(theme.lamp);
        painter.drawEllipse((a + b) / 2, 4, 4);
    }
    const std::vector<Point>& order = link->report->order; // in which hands work, one place after another
    for (std::size_t i = 0; i < order.size(); ++i)
        pills.put(QString::number(i + 1), view().map(order[i]), theme.lamp);
    painter.restore();
}

void PartView::paint_fill_places(QPainter& painter) const {
    const present::Theme& theme = present::Theme::current();
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    const FillPlaces& places = fill_places();
    for (std::size_t i = 0; i < places.pieces.size(); ++i) {
        QPainterPath path;
        path.setFillRule(Qt::OddEvenFill);
        for (const Ring& ring : places.pieces[i].rings)
            path.addPath(present::path_of({ring, true}, view()));
        const bool filled = places.filled[i] != 0;
        QColor tint = filled ? theme.lamp : theme.quiet;
        tint.setAlpha(filled ? 70 : 60);
        painter.fillPath(path, filled ? QBrush(tint) : QBrush(tint, Qt::BDiagPattern));
        painter.strokePath(path, QPen(filled ? theme.lamp : theme.quiet, filled ? 1.6 : 1,
                                      filled ? Qt::SolidLine : Qt::DotLine));
    }
    painter.restore();
}

QString PartView::press_hint() const {
    const Step* step = session_.part() ? dotlane::find(*session_.part(), pressing_) : nullptr;
    return step && kind_of(step->what).press
               ? tr("Press where one is to be; press one again to take it away. Escape: done.")
               : tr("Press the pieces that are to be filled; press one again to leave it out. Escape: done.");
}

bool PartView::press_fill(QPointF at) {
    if (!pressing_ || !session_.part()) return false;
    const Point p = view().unmap(at);
    const Step* step = dotlane::find(*session_.part(), pressing_);
    if (step && kind_of(step->what).press) {
        session_.run(QCoreApplication::translate("Steps", kind_of(step->what).press),
                     PressStep{session_.part()->id, pressing_, p});
        return true;
    }
    for (const Region& piece : fill_places().pieces)
        if (dotlane::contains(piece, p)) {
            session_.run(tr("Fill a piece, or not"), PressFill{session_.part()->id, pressing_, p});
            break;
        }
    return true;
}

} // namespace dotlane::app
