// Numbered pieces on the bench: kept or dropped by a press, or kept together when they are laid apart.
#include <QCoreApplication>
#include <QPainter>

#include "app/bench/part_view.h"
#include "core/commands/steps.h"
#include "present/lane_style.h"

namespace dotlane::app {
namespace {

constexpr std::size_t most_shown = 500; // more numbers than that nobody reads

QPainterPath path_of_region(const Region& region, const present::View& view) {
    QPainterPath path;
    path.setFillRule(Qt::OddEvenFill);
    for (const Ring& ring : region.rings)
        path.addPath(present::path_of({ring, true}, view));
    return path;
}

} // namespace

const Step* PartView::pieces_step() const {
    const Part* part = session_.part();
    const Step* step = part ? dotlane::find(*part, session_.choice().step) : nullptr;
    return step && step->on && kind_of(step->what).counts_pieces ? step : nullptr;
}

const StepReport* PartView::pieces_report() const {
    const Step* step = pieces_step();
    const EvaluatedPart* part = session_.evaluated();
    if (!step || !part) return nullptr;
    const auto it = part->reports.find(step->id);
    return it == part->reports.end() || it->second->pieces.empty() ? nullptr : it->second.get();
}

void PartView::paint_pieces(QPainter& painter) const {
    const StepReport* report = pieces_report();
    if (!report) return;
    const present::Theme& theme = present::Theme::current();
    painter.save();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(present::ui_font(9, QFont::DemiBold));
    const bool apart = report->apart.has_value();
    for (std::size_t i = 0; i < std::min(report->pieces.size(), most_shown); ++i) {
        const auto& piece = report->pieces[i];
        const QPainterPath path = path_of_region(piece.region, view());
        QColor tint = piece.kept ? theme.lamp : theme.quiet;
        tint.setAlpha(piece.kept ? 60 : 40);
        painter.fillPath(path, piece.kept || apart ? QBrush(tint) : QBrush(tint, Qt::BDiagPattern));
        painter.strokePath(path, QPen(piece.kept ? theme.lamp : theme.quiet, piece.kept ? 1.6 : 1,
                                      piece.kept ? Qt::SolidLine : Qt::DotLine));
        QString number = QString::number(i + 1);
        if (apart && piece.kept && piece.with != static_cast<int>(i) + 1)
            number = tr("%1 with %2").arg(number).arg(piece.with);
        const QRectF box = path.boundingRect();
        QRectF badge(0, 0, painter.fontMetrics().horizontalAdvance(number) + 10, 17);
        // Beside a small piece rather than over it.
        badge.moveCenter(box.width() > 30 && box.height() > 24 ? box.center()
                                                               : QPointF(box.center().x(), box.top() - 10));
        painter.setPen(Qt::NoPen);
        painter.setBrush(theme.card);
        painter.drawRoundedRect(badge, 8, 8);
        painter.setPen(piece.kept || apart ? theme.ink : theme.quiet);
        painter.drawText(badge, Qt::AlignCenter, number);
        if (!piece.kept && !apart)
            painter.drawLine(badge.left() + 4, badge.center().y(), badge.right() - 4, badge.center().y());
    }
    painter.restore();
}

bool PartView::toggle_piece(QPointF at) {
    const Step* step = pieces_step();
    const StepReport* report = pieces_report();
    if (!step || !report) return false;
    const Point p = view().unmap(at);
    const Region* best = nullptr;
    int number = 0;
    for (std::size_t i = 0; i < report->pieces.size(); ++i) {
        const Region& region = report->pieces[i].region;
        // What lies in a hole of another piece is nearer to the hand.
        if (dotlane::contains(without_holes(region), p) && (!best || area(region) < area(*best)))
            best = &region, number = static_cast<int>(i) + 1;
    }
    if (number == 0) return false;
    Step next = *step;
    press_piece(next.what, number);
    session_.run(report->apart ? tr("Keep pieces together") : tr("Keep or drop a piece"),
                 ChangeStep{session_.choice().part, next.id, next.what});
    return true;
}

} // namespace dotlane::app
