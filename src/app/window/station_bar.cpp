#include "app/window/station_bar.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include "present/theme.h"

namespace dotlane::app {
namespace {

constexpr double pitch = 112, radius = 8;

} // namespace

StationBar::StationBar(QStringList stations, QWidget* parent)
    : QWidget(parent)
    , stations_(std::move(stations)) {
    setFocusPolicy(Qt::TabFocus);
    setMouseTracking(true);
    setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Fixed);
    setAccessibleName(tr("Views"));
    setCursor(Qt::PointingHandCursor);
}

QSize StationBar::sizeHint() const {
    return {static_cast<int>(pitch * static_cast<double>(stations_.size())) + 30, 46};
}

QPointF StationBar::dot(int index) const {
    return {20 + pitch * index, 31};
}

int StationBar::hit(QPointF at) const {
    const int index = static_cast<int>((at.x() - 4) / pitch);
    return at.x() < 0 || index >= stations_.size() ? -1 : index;
}

void StationBar::set_current(int index) {
    current_ = index;
    setAccessibleDescription(stations_.value(index));
    update();
}

void StationBar::paintEvent(QPaintEvent*) {
    const present::Theme& theme = present::Theme::current();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme.dark ? theme.hairline : QColor("#bdb4a4"), 4));
    painter.drawLine(dot(0), dot(static_cast<int>(stations_.size()) - 1));
    for (int i = 0; i < stations_.size(); ++i) {
        const bool on = i == current_;
        painter.setBrush(on ? theme.lamp : theme.card);
        painter.setPen(QPen(on ? theme.lamp : i == hovered_ ? theme.ink : theme.quiet, 3));
        painter.drawEllipse(dot(i), radius, radius);
        if (on) {
            painter.setBrush(theme.card);
            painter.setPen(Qt::NoPen);
            painter.drawEllipse(dot(i), 3.6, 3.6);
        }
        painter.setFont(present::ui_font(10, on ? QFont::DemiBold : QFont::Normal));
        painter.setPen(on ? theme.ink : i == hovered_ ? theme.ink : theme.quiet);
        painter.drawText(QPointF(dot(i).x() + 6, 16), stations_[i]);
    }
    if (hasFocus()) {
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(theme.lamp, 1));
        painter.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 6, 6);
    }
}

void StationBar::mousePressEvent(QMouseEvent* event) {
    if (const int index = hit(event->position()); index >= 0) Q_EMIT chosen(index);
}

void StationBar::mouseMoveEvent(QMouseEvent* event) {
    if (const int index = hit(event->position()); std::exchange(hovered_, index) != index) update();
}

void StationBar::leaveEvent(QEvent*) {
    hovered_ = -1;
    update();
}

void StationBar::keyPressEvent(QKeyEvent* event) {
    const int step = event->key() == Qt::Key_Right ? 1 : event->key() == Qt::Key_Left ? -1 : 0;
    if (step == 0) return QWidget::keyPressEvent(event);
    Q_EMIT chosen(std::clamp<int>(current_ + step, 0, static_cast<int>(stations_.size()) - 1));
}

} // namespace dotlane::app
