#include "app/bench/transport_bar.h"

#include <QCheckBox>
#include <QHBoxLayout>

#include "app/widgets/card.h"

namespace dotlane::app {
namespace {

QString clock(Duration t) {
    const auto s = static_cast<int>(in_seconds(t) + 1e-6);
    return QStringLiteral("%1:%2").arg(s / 60).arg(s % 60, 2, 10, QLatin1Char('0'));
}

} // namespace

TransportBar::TransportBar(RehearsalView& view, QWidget* parent)
    : QWidget(parent)
    , view_(view)
    , play_(pill(tr("Play"), this))
    , clock_(label({}, TextRole::heading, this))
    , speed_(new QComboBox(this)) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(8, 6, 10, 8);
    row->setSpacing(6);
    auto* back = pill(tr("Back"), this);
    auto* next = pill(tr("Next stop"), this);
    auto* travel = new QCheckBox(tr("Travel"), this);
    travel->setChecked(true);
    travel->setToolTip(tr("Show the ways with the tool up"));
    back->setToolTip(tr("To the stop before (B)"));
    next->setToolTip(tr("To the next stop (N)"));
    play_->setToolTip(tr("Play or pause (Space)"));
    play_->setMinimumWidth(62);
    play_->setObjectName("play");
    next->setObjectName("next-stop");
    back->setObjectName("previous-stop");
    speed_->setObjectName("speed");
    speed_->setAccessibleName(tr("Speed"));
    for (const int times : {1, 5, 20, 60, 200})
        speed_->addItem(tr("%1 × speed").arg(times), times);
    speed_->setCurrentIndex(2);
    clock_->setMinimumWidth(92);
    clock_->setAlignment(Qt::AlignRight | Qt::AlignVCenter);
    row->addWidget(play_);
    row->addWidget(back);
    row->addWidget(next);
    row->addWidget(speed_);
    row->addWidget(travel);
    row->addStretch(1);
    row->addWidget(clock_);
    connect(play_, &QPushButton::clicked, &view_, &RehearsalView::toggle);
    connect(back, &QPushButton::clicked, &view_, &RehearsalView::previous_stop);
    connect(next, &QPushButton::clicked, &view_, &RehearsalView::next_stop);
    connect(travel, &QCheckBox::toggled, &view_, &RehearsalView::show_travel);
    connect(speed_, &QComboBox::currentIndexChanged, this,
            [this] { view_.set_speed(speed_->currentData().toDouble()); });
    connect(&view_, &RehearsalView::moved, this, &TransportBar::show_state);
    show_state();
}

void TransportBar::show_state() {
    play_->setText(view_.playing() ? tr("Pause") : tr("Play"));
    clock_->setText(tr("%1 of %2").arg(clock(view_.time()), clock(view_.total())));
    setEnabled(in_seconds(view_.total()) > 0);
}

} // namespace dotlane::app
