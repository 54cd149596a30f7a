#include "app/widgets/card.h"

#include <QEvent>
#include <QMouseEvent>
#include <QPainter>

#include "present/theme.h"

namespace dotlane::app {

Card::Card(QWidget* parent)
    : QFrame(parent)
    , rows_(new QVBoxLayout(this)) {
    rows_->setContentsMargins(12, 9, 10, 9);
    rows_->setSpacing(3);
}

void Card::set_chosen(bool chosen) {
    if (std::exchange(chosen_, chosen) != chosen) update();
}

void Card::set_wrong(bool wrong) {
    if (std::exchange(wrong_, wrong) != wrong) update();
}

void Card::paintEvent(QPaintEvent*) {
    const present::Theme& theme = present::Theme::current();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(chosen_ ? theme.lamp : wrong_ ? theme.error : theme.hairline, chosen_ ? 1.8 : 1));
    painter.setBrush(wrong_ ? theme.error_card : theme.card);
    painter.drawRoundedRect(QRectF(rect()).adjusted(1, 1, -1, -1), 7, 7);
}

void Card::mousePressEvent(QMouseEvent* event) {
    if (event->button() == Qt::LeftButton) Q_EMIT pressed();
    QFrame::mousePressEvent(event);
}

void Card::enterEvent(QEnterEvent* event) {
    Q_EMIT hovered(true);
    QFrame::enterEvent(event);
}

void Card::leaveEvent(QEvent* event) {
    Q_EMIT hovered(false);
    QFrame::leaveEvent(event);
}

QLabel* label(const QString& text, TextRole role, QWidget* parent) {
    auto* out = new QLabel(text, parent);
    static const char* const names[] = {"title", "heading", "body", "quiet"};
    out->setProperty("role", names[static_cast<int>(role)]);
    out->setTextFormat(Qt::PlainText);
    return out;
}

QPushButton* pill(const QString& text, QWidget* parent, bool main) {
    auto* out = new QPushButton(text, parent);
    out->setProperty("look", main ? "main" : "pill");
    out->setCursor(Qt::PointingHandCursor);
    return out;
}

QPushButton* link_button(const QString& text, QWidget* parent) {
    auto* out = new QPushButton(text, parent);
    out->setProperty("look", "link");
    out->setFlat(true);
    out->setCursor(Qt::PointingHandCursor);
    return out;
}

} // namespace dotlane::app
