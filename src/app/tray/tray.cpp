#include "app/tray/tray.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QScrollArea>
#include <QTimer>

#include "app/tray/part_card.h"
#include "app/widgets/side_panel.h"

namespace dotlane::app {

Tray::Tray(Session& session, QWidget* parent)
    : QFrame(parent)
    , session_(session) {
    setObjectName("panel");
    setFocusPolicy(Qt::TabFocus);
    setAccessibleName(tr("Parts"));
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(8, 9, 6, 8);
    auto* head = new QHBoxLayout;
    head->setContentsMargins(6, 0, 4, 2);
    head->addWidget(label(tr("Parts"), TextRole::heading, this), 1);
    auto* add = pill(tr("New part"), this);
    add->setObjectName("new-part");
    head->addWidget(add);
    rows->addLayout(head);
    auto* scroll = scroll_ = new QScrollArea(this);
    scroll->setWidgetResizable(true);
    scroll->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    auto* inner = new QWidget(scroll);
    cards_ = new QVBoxLayout(inner);
    cards_->setContentsMargins(0, 0, 3, 0);
    cards_->setSpacing(6);
    cards_->addStretch(1);
    scroll->setWidget(inner);
    rows->addWidget(scroll, 1);
    connect(add, &QPushButton::clicked, this, &Tray::new_part_wanted);
    connect(&session_, &Session::derivedChanged, this, &Tray::show_parts);
    connect(&session_, &Session::projectChanged, this, [this](const Changes& what) {
        // Cards say what lies where, too.
        if (what.part_list || !what.parts.empty() || what.sheet_list || !what.sheets.empty() || what.lanes ||
            what.unit)
            show_parts();
    });
    connect(&session_, &Session::choiceChanged, this, &Tray::follow_choice);
}

void Tray::wake() {
    if (!std::exchange(awake_, true)) show_parts();
}

void Tray::show_parts() {
    if (!awake_) return;
    const auto& parts = session_.project().parts;
    while (shown_.size() > parts.size()) {
        delete shown_.back();
        shown_.pop_back();
    }
    while (shown_.size() < parts.size()) {
        auto* card = new PartCard(this);
        connect(card, &Card::pressed, this, [this, card] { session_.choose_part(card->part()); });
        cards_->insertWidget(static_cast<int>(shown_.size()), card);
        shown_.push_back(card);
    }
    for (std::size_t i = 0; i < parts.size(); ++i)
        shown_[i]->show_part(session_, parts[i]);
    follow_choice();
}

void Tray::follow_choice() {
    const PartId chosen = session_.choice().part;
    for (PartCard* card : shown_)
        card->set_chosen(card->part() == chosen);
    if (std::exchange(followed_, chosen) == chosen) return;
    for (PartCard* card : shown_)
        if (card->part() == chosen) // once the layout has given it its place
            QTimer::singleShot(30, card, [this, card] {
                settle_layouts(scroll_);
                scroll_->ensureWidgetVisible(card, 0, 8);
            });
}

void Tray::keyPressEvent(QKeyEvent* event) {
    const auto& parts = session_.project().parts;
    const int step = event->key() == Qt::Key_Down ? 1 : event->key() == Qt::Key_Up ? -1 : 0;
    if (step == 0 || parts.empty()) return QFrame::keyPressEvent(event);
    auto at = std::find_if(parts.begin(), parts.end(),
                           [&](const Part& p) { return p.id == session_.choice().part; }) -
              parts.begin();
    at = std::clamp<std::ptrdiff_t>(at + step, 0, static_cast<std::ptrdiff_t>(parts.size()) - 1);
    session_.choose_part(parts[static_cast<std::size_t>(at)].id);
}

} // namespace dotlane::app
