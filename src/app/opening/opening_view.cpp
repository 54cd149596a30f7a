#include <QPainter>

#include "app/opening/opening_panel.h"
#include "present/part_painter.h"

namespace dotlane::app {

OpeningView::OpeningView(QWidget* parent)
    : Canvas(parent) {
    setAccessibleName(tr("Bench: the file that is being opened"));
}

void OpeningView::show_drawing(const Opened& opened, double factor, LengthUnit unit) {
    drawing_ = opened.source.drawing;
    box_ = opened.box;
    factor_ = factor;
    set_unit(unit);
    fit();
    refresh();
}

Box OpeningView::world() const {
    if (!drawing_) return {};
    return {box_.x0 * factor_, box_.y0 * factor_, box_.x1 * factor_, box_.y1 * factor_};
}

Canvas::Painting OpeningView::content() const {
    if (!drawing_) return [](auto&, auto&, auto&) {};
    return [drawing = drawing_, factor = factor_](QPainter& painter, const present::View& view,
                                                  const QRectF& visible) {
        present::View scaled = view; // the drawing stays as it was read; only the view knows the size
        scaled.scale *= factor;
        present::paint_drawing(painter, *drawing, scaled, visible);
    };
}

void OpeningView::paint_overlay(QPainter& painter) {
    if (!drawing_) return;
    const present::Theme& theme = present::Theme::current();
    painter.setFont(present::ui_font(9));
    painter.setPen(theme.quiet);
    painter.drawText(
        QRectF(38, height() - 28, width() - 50, 20), Qt::AlignLeft | Qt::AlignVCenter,
        tr("The file as it was drawn. Settle its size and lanes at the right, then take it in."));
}

} // namespace dotlane::app
