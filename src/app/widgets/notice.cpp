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
    , row_(new QHBoxLayout(this))
    , close_(pill(tr("Close"), this))
    , bar_(new QProgressBar(this)) {
    row_->setContentsMargins(14, 6, 8, 6);
    text_->setWordWrap(true);
    bar_->setTextVisible(false);
    bar_->setFixedWidth(160);
    bar_->setAccessibleName(tr("Progress"));
    row_->addWidget(text_, 1);
    row_->addWidget(bar_);
    row_->addWidget(close_);
    connect(close_, &QPushButton::clicked, this, &Notice::clear);
    hide();
}

void Notice::set_actions(std::vector<NoticeAction> actions) {
    for (QPushButton* button : buttons_)
        button->hide(), button->deleteLater(); // one of them may be what was just pressed
    buttons_.clear();
    for (NoticeAction& action : actions) {
        QPushButton* button = pill(action.label, this);
        row_->insertWidget(row_->count() - 1, button);
        connect(button, &QPushButton::clicked, this, [this, act = std::move(action.act)] {
            clear();
            if (act) act();
        });
        button->show();
        buttons_.push_back(button);
    }
}

void Notice::tell(Kind kind, const QString& text, std::vector<NoticeAction> actions) {
    kind_ = kind;
    working_ = false;
    text_->setText(text);
    set_actions(std::move(actions));
    bar_->hide();
    close_->show();
    show();
    update();
}

void Notice::work(const QString& text, double fraction, std::function<void()> cancel) {
    kind_ = Kind::news;
    working_ = true;
    text_->setText(text);
    set_actions({{tr("Cancel"), std::move(cancel)}});
    bar_->show();
    close_->hide();
    set_progress(fraction);
    show();
    update();
}

void Notice::set_progress(double fraction) {
    bar_->setRange(0, fraction > 0 ? 1000 : 0);
    bar_->setValue(static_cast<int>(fraction * 1000));
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
