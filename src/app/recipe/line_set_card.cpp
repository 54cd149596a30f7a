#include "app/recipe/line_set_card.h"

#include <QHBoxLayout>
#include <QKeyEvent>

#include "core/commands/lines.h"

namespace dotlane::app {

LineSetCard::LineSetCard(Session& session, LineSetId set, QWidget* parent)
    : Card(parent)
    , session_(session)
    , set_(set)
    , name_(label({}, TextRole::heading, this))
    , figures_(label({}, TextRole::quiet, this))
    , plate_(new PlateButton(this))
    , fill_(link_button(tr("Fill"), this))
    , aside_(link_button({}, this)) {
    // One row while it rests; what can be done with it below while it is chosen or pointed at.
    rows()->setContentsMargins(12, 7, 10, 7);
    auto* top = new QHBoxLayout;
    top->setSpacing(8);
    top->addWidget(name_);
    top->addWidget(figures_, 1);
    top->addWidget(plate_);
    rows()->addLayout(top);
    actions_ = new QWidget(this);
    auto* below = new QHBoxLayout(actions_);
    below->setContentsMargins(0, 2, 0, 0);
    below->setSpacing(12);
    below->addWidget(fill_);
    below->addWidget(aside_);
    below->addStretch(1);
    rows()->addWidget(actions_);
    setFocusPolicy(Qt::TabFocus);
    fill_->setObjectName("fill-set");
    plate_->setObjectName("line-set-lane");
    aside_->setObjectName("aside");
    fill_->setToolTip(tr("Fill the closed lines with parallel lines"));
    setCursor(Qt::PointingHandCursor);
    connect(this, &Card::pressed, this, &LineSetCard::choose_lines);
    connect(plate_, &PlateButton::lane_opened, this, &LineSetCard::lane_opened);
    connect(plate_, &PlateButton::clicked, this, [this] {
        plate_->offer_lanes(session_.project(), [this](LaneId lane) {
            const LineSet* now = line_set();
            if (!now) return;
            LinesOfPart what{session_.choice().part};
            if (now->role.empty())
                what.lines = now->lines;
            else
                what.sets = {now->id};
            session_.run(tr("Send lines to a lane"), SendLines{what, lane});
        });
    });
    connect(fill_, &QPushButton::clicked, this, [this] { Q_EMIT fill_wanted(set_); });
    connect(aside_, &QPushButton::clicked, this, [this] {
        if (const LineSet* s = line_set())
            session_.run(s->set_aside ? tr("Run lines") : tr("Set lines aside"),
                         SetLinesAside{{session_.choice().part, {}, {set_}}, !s->set_aside});
    });
    refresh();
}

const LineSet* LineSetCard::line_set() const {
    const Part* part = session_.part();
    return part ? dotlane::find(*part, set_) : nullptr;
}

/// As they stand after all steps; in a drawing whose evaluation is not done yet, as they came.
std::set<LineId> LineSetCard::lines() const {
    const LineSet* s = line_set();
    if (!s) return {};
    if (s->role.empty()) return {s->lines.begin(), s->lines.end()};
    std::set<LineId> out;
    if (const EvaluatedPart* e = session_.evaluated())
        for (const FlatLine& line : e->lines)
            if (line.set == set_) out.insert(line.id);
    return out;
}

void LineSetCard::choose_lines() {
    session_.choose_lines(lines());
}

void LineSetCard::refresh() {
    const LineSet* s = line_set();
    if (!s) return;
    const std::set<LineId> own = lines();
    // A source that computes its lines may have none of this kind just now; the set keeps its lane.
    setVisible(s->role.empty() || !own.empty() || !session_.evaluated());
    const QString name = QString::fromStdString(s->name);
    name_->setText(QFontMetrics(name_->font()).elidedText(name, Qt::ElideRight, 128));
    name_->setToolTip(name);
    plate_->setVisible(!s->set_aside);
    plate_->set_lane(session_.project(), s->lane);
    QString text = tr("%n line(s)", nullptr, static_cast<int>(own.size()));
    if (s->set_aside)
        text += tr(", aside");
    else if (!s->lane)
        text += tr(", no lane");
    figures_->setText(text);
    aside_->setText(s->set_aside ? tr("Run") : tr("Set aside"));
    const auto& chosen = session_.choice().lines;
    const bool mine = !own.empty() && chosen == own;
    set_chosen(mine);
    actions_->setVisible(mine);
    setAccessibleName(tr("Line set %1, %2").arg(name, text));
}

void LineSetCard::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Space)
        choose_lines();
    else
        Card::keyPressEvent(event);
}

} // namespace dotlane::app
