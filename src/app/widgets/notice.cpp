#include "app/widgets/notice.h"

#include <QHBoxLayout>
#include <QPainter>
#include <QProgressBar>

#include "app/widgets/card.h"
#include "present/theme.h"

namespace dotlane::app {

Notice::Notice(QWidget* parent)
    : QFrame(parent)
    , text_(label({}, TextRole::body, this))
    , act_(pill({}, this))
    , close_(pill(tr("Close"), this))
    , bar_(new QProgressBar(this)) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(14, 6, 8, 6);
    text_->setWordWrap(true);
    bar_->setTextVisible(false);
    bar_->setFixedWidth(160);
    bar_->setAccessibleName(tr("Progress"));
    row->addWidget(text_, 1);
    row->addWidget(bar_);
    row->addWidget(act_);
    row->addWidget(close_);
    connect(act_, &QPushButton::clicked, this, &Notice::acted);
    connect(close_, &QPushButton::clicked, this, &Notice::clear);
    hide();
}

void Notice::tell(Kind kind, const QString& text, const QString& action) {
    kind_ = kind;
    working_ = false;
    text_->setText(text);
    act_->setText(action);
    act_->setVisible(!action.isEmpty());
    bar_->hide();
    close_->show();
    show();
    update();
}

void Notice::work(const QString& text, double fraction) {
    kind_ = Kind::news;
    working_ = true;
    text_->setText(text);
    bar_->setRange(0, fraction > 0 ? 1000 : 0);
    bar_->setValue(static_cast<int>(fraction * 1000));
    bar_->show();
    act_->setText(tr("Cancel"));
    act_->show();
    close_->hide();
    show();
}

void Notice::clear() {
    working_ = false;
    hide();
    text_->clear();
}

QString Notice::text() const {
    return text_->text();
}

void Notice::paintEvent(QPaintEvent*) {
    const present::Theme& theme = present::Theme::current();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(kind_ == Kind::error ? theme.error : theme.hairline, 1));
    painter.setBrush(kind_ == Kind::error ? theme.error_card : theme.card);
    painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), 7, 7);
}

} // namespace dotlane::app
