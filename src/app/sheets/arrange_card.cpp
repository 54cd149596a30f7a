#include "app/sheets/arrange_card.h"

#include <QGridLayout>
#include <QHBoxLayout>

#include "app/widgets/side_panel.h"

namespace dotlane::app {

ArrangeCard::ArrangeCard(Session& session, QWidget* parent)
    : Card(parent)
    , session_(session)
    , heading_(label({}, TextRole::heading, this))
    , to_(new QComboBox(this))
    , group_(pill(tr("Group"), this))
    , ungroup_(link_button(tr("Ungroup"), this)) {
    to_->setObjectName("arrange-to");
    rows()->addWidget(heading_);
    rows()->addWidget(captioned(tr("line up with"), to_, this));
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(4);
    grid->setVerticalSpacing(4);
    grid->setColumnStretch(4, 1);
    rows()->addLayout(grid);
    auto row = [this, grid, n = 0](const QString& caption, std::initializer_list<QWidget*> buttons) mutable {
        auto* name = label(caption, TextRole::quiet, this);
        grid->addWidget(name, n, 0);
        int column = 1;
        for (QWidget* b : buttons)
            grid->addWidget(b, n, column++);
        ++n;
        return name;
    };
    const auto button = [this](const QString& text, const char* name, auto&& run) {
        auto* b = pill(text, this);
        b->setObjectName(name);
        connect(b, &QPushButton::clicked, this, std::forward<decltype(run)>(run));
        return b;
    };
    const auto up = [&](const QString& text, const char* name, Across across, Down down) {
        return button(text, name, [this, across, down] { line_up(across, down); });
    };
    row(tr("across"), {up(tr("Left"), "up-left", Across::left, Down::leave),
                       up(tr("Middle"), "up-middle", Across::middle, Down::leave),
                       up(tr("Right"), "up-right", Across::right, Down::leave)});
    row(tr("down"), {up(tr("Top"), "up-top", Across::leave, Down::top),
                     up(tr("Middle"), "up-centre", Across::leave, Down::middle),
                     up(tr("Bottom"), "up-bottom", Across::leave, Down::bottom)});
    auto* spread_across = button(tr("Across"), "spread-across", [this] { spread(Way::across); });
    auto* spread_down = button(tr("Down"), "spread-down", [this] { spread(Way::down); });
    spread_ = {row(tr("spread"), {spread_across, spread_down}), spread_across, spread_down};
    group_->setObjectName("group");
    group_->setToolTip(tr("From now on they are moved together (Ctrl+G)"));
    ungroup_->setObjectName("ungroup");
    auto* last = new QHBoxLayout;
    last->addWidget(group_);
    last->addWidget(ungroup_);
    last->addStretch(1);
    rows()->addLayout(last);
    connect(group_, &QPushButton::clicked, this, &ArrangeCard::group);
    connect(ungroup_, &QPushButton::clicked, this, &ArrangeCard::ungroup);
}

Frame ArrangeCard::with() const {
    return static_cast<Frame>(to_->currentData().toInt());
}

void ArrangeCard::line_up(Across across, Down down) {
    session_.run(tr("Line up"), LineUp{chosen(), with(), session_.choice().placement, across, down});
}

void ArrangeCard::spread(Way way) {
    session_.run(tr("Spread"), Spread{chosen(), way, with()});
}

void ArrangeCard::group() {
    session_.run(tr("Group"), GroupPlaced{chosen()});
}

void ArrangeCard::ungroup() {
    session_.run(tr("Ungroup"), UngroupPlaced{chosen()});
}

void ArrangeCard::turn(Angle by) {
    session_.run(tr("Turn part"), TurnPlaced{chosen(), by});
}

void ArrangeCard::mirror() {
    session_.run(tr("Mirror part"), MirrorPlaced{chosen()});
}

Placed ArrangeCard::chosen() const {
    return {session_.chosen_placements()};
}

void ArrangeCard::choose_all() {
    Choice choice = session_.choice();
    choice.with.clear();
    if (const Sheet* sheet = session_.sheet())
        for (const Placement& p : sheet->placements)
            choice.with.insert(p.id);
    if (choice.with.empty()) return;
    if (!choice.with.contains(choice.placement)) choice.placement = *choice.with.begin();
    choice.with.erase(choice.placement);
    session_.choose(choice);
}

void ArrangeCard::refresh() {
    const auto ids = session_.chosen_placements();
    setVisible(!ids.empty());
    if (ids.empty()) return;
    const bool several = ids.size() > 1;
    set_chosen(several);
    heading_->setVisible(several);
    heading_->setText(tr("%n parts chosen", nullptr, static_cast<int>(ids.size())));
    if (to_->count() != (several ? 4 : 2)) {
        const QVariant before = to_->currentData();
        to_->clear();
        to_->addItem(tr("what the tool reaches"), static_cast<int>(Frame::reach));
        to_->addItem(tr("the sheet of stock"), static_cast<int>(Frame::stock));
        if (several) {
            to_->addItem(tr("one another"), static_cast<int>(Frame::others));
            to_->addItem(tr("the one chosen last"), static_cast<int>(Frame::lead));
        }
        to_->setCurrentIndex(std::max(0, before.isValid() ? to_->findData(before) : 0));
    }
    for (QWidget* w : spread_)
        w->setVisible(several);
    bool grouped = false;
    for (const PlacementId id : ids)
        grouped |= find_placement(session_.project(), id)->group != 0;
    group_->setVisible(several);
    ungroup_->setVisible(grouped);
}

} // namespace dotlane::app
