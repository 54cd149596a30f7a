#include "app/widgets/grip.h"

#include <QApplication>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include "present/theme.h"

namespace dotlane::app {

Grip::Grip(QWidget* parent)
    : QWidget(parent) {
    setFixedSize(sizeHint());
    setCursor(Qt::OpenHandCursor);
    setFocusPolicy(Qt::StrongFocus);
}

void Grip::paintEvent(QPaintEvent*) {
    const present::Theme& theme = present::Theme::current();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(Qt::NoPen);
    painter.setBrush(hasFocus() || dragging_ ? theme.lamp : theme.quiet);
    for (const double y : {5.0, 10.0, 15.0})
        for (const double x : {3.0, 8.0})
            painter.drawEllipse(QPointF(x, y), 1.3, 1.3);
}

void Grip::mousePressEvent(QMouseEvent* event) {
    if (event->button() != Qt::LeftButton) return;
    held_ = true, dragging_ = false;
    from_ = event->globalPosition().toPoint();
    setCursor(Qt::ClosedHandCursor);
}

void Grip::mouseMoveEvent(QMouseEvent* event) {
    const QPoint at = event->globalPosition().toPoint();
    if (!held_ || (!dragging_ && (at - from_).manhattanLength() < QApplication::startDragDistance())) return;
    dragging_ = true;
    update();
    Q_EMIT dragged(at);
}

void Grip::mouseReleaseEvent(QMouseEvent* event) {
    held_ = false;
    setCursor(Qt::OpenHandCursor);
    update();
    if (std::exchange(dragging_, false)) Q_EMIT dropped(event->globalPosition().toPoint());
}

void Grip::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape && dragging_) {
        held_ = dragging_ = false;
        update();
        return Q_EMIT given_up();
    }
    if (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down)
        return Q_EMIT moved_by(event->key() == Qt::Key_Up ? -1 : 1);
    QWidget::keyPressEvent(event);
}

} // namespace dotlane::app
