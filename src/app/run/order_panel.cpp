#include "app/run/order_panel.h"

#include <QHBoxLayout>
#include <QTimer>

#include "app/widgets/plate_button.h"
#include "core/base/text.h"
#include "core/commands/project.h"
#include "present/board_painter.h"
#include "present/words.h"

namespace dotlane::app {

OrderPanel::OrderPanel(Session& session, QWidget* parent)
    : SidePanel(tr("Run, step by step"), parent)
    , session_(session)
    , moves_(new StationColumn(this))
    , reasons_(new StationColumn(this)) {
    reasons_->layout()->setContentsMargins(4, 2, 4, 8);
    body()->addWidget(moves_);
    body()->addWidget(reasons_);
    body()->addStretch(1);
    connect(&session_, &Session::derivedChanged, this, &OrderPanel::show_plan);
    show_plan();
}

Card* OrderPanel::move_card(const Plan& plan, std::size_t move) {
    auto* card = new Card(moves_);
    card->setCursor(Qt::PointingHandCursor);
    const auto [heading, lines] = present::callout(plan, move);
    auto* top = new QHBoxLayout;
    auto* title = label(heading, TextRole::heading, card);
    title->setWordWrap(true);
    top->addWidget(title, 1);
    if (const auto* pass = std::get_if<PassMove>(&plan.program.moves[move])) {
        auto* plate = new PlateButton(card);
        plate->set_lane(session_.project(), pass->lane);
        plate->setAttribute(Qt::WA_TransparentForMouseEvents);
        plate->setFocusPolicy(Qt::NoFocus);
        top->addWidget(plate);
    }
    card->rows()->addLayout(top);
    QString all = heading + ".";
    for (const present::CalloutLine& line : lines) {
        auto* text = label(line.text, TextRole::quiet, card);
        text->setWordWrap(true);
        if (line.care) text->setProperty("care", true);
        card->rows()->addWidget(text);
        all += " " + line.text;
    }
    card->setAccessibleName(all);
    connect(card, &Card::pressed, this, [this, t = plan.timeline.spans()[move].start] { Q_EMIT sought(t); });
    return card;
}

void OrderPanel::show_plan() {
    if (!isVisible()) return; // a long run has many cards: made when they are looked at
    const auto derived = session_.derived();
    const auto same = [&] {
        return shown_ && derived && derived->plan == shown_->plan &&
               derived->project->pass_order == shown_->project->pass_order;
    };
    if (shown_once_ && (derived == shown_ || same())) return;
    // A plan with shorter routes is much like the one that was looked at.
    const bool again = shown_once_;
    const int place = scrolled();
    shown_once_ = true;
    shown_ = derived;
    moves_->clear();
    reasons_->clear();
    cards_.clear();
    now_.reset();
    if (!derived || !derived->plan) {
        auto* empty =
            label(tr("The run stands here once there is something to run."), TextRole::quiet, moves_);
        empty->setWordWrap(true);
        moves_->add(empty, false);
        return;
    }
    for (std::size_t m = 0; m < derived->plan->program.moves.size(); ++m) {
        auto* card = move_card(*derived->plan, m);
        moves_->add(card);
        cards_.push_back(card);
    }
    if (!derived->plan->reasons.empty())
        reasons_->add(label(tr("Why this order"), TextRole::heading, reasons_), false);
    bool stops = false;
    for (const Reason& reason : derived->plan->reasons) {
        if (!stops && reason.code == stop_reason) {
            stops = true; // they come last
            reasons_->add(label(tr("Why each stop"), TextRole::heading, reasons_), false);
        }
        auto* card = new Card(reasons_);
        auto* text = label(present::words(reason.sentence), TextRole::body, card);
        text->setWordWrap(true);
        card->rows()->addWidget(text);
        reasons_->add(card, false);
    }
    if (!session_.project().pass_order.empty()) {
        auto* usual = pill(tr("Back to the usual order"), reasons_);
        usual->setObjectName("usual-order");
        connect(usual, &QPushButton::clicked, this,
                [this] { session_.run(tr("Usual order of passes"), in_order({})); });
        reasons_->add(usual, false);
    }
    if (again) scroll_back(place);
}

/// Cards that have just been made get their heights when the panel is laid out.
void OrderPanel::scroll_soon(QWidget* to, int margin) {
    QTimer::singleShot(0, to, [this, to, margin] { scroll_to(to, margin); });
}

void OrderPanel::showEvent(QShowEvent* event) {
    SidePanel::showEvent(event);
    show_plan();
}

void OrderPanel::set_now(std::optional<Duration> now) {
    std::optional<std::size_t> move;
    if (now && shown_ && shown_->plan && !cards_.empty()) {
        const auto& spans = shown_->plan->timeline.spans();
        std::size_t m = 0;
        while (m + 1 < spans.size() && spans[m + 1].start <= *now)
            ++m;
        move = m;
    }
    if (move == now_) return;
    now_ = move;
    for (std::size_t i = 0; i < cards_.size(); ++i)
        cards_[i]->set_chosen(move == i);
    moves_->set_chosen(move ? cards_[*move] : nullptr);
    if (move && isVisible()) scroll_soon(cards_[*move], 30);
}

void OrderPanel::show_reasons() {
    // From the heading on: the first reason says most.
    QTimer::singleShot(0, reasons_, [this] { scroll_to(reasons_, QRect(0, 0, 1, 380)); });
}

} // namespace dotlane::app
