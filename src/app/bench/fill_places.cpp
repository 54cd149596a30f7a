// The pieces that a fill is given to, chosen by pressing them on the bench.
#include <QCoreApplication>
#include <QPainter>

#include "app/bench/part_view.h"
#include "core/commands/inking.h"
#include "core/derive/inking.h"
#include "present/lane_style.h"

namespace dotlane::app {

void PartView::choose_pieces_of(StepId fill) {
    pressing_ = pressing_ == fill ? StepId{} : fill;
    if (pressing_) {
        Choice choice = session_.choice();
        choice.step = pressing_;
        session_.choose(choice);
        setFocus();
    }
    update();
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

bool PartView::press_fill(QPointF at) {
    if (!pressing_ || !session_.part()) return false;
    const Point p = view().unmap(at);
    for (const Region& piece : fill_places().pieces)
        if (dotlane::contains(piece, p)) {
            session_.run(tr("Fill a piece, or not"), PressFill{session_.part()->id, pressing_, p});
            break;
        }
    return true;
}

} // namespace dotlane::app
