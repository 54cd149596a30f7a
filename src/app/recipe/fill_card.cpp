#include "app/recipe/fill_card.h"

#include <QHBoxLayout>

#include "app/bench/part_view.h"
#include "app/widgets/side_panel.h"
#include "core/base/text.h"
#include "core/project/edits.h"

namespace dotlane::app {

FillCard::FillCard(Session& session, StepId step, QWidget* parent)
    : Card(parent)
    , session_(session)
    , step_(step)
    , on_(new QCheckBox(tr("Fill"), this))
    , joined_(new QCheckBox(tr("join ends"), this))
    , alternate_(new QCheckBox(tr("to and fro"), this))
    , plate_(new PlateButton(this))
    , spacing_(new NumberField(NumberField::Kind::length, 0.05, 50, this))
    , angle_(new NumberField(NumberField::Kind::degrees, -360, 360, this))
    , inset_(new NumberField(NumberField::Kind::length, 0, 100, this))
    , figures_(label({}, TextRole::quiet, this)) {
    QFont bold = present::ui_font(10.5, QFont::DemiBold);
    on_->setFont(bold);
    on_->setToolTip(tr("Switch the fill on or off"));
    auto* top = new QHBoxLayout;
    top->addWidget(on_, 1);
    auto* remove = link_button(tr("Remove"), this);
    remove->setObjectName("remove-step");
    top->addWidget(remove);
    top->addWidget(plate_);
    rows()->addLayout(top);
    build_fields();
    figures_->setWordWrap(true);
    rows()->addWidget(figures_);
    on_->setObjectName("on");
    connect(on_, &QCheckBox::clicked, this, [this](bool on) {
        edit(on ? tr("Switch fill on") : tr("Switch fill off"), [on](Step& s, FillStep&) { s.on = on; });
    });
    connect(plate_, &PlateButton::lane_opened, this, &FillCard::lane_opened);
    connect(plate_, &PlateButton::clicked, this, [this] {
        plate_->offer_lanes(session_, [this](LaneId lane) {
            edit(tr("Lane of the fill"), [lane](Step& s, FillStep&) { s.lane = lane; });
        });
    });
    connect(remove, &QPushButton::clicked, this, [this] {
        session_.change(tr("Remove fill"), [part = session_.choice().part, id = step_](Project& p) {
            return remove_fill(p, part, id);
        });
    });
    connect(this, &Card::pressed, this, [this] {
        Choice choice = session_.choice();
        choice.step = choice.step == step_ ? StepId{} : step_;
        session_.choose(choice);
    });
    refresh();
}

void FillCard::build_fields() {
    spacing_->setObjectName("spacing");
    angle_->setObjectName("angle");
    inset_->setObjectName("inset");
    joined_->setObjectName("joined");
    alternate_->setObjectName("alternate");
    spacing_->set_step(0.05);
    inset_->set_step(0.05);
    angle_->set_step(5);
    joined_->setToolTip(tr("Join the ends of neighbouring lines along the edge: fewer lifts, fewer gaps"));
    alternate_->setToolTip(tr("Every other line runs backwards"));
    auto* fields = new QHBoxLayout;
    fields->setSpacing(6);
    fields->addWidget(captioned(tr("spacing"), spacing_, this));
    fields->addWidget(captioned(tr("angle"), angle_, this));
    fields->addWidget(captioned(tr("inset"), inset_, this));
    rows()->addLayout(fields);
    auto* ticks = new QHBoxLayout;
    ticks->addWidget(joined_);
    ticks->addWidget(alternate_);
    ticks->addStretch(1);
    rows()->addLayout(ticks);
    connect(spacing_, &NumberField::committed, this, [this](double v) {
        edit(
            tr("Fill spacing"), [v](Step&, FillStep& f) { f.spacing = mm(v); }, "spacing");
    });
    connect(angle_, &NumberField::committed, this, [this](double v) {
        edit(
            tr("Fill angle"), [v](Step&, FillStep& f) { f.angle = degrees(v); }, "angle");
    });
    connect(inset_, &NumberField::committed, this, [this](double v) {
        edit(
            tr("Fill inset"), [v](Step&, FillStep& f) { f.inset = mm(v); }, "inset");
    });
    connect(inset_, &NumberField::word_chosen, this,
            [this] { edit(tr("Fill inset"), [](Step&, FillStep& f) { f.inset.reset(); }); });
    connect(joined_, &QCheckBox::clicked, this,
            [this](bool on) { edit(tr("Join ends"), [on](Step&, FillStep& f) { f.joined = on; }); });
    connect(alternate_, &QCheckBox::clicked, this,
            [this](bool on) { edit(tr("To and fro"), [on](Step&, FillStep& f) { f.alternate = on; }); });
}

const Step* FillCard::current() const {
    const Part* part = session_.part();
    if (!part) return nullptr;
    for (const Step& s : part->steps)
        if (s.id == step_) return &s;
    return nullptr;
}

void FillCard::edit(const QString& text, const std::function<void(Step&, FillStep&)>& how,
                    const QString& merge) {
    const Step* now = current();
    if (!now) return;
    Step next = *now;
    how(next, std::get<FillStep>(next.what));
    session_.change(
        text, [part = session_.choice().part, next](Project& p) { return change_step(p, part, next); },
        merge.isEmpty() ? merge : merge + QString::number(step_.value));
}

void FillCard::refresh() {
    const Step* s = current();
    if (!s) return;
    const auto& fill = std::get<FillStep>(s->what);
    const LengthUnit unit = session_.project().unit;
    on_->setChecked(s->on);
    joined_->setChecked(fill.joined);
    alternate_->setChecked(fill.alternate);
    alternate_->setEnabled(!fill.joined);
    spacing_->set(in_mm(fill.spacing), unit);
    angle_->set(in_degrees(fill.angle));
    plate_->set_lane(session_.project(), s->lane);
    set_chosen(session_.choice().step == step_);
    const EvaluatedPart* e = session_.evaluated();
    const FillReport* report = e && e->fills.contains(step_) ? &e->fills.at(step_) : nullptr;
    inset_->set(fill.inset ? in_mm(*fill.inset) : report ? in_mm(report->inset) : 0, unit);
    const QString half = tr("half tip");
    inset_->set_word(half, !fill.inset);
    inset_->setPlaceholderText(half);
    if (!s->on)
        figures_->setText(tr("switched off"));
    else if (!report)
        figures_->setText(tr("..."));
    else if (!report->refused.empty())
        figures_->setText(QString::fromStdString(report->refused));
    else
        figures_->setText(fill_figures(*report).join("\n") +
                          tr("\n%1 tip, inset %2")
                              .arg(QString::fromStdString(to_text(report->tip, unit)),
                                   QString::fromStdString(to_text(report->inset, unit))));
}

} // namespace dotlane::app
