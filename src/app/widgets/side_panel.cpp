#include "app/widgets/side_panel.h"

#include <QCoreApplication>
#include <QHBoxLayout>
#include <QPainter>
#include <QScrollArea>
#include <QScrollBar>

#include "app/widgets/card.h"
#include "present/theme.h"

namespace dotlane::app {

StationColumn::StationColumn(QWidget* parent)
    : QWidget(parent)
    , rows_(new QVBoxLayout(this)) {
    rows_->setContentsMargins(32, 2, 4, 8);
    rows_->setSpacing(9);
}

void StationColumn::add(QWidget* card, bool station) {
    rows_->addWidget(card);
    card->show(); // the layout would do so later, and the column could not be scrolled until then
    if (station) stations_ << card;
}

void StationColumn::clear() {
    stations_.clear();
    chosen_ = nullptr;
    while (QLayoutItem* item = rows_->takeAt(0)) {
        if (QWidget* card = item->widget()) {
            card->hide();
            card->deleteLater(); // one of its own buttons may be what called us
        }
        delete item;
    }
}

void StationColumn::set_chosen(QWidget* card) {
    chosen_ = card;
    update();
}

void StationColumn::mark_drop(std::optional<int> y) {
    if (std::exchange(drop_, y) != y) update();
}

void StationColumn::paintEvent(QPaintEvent*) {
    QList<QWidget*> stations = stations_;
    stations.erase(
        std::remove_if(stations.begin(), stations.end(), [](auto* card) { return card->isHidden(); }),
        stations.end());
    if (stations.isEmpty()) return;
    const present::Theme& theme = present::Theme::current();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const auto at = [](const QWidget* card) { return QPointF(14, card->y() + 20); };
    painter.setPen(QPen(theme.dark ? theme.hairline : QColor("#bdb4a4"), 3));
    painter.drawLine(at(stations.front()), at(stations.back()));
    for (const QWidget* card : stations) {
        painter.setBrush(theme.card);
        painter.setPen(QPen(card == chosen_ ? theme.lamp : theme.ink, 2.6));
        painter.drawEllipse(at(card), 6, 6);
    }
    if (!drop_) return;
    painter.setPen(QPen(theme.lamp, 3, Qt::SolidLine, Qt::RoundCap));
    painter.drawLine(QPointF(14, *drop_), QPointF(width() - 8, *drop_));
}

SidePanel::SidePanel(const QString& heading, QWidget* parent)
    : QFrame(parent)
    , heading_(label(heading, TextRole::heading, this))
    , head_(new QHBoxLayout)
    , body_(nullptr)
    , scroll_(new QScrollArea(this)) {
    setObjectName("panel");
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(8, 9, 6, 8);
    head_->setContentsMargins(6, 0, 4, 2);
    head_->addWidget(heading_, 1);
    rows->addLayout(head_);
    scroll_->setWidgetResizable(true);
    scroll_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll_->setFrameShape(QFrame::NoFrame);
    scroll_->setFocusPolicy(Qt::NoFocus);
    auto* inner = new QWidget(scroll_);
    body_ = new QVBoxLayout(inner);
    body_->setContentsMargins(0, 0, 3, 0);
    body_->setSpacing(8);
    scroll_->setWidget(inner);
    rows->addWidget(scroll_, 1);
}

int SidePanel::scrolled() const {
    return scroll_->verticalScrollBar()->value();
}

void SidePanel::scroll_back(int to) {
    settle();
    scroll_->verticalScrollBar()->setValue(to);
}

void SidePanel::settle() {
    settle_layouts(scroll_);
}

void SidePanel::scroll_to(QWidget* widget, int margin) {
    settle_layouts(scroll_);
    scroll_->ensureWidgetVisible(widget, 0, margin);
}

void SidePanel::scroll_to(QWidget* widget, const QRect& place) {
    settle_layouts(scroll_);
    const QPoint at = widget->mapTo(scroll_->widget(), place.topLeft());
    scroll_->ensureVisible(0, at.y() + place.height(), 0, 8);
    scroll_->ensureVisible(0, at.y(), 0, 40); // with the heading above it
}

void SidePanel::scroll_towards(const QPoint& global) {
    const QPoint at = scroll_->widget()->mapFromGlobal(global);
    scroll_->ensureVisible(0, at.y(), 0, 36);
}

void settle_layouts(QScrollArea* area) {
    // A request goes up one level at a time, from the card to the column and on to the scroll area.
    for (int level = 0; level < 4; ++level)
        QCoreApplication::sendPostedEvents(nullptr, QEvent::LayoutRequest);
    area->widget()->layout()->activate();
    // What was laid out in the room there was asks for more: without it the cards would stand squashed until
    // then.
    for (int level = 0; level < 4; ++level)
        QCoreApplication::sendPostedEvents(nullptr, QEvent::LayoutRequest);
}

QWidget* captioned(const QString& caption, QWidget* field, QWidget* parent) {
    auto* out = new QWidget(parent);
    auto* rows = new QVBoxLayout(out);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->setSpacing(1);
    auto* text = label(caption, TextRole::quiet, out);
    text->setBuddy(field);
    rows->addWidget(text);
    rows->addWidget(field);
    if (field->accessibleName().isEmpty()) field->setAccessibleName(caption);
    return out;
}

} // namespace dotlane::app
