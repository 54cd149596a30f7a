#include "app/recipe/recipe_panel.h"

#include <QApplication>
#include <QCursor>
#include <QHBoxLayout>
#include <QTimer>

#include "app/recipe/fill_picker.h"
#include "app/recipe/finding_list.h"
#include "app/recipe/line_set_card.h"
#include "app/recipe/source_card.h"
#include "app/recipe/step_card.h"
#include "app/recipe/step_picker.h"
#include "app/widgets/focus.h"

namespace dotlane::app {
namespace {

/// Those that the source makes (no step), or a step beside the lines of its own lane.
template<class Each>
void for_sets_of(const Part& part, StepId step, Each each) {
    for (const LineSet& set : part.sets)
        if (set.step == step) each(set);
}

} // namespace

RecipePanel::RecipePanel(Session& session, QWidget* parent)
    : SidePanel(tr("Recipe"), parent)
    , session_(session)
    , stations_(new StationColumn(this))
    , findings_(new FindingList(session, this)) {
    add_ = pill(tr("Add step"), this);
    add_->setObjectName("add-step");
    add_->setToolTip(tr("Do something with the chosen lines"));
    head()->addWidget(add_);
    body()->addWidget(stations_);
    connect(add_, &QPushButton::clicked, this, [this] { picking() ? end_picking() : show_picker(); });
    picker_.by([this] { return make_picker(); });
    ways_.by([this] { return make_ways(); });
    body()->addWidget(findings_);
    connect(findings_, &FindingList::chosen, this, [this](const Finding& f) {
        if (f.place.box.valid()) Q_EMIT place_wanted(f.place.box);
    });
    body()->addStretch(1);
    connect(&session_, &Session::projectChanged, this, [this](const Changes& what) {
        // Its cards name other parts, and lanes.
        if (what.part_list || !what.parts.empty() || what.lanes || what.unit) show_recipe();
    });
    connect(&session_, &Session::drawnChanged, this, &RecipePanel::show_recipe);
    connect(&session_, &Session::derivedChanged, this, &RecipePanel::show_findings);
    connect(&session_, &Session::choiceChanged, this, &RecipePanel::show_recipe);
}

void RecipePanel::wake() {
    if (!std::exchange(awake_, true)) show_recipe();
}

void RecipePanel::lay_in(Picker* picker) {
    body()->insertWidget(body()->indexOf(stations_), picker);
    connect(picker, &Picker::given_up, this, &RecipePanel::end_picking);
    connect(picker, &Picker::row_wanted, this, [this, picker](const QRect& row) { scroll_to(picker, row); });
}

StepPicker* RecipePanel::make_picker() {
    auto* picker = new StepPicker(session_, this);
    lay_in(picker);
    connect(picker, &Picker::chosen, this, [this](const QString& kind) {
        end_picking();
        Q_EMIT step_wanted(kind);
    });
    return picker;
}

FillPicker* RecipePanel::make_ways() {
    auto* picker = new FillPicker(session_, this);
    lay_in(picker);
    connect(picker, &Picker::chosen, this, [this, picker](const QString& key) {
        end_picking();
        picker->take(key);
    });
    return picker;
}

bool RecipePanel::picking() const {
    return (picker_.made() && !picker_.made()->isHidden()) || (ways_.made() && !ways_.made()->isHidden());
}

void RecipePanel::show_instead(Picker* picker) {
    stations_->hide();
    findings_->hide();
    add_->setText(tr("Cancel"));
    scroll_to(picker, QRect(0, 0, 1, 1));
}

void RecipePanel::show_picker() {
    if (!session_.part()) return;
    if (picking()) end_picking();
    picker_->open();
    show_instead(picker_);
}

void RecipePanel::show_ways(StepId step) {
    if (!session_.part()) return;
    if (picking()) end_picking();
    ways_->open_for(step);
    show_instead(ways_);
}

void RecipePanel::end_picking() {
    if (picker_.made()) picker_->hide();
    if (ways_.made()) ways_->hide();
    stations_->show();
    findings_->show();
    add_->setText(tr("Add step"));
    add_->setFocus();
}

void RecipePanel::show_recipe() {
    if (!awake_) return;
    if (picking() && shown_ != session_.choice().part) end_picking(); // its pictures are of another
    const Part* part = session_.part();
    std::vector<LineSetId> set_ids;
    std::vector<StepId> step_ids;
    if (part) {
        for_sets_of(*part, {}, [&](const LineSet& s) { set_ids.push_back(s.id); });
        for (const Step& s : part->steps) {
            step_ids.push_back(s.id);
            for_sets_of(*part, s.id, [&](const LineSet& of_step) { set_ids.push_back(of_step.id); });
        }
    }
    // The cards stay while what they stand for stays, so that a field keeps its focus while its number is
    // edited.
    const bool same = built_ && shown_ == session_.choice().part && set_ids.size() == sets_.size() &&
                      step_ids.size() == steps_.size() &&
                      std::equal(sets_.begin(), sets_.end(), set_ids.begin(),
                                 [](auto* card, LineSetId id) { return card->set() == id; }) &&
                      std::equal(steps_.begin(), steps_.end(), step_ids.begin(),
                                 [](auto* card, StepId id) { return card->step() == id; });
    if (!same) rebuild();
    if (source_) source_->refresh();
    for (auto* card : sets_)
        card->refresh();
    for (auto* card : steps_) {
        card->refresh();
        if (card->step() != session_.choice().step) continue;
        stations_->set_chosen(card);
        // Once the layout has settled; and again when its figures have come, for they make it higher.
        if (std::exchange(followed_, card->step()) != card->step() || follow_on_)
            QTimer::singleShot(30, card, [this, card] { scroll_to(card); });
        follow_on_ = session_.drawing();
    }
    // A card that was scrolled from under the pointer is not told that the pointer has left it.
    if (lit_ && !lit_->rect().contains(lit_->mapFromGlobal(QCursor::pos()))) light(nullptr);
    if (!session_.choice().step) stations_->set_chosen(nullptr), followed_ = {};
    show_findings();
}

void RecipePanel::rebuild() {
    built_ = true;
    StepId held_step;
    for (const StepCard* card : steps_)
        if (QWidget* now = QApplication::focusWidget(); now && card->isAncestorOf(now))
            held_step = card->step();
    const QString held = take_focus(stations_);
    stations_->clear();
    sets_.clear();
    steps_.clear();
    source_ = nullptr;
    shown_ = session_.choice().part;
    const Part* part = session_.part();
    if (!part) {
        auto* empty = label(tr("Choose a part, or open a drawing: its recipe stands here."), TextRole::quiet,
                            stations_);
        empty->setWordWrap(true);
        stations_->add(empty, false);
        return;
    }
    source_ = new SourceCard(session_, stations_);
    stations_->add(source_);
    connect(source_, &SourceCard::glyphs_wanted, this, &RecipePanel::glyphs_wanted);
    connect(source_, &SourceCard::layers_wanted, this, &RecipePanel::layers_wanted);
    const auto add_set = [this](const LineSet& s) {
        auto* card = new LineSetCard(session_, s.id, stations_);
        connect(card, &LineSetCard::lane_opened, this, &RecipePanel::lane_opened);
        connect(card, &LineSetCard::fill_wanted, this, [this](LineSetId set) { Q_EMIT fill_wanted({set}); });
        stations_->add(card);
        sets_.push_back(card);
    };
    for_sets_of(*part, {}, add_set);
    for (const Step& s : part->steps) {
        auto* card = new StepCard(session_, s.id, stations_);
        connect(card, &StepCard::lane_opened, this, &RecipePanel::lane_opened);
        connect(card, &StepCard::ways_wanted, this, [this, card] { show_ways(card->step()); });
        connect(card, &StepCard::pieces_wanted, this, [this, card] { Q_EMIT pieces_wanted(card->step()); });
        connect(card, &Card::hovered, this, [this, card](bool inside) { light(inside ? card : nullptr); });
        connect(card, &StepCard::dragged, this, [this](const QPoint& at) {
            scroll_towards(at);
            const std::size_t above = steps_above(at);
            const bool end = above == steps_.size();
            const QRect beside = steps_[end ? above - 1 : above]->geometry();
            stations_->mark_drop(end ? beside.bottom() + 5 : beside.top() - 5);
        });
        connect(card, &StepCard::dropped, this, [this, card](const QPoint& at) { drop(card, at); });
        connect(card, &StepCard::given_up, this, [this] { stations_->mark_drop({}); });
        stations_->add(card);
        steps_.push_back(card);
        for_sets_of(*part, s.id, add_set);
    }
    QWidget* back = held_step ? nullptr : source_;
    for (StepCard* card : steps_)
        if (held_step && card->step() == held_step) back = card;
    if (back) give_focus(back, held);
}

void RecipePanel::light(StepCard* card) {
    lit_ = card;
    Q_EMIT step_hovered(card ? card->step() : StepId{});
}

std::size_t RecipePanel::steps_above(const QPoint& global) const {
    const int y = stations_->mapFromGlobal(global).y();
    return static_cast<std::size_t>(std::count_if(steps_.begin(), steps_.end(), [y](const StepCard* card) {
        return card->geometry().center().y() < y;
    }));
}

void RecipePanel::drop(StepCard* card, const QPoint& global) {
    stations_->mark_drop({});
    const auto own = std::find(steps_.begin(), steps_.end(), card) - steps_.begin();
    const auto above = static_cast<std::ptrdiff_t>(steps_above(global));
    card->move_to(static_cast<int>(above > own ? above - 1 : above)); // it leaves its own place
}

void RecipePanel::show_findings() {
    const auto derived = session_.derived();
    Findings mine;
    if (derived)
        for (const Finding& f : derived->findings)
            if (f.place.part == session_.choice().part && f.place.part && !f.place.sheet) mine.push_back(f);
    findings_->show_findings(mine);
    settle();
}

} // namespace dotlane::app
