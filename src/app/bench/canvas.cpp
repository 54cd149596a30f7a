#include "app/bench/canvas.h"

#include <QElapsedTimer>
#include <QMouseEvent>
#include <QPainter>
#include <QtConcurrent>

#include "core/base/caught.h"

namespace dotlane::app {
namespace {

/// Content that was painted within this time, and has not grown since, is painted at once, as is what is
/// small; anything else goes to another thread.
constexpr qint64 quick_ms = 12;
constexpr std::size_t small_weight = 4000;
/// The first picture of all is worth waiting a little longer for: the window comes up with it.
constexpr std::size_t first_weight = 20000;
constexpr double ruler = 24;

bool same(const present::View& a, const present::View& b) {
    return a.scale == b.scale && a.shift == b.shift;
}

} // namespace

Canvas::Canvas(QWidget* parent)
    : QWidget(parent) {
    setFocusPolicy(Qt::StrongFocus);
    setMouseTracking(true);
    setMinimumSize(240, 160);
    connect(&watcher_, &QFutureWatcherBase::finished, this, [this] {
        take(watcher_.result());
        update();
    });
}

Canvas::~Canvas() {
    watcher_.waitForFinished();
}

Canvas::Picture Canvas::paint(const Painting& painting, const present::View& view, QSize size, double ratio,
                              std::size_t weight) {
    QElapsedTimer timer;
    timer.start();
    Picture out{QImage(size * ratio, QImage::Format_ARGB32_Premultiplied), view, 0, weight};
    out.image.setDevicePixelRatio(ratio);
    out.image.fill(Qt::transparent);
    QPainter painter(&out.image);
    painting(painter, view, QRectF(QPointF(), QSizeF(size)));
    out.cost_ms = timer.elapsed();
    return out;
}

void Canvas::take(Picture picture) {
    picture_ = std::move(picture);
}

void Canvas::ensure_picture() {
    const QSize wanted = size() * devicePixelRatioF();
    if (!stale_ && same(picture_.view, view_) && picture_.image.size() == wanted) return;
    if (watcher_.isRunning()) return;
    const auto painting = content();
    stale_ = false;
    const std::size_t now = weight();
    const bool known = !picture_.image.isNull() && picture_.cost_ms <= quick_ms && now <= picture_.weight;
    const std::size_t at_once = picture_.weight == 0 ? first_weight : small_weight;
    if (known || now <= at_once) {
        take(paint(painting, view_, size(), devicePixelRatioF(), now));
        return;
    }
    watcher_.setFuture(QtConcurrent::run([painting, view = view_, size = size(), ratio = devicePixelRatioF(),
                                          now] {
        const auto painted =
            caught([&]() -> Result<Picture> { return paint(painting, view, size, ratio, now); });
        // Nothing is shown where memory does not reach for what would be.
        return painted ? *painted
                       : paint([](QPainter&, const present::View&, const QRectF&) {}, view, size, ratio, now);
    }));
}

void Canvas::finish_painting() {
    for (int i = 0; i < 8; ++i) {
        ensure_picture();
        if (!watcher_.isRunning()) break;
        watcher_.waitForFinished();
        take(watcher_.result());
    }
    update();
}

void Canvas::refresh() {
    stale_ = true;
    if (fitted_) fit();
    update();
}

void Canvas::set_view(const present::View& view) {
    view_ = view;
    update();
    Q_EMIT zoomed();
}

void Canvas::fit() {
    fitted_ = true;
    sought_.reset();
    const QMarginsF room = rim();
    const QRectF into = QRectF(rect()).marginsRemoved(room);
    const Box box = world();
    if (into.width() < 10 || into.height() < 10 || box.empty()) return;
    set_view(present::View::fitting(box, into));
}

void Canvas::show_area(const Box& area) {
    if (area.empty()) return;
    const double least = 20; // mm around a point-like finding
    const double grow = std::max({least, area.width() * 0.3, area.height() * 0.3});
    fitted_ = false;
    sought_ = area;
    set_view(present::View::fitting(area.grown(grow), QRectF(rect()).marginsRemoved(rim())));
}

void Canvas::ring_nothing() {
    sought_.reset();
    update();
}

void Canvas::zoom_by(double factor, QPointF about) {
    fitted_ = false;
    present::View v = view_;
    v.scale = std::clamp(view_.scale * factor, 0.02, 400.0);
    v.shift = about + (view_.shift - about) * (v.scale / view_.scale);
    set_view(v);
}

void Canvas::set_unit(LengthUnit unit) {
    unit_ = unit;
    update();
}

void Canvas::paintEvent(QPaintEvent*) {
    ensure_picture();
    QPainter painter(this);
    const present::Theme& theme = present::Theme::current();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.fillRect(rect(), theme.panel);
    QPainterPath frame;
    frame.addRoundedRect(QRectF(rect()).adjusted(0, 0, 0, 0), 8, 8);
    painter.setClipPath(frame);
    painter.fillRect(rect(), theme.paper);
    if (!picture_.image.isNull()) {
        if (same(picture_.view, view_)) {
            painter.drawImage(QPointF(), picture_.image);
        } else { // the newest picture is still being painted: the last one, moved to where it belongs
            painter.save();
            const double k = view_.scale / picture_.view.scale;
            painter.translate(view_.shift - picture_.view.shift * k);
            painter.scale(k, k);
            painter.setRenderHint(QPainter::SmoothPixmapTransform);
            painter.drawImage(QPointF(), picture_.image);
            painter.restore();
        }
    }
    if (sought_) paint_sought(painter);
    paint_overlay(painter);
    if (has_rulers()) paint_rulers(painter);
}

void Canvas::paint_sought(QPainter& painter) const {
    constexpr double room = 12, least = 28; // px
    QRectF box =
        QRectF(view_.map(Point{sought_->x0, sought_->y0}), view_.map(Point{sought_->x1, sought_->y1}))
            .normalized()
            .adjusted(-room, -room, room, room);
    const QPointF middle = box.center();
    box.setSize(box.size().expandedTo(QSizeF(least, least)));
    box.moveCenter(middle);
    const present::Theme& theme = present::Theme::current();
    painter.save();
    painter.setBrush(Qt::NoBrush);
    for (const auto& [colour, wide] : {std::pair(theme.paper, 4.0), std::pair(theme.lamp, 1.8)}) {
        painter.setPen(QPen(colour, wide));
        painter.drawRoundedRect(box, least / 2, least / 2);
    }
    painter.restore();
}

void Canvas::paint_rulers(QPainter& painter) const {
    const present::Theme& theme = present::Theme::current();
    QColor ground = theme.panel;
    ground.setAlpha(235);
    painter.fillRect(QRectF(0, 0, width(), ruler), ground);
    painter.fillRect(QRectF(0, 0, ruler, height()), ground);
    const double unit = unit_ == LengthUnit::mm ? 1.0 : mm_per_inch;
    // Steps of 1, 2, 5, 10 (mm) or 1/8, 1/4, 1/2, 1, 2, 5 (in), so that small ticks are at least 9 px apart.
    static constexpr double nice_mm[] = {0.1, 0.2, 0.5, 1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000};
    static constexpr double nice_in[] = {0.0625, 0.125, 0.25, 0.5, 1, 2, 5, 10, 20, 50, 100, 200};
    const auto choose = [&](const auto& list) {
        for (const double s : list)
            if (s * unit * view_.scale >= 9) return s;
        return list[std::size(list) - 1];
    };
    const double step = unit_ == LengthUnit::mm ? choose(nice_mm) : choose(nice_in);
    painter.setFont(present::ui_font(8));
    const auto ticks = [&](bool across) {
        const double begin = (ruler - (across ? view_.shift.x() : view_.shift.y())) / view_.scale / unit;
        const double end = ((across ? width() : height()) - (across ? view_.shift.x() : view_.shift.y())) /
                           view_.scale / unit;
        for (auto k = static_cast<long>(std::ceil(begin / step)); static_cast<double>(k) * step <= end; ++k) {
            const double at = static_cast<double>(k) * step * unit * view_.scale +
                              (across ? view_.shift.x() : view_.shift.y());
            const bool named = k % 5 == 0;
            const double size = named ? 8 : 4;
            painter.setPen(QPen(theme.quiet, named ? 1 : 0.7));
            painter.drawLine(across ? QPointF(at, ruler - size) : QPointF(ruler - size, at),
                             across ? QPointF(at, ruler) : QPointF(ruler, at));
            if (!named) continue;
            const QString text = QString::number(static_cast<double>(k) * step);
            const double half = painter.fontMetrics().horizontalAdvance(text) / 2.0 + 2;
            if (at - half < ruler || at + half > (across ? width() : height())) continue; // no half numbers
            painter.save();
            painter.translate(across ? QPointF(at, ruler - 15) : QPointF(ruler - 15, at));
            if (!across) painter.rotate(-90);
            painter.drawText(QRectF(-30, -8, 60, 14), Qt::AlignCenter, text);
            painter.restore();
        }
    };
    ticks(true);
    ticks(false);
    painter.fillRect(QRectF(0, 0, ruler, ruler), theme.panel);
    painter.setPen(theme.quiet);
    painter.drawText(QRectF(0, 0, ruler, ruler), Qt::AlignCenter,
                     unit_ == LengthUnit::mm ? tr("mm") : tr("in"));
}

void Canvas::resizeEvent(QResizeEvent* event) {
    if (fitted_) fit();
    QWidget::resizeEvent(event);
}

void Canvas::wheelEvent(QWheelEvent* event) {
    if (!event->pixelDelta().isNull() && !(event->modifiers() & Qt::ControlModifier)) { // touch pads scroll
        fitted_ = false;
        present::View v = view_;
        v.shift += event->pixelDelta();
        set_view(v);
    } else {
        zoom_by(std::pow(1.0015, event->angleDelta().y()), event->position());
    }
    event->accept();
}

void Canvas::mousePressEvent(QMouseEvent* event) {
    if (sought_) ring_nothing();
    panning_ = event->button() == Qt::MiddleButton || (space_ && event->button() == Qt::LeftButton);
    pan_from_ = event->position();
    if (panning_) setCursor(Qt::ClosedHandCursor);
}

void Canvas::mouseMoveEvent(QMouseEvent* event) {
    if (!panning_) return;
    fitted_ = false;
    present::View v = view_;
    v.shift += event->position() - pan_from_;
    pan_from_ = event->position();
    set_view(v);
}

void Canvas::mouseReleaseEvent(QMouseEvent*) {
    if (std::exchange(panning_, false)) unsetCursor();
}

void Canvas::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Space && !event->isAutoRepeat())
        space_ = true;
    else
        QWidget::keyPressEvent(event);
}

void Canvas::keyReleaseEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Space && !event->isAutoRepeat())
        space_ = false;
    else
        QWidget::keyReleaseEvent(event);
}

void Canvas::changeEvent(QEvent* event) {
    if (event->type() == QEvent::StyleChange || event->type() == QEvent::PaletteChange) refresh();
    QWidget::changeEvent(event);
}

} // namespace dotlane::app
