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
    picture_ = {};
    box_ = opened.box;
    factor_ = factor;
    set_unit(unit);
    fit();
    refresh();
}

void OpeningView::show_picture(const OpenedPicture& opened, Length width, LengthUnit unit) {
    if (picture_.isNull() || drawing_) {
        const std::string& bytes = *opened.picture.bytes;
        picture_ =
            QImage::fromData(reinterpret_cast<const uchar*>(bytes.data()), static_cast<int>(bytes.size()));
    }
    drawing_.reset();
    factor_ = in_mm(width) / opened.width;
    box_ = {0, 0, static_cast<double>(opened.width), static_cast<double>(opened.height)};
    set_unit(unit);
    fit();
    refresh();
}

Box OpeningView::world() const {
    if (!drawing_ && picture_.isNull()) return {};
    return {box_.x0 * factor_, box_.y0 * factor_, box_.x1 * factor_, box_.y1 * factor_};
}

Canvas::Painting OpeningView::content() const {
    if (!drawing_)
        return [picture = picture_, world = world()](QPainter& painter, const present::View& view,
                                                     const QRectF&) {
            painter.setRenderHint(QPainter::SmoothPixmapTransform);
            painter.drawImage(view.map(world), picture);
        };
    return [drawing = drawing_, factor = factor_](QPainter& painter, const present::View& view,
                                                  const QRectF& visible) {
        present::View scaled = view; // the drawing stays as it was read; only the view knows the size
        scaled.scale *= factor;
        present::paint_drawing(painter, *drawing, scaled, visible);
    };
}

void OpeningView::paint_overlay(QPainter& painter) {
    if (!drawing_ && picture_.isNull()) return;
    const present::Theme& theme = present::Theme::current();
    painter.setFont(present::ui_font(9));
    painter.setPen(theme.quiet);
    painter.drawText(
        QRectF(38, height() - 28, width() - 50, 20), Qt::AlignLeft | Qt::AlignVCenter,
        drawing_
            ? tr("The file as it was drawn. Settle its size and lanes at the right, then take it in.")
            : tr("The picture as it is. Settle its size at the right, then take it in: it is traced, and all "
                 "numbers can be changed."));
}

} // namespace dotlane::app
