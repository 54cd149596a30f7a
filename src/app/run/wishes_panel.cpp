#include "app/run/wishes_panel.h"

#include <QCheckBox>
#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLineEdit>
#include <QtConcurrent>

#include "app/widgets/focus.h"
#include "app/widgets/number_field.h"
#include "core/base/caught.h"
#include "core/commands/ordering.h"
#include "core/commands/project.h"
#include "core/plan/compare.h"
#include "present/words.h"

namespace dotlane::app {
namespace {

QCheckBox* tick(const QString& text, bool on, QWidget* parent) {
    auto* box = new QCheckBox(text, parent);
    box->setChecked(on);
    return box;
}

QLabel* wrapped(const QString& text, TextRole role, QWidget* parent) {
    auto* out = label(text, role, parent);
    out->setWordWrap(true);
    return out;
}

} // namespace

WishesPanel::WishesPanel(Session& session, QWidget* parent)
    : SidePanel(tr("What runs, and when"), parent)
    , session_(session) {
    auto* back = pill(tr("Done"), this);
    back->setObjectName("wishes-done");
    head()->addWidget(back);
    connect(back, &QPushButton::clicked, this, &WishesPanel::done);
    connect(&session_, &Session::projectChanged, this, [this](const Changes& what) {
        if (what.order || what.lanes || what.part_list || what.sheet_list || what.machine || what.name ||
            !what.parts.empty() || !what.sheets.empty())
            stale_ = true;
        if (isVisible()) show_all();
    });
    connect(&session_, &Session::derivedChanged, this, [this] {
        if (!isVisible()) return;
        show_all();
        plan_other();
    });
    connect(&watcher_, &QFutureWatcherBase::finished, this, [this] {
        planned_ = watcher_.result();
        show_table();
        if (isVisible() && (session_.derived() != beside_ || other_ != asked_)) plan_other();
    });
    show_all();
}

void WishesPanel::showEvent(QShowEvent* event) {
    SidePanel::showEvent(event);
    show_all();
    plan_other();
}

PlanOptions WishesPanel::options_of(Other other) const {
    const Project& project = session_.project();
    PlanOptions out{project.pass_order, project.wishes};
    if (other == Other::usual) {
        out = {};
        out.wishes.mats = project.wishes.mats; // a fact, and no wish of the order
    } else
        out.wishes.school = other == Other::tools ? School::tools : School::sheets;
    return out;
}

/// On another thread: with many sheets it takes a moment.
void WishesPanel::plan_other() {
    const auto derived = session_.derived();
    if (watcher_.isRunning() || !derived) return;
    beside_ = derived, asked_ = other_;
    const Machine* machine = session_.catalog().machine(derived->project->machine);
    if (!derived->works || !derived->plan || !machine) {
        planned_ = tl::make_unexpected(Error{});
        return show_table();
    }
    watcher_.setFuture(QtConcurrent::run([derived, machine, options = options_of(other_)] {
        return caught([&] { return make_plan(derived->project->name, *machine, *derived->works, options); });
    }));
}

void WishesPanel::show_table() {
    delete table_;
    table_ = new QWidget(compare_);
    compare_->rows()->insertWidget(2, table_);
    auto* grid = new QGridLayout(table_);
    grid->setContentsMargins(0, 4, 0, 4);
    grid->setHorizontalSpacing(14);
    grid->setVerticalSpacing(3);
    grid->setColumnStretch(0, 1);
    if (!beside_ || !beside_->plan || !planned_) {
        const QString why = watcher_.isRunning()   ? tr("The other order is being looked for.")
                            : planned_ || !beside_ ? tr("There is nothing to run yet.")
                                                   : present::words(planned_.error().message);
        grid->addWidget(wrapped(why, TextRole::quiet, table_), 0, 0);
        return table_->show();
    }
    const auto put = [&](int row, int column, const QString& text, bool better) {
        auto* cell = label(text, better ? TextRole::heading : TextRole::body, table_);
        grid->addWidget(cell, row, column, column == 0 ? Qt::AlignLeft : Qt::AlignRight);
    };
    put(0, 1, tr("now"), false);
    put(0, 2, tr("so"), false);
    int row = 1;
    for (const Compared& figure : compared(*beside_->plan, *planned_)) {
        grid->addWidget(label(present::words(figure.what), TextRole::quiet, table_), row, 0);
        put(row, 1, present::words(figure.first_said), figure.better() < 0);
        put(row, 2, present::words(figure.second_said), figure.better() > 0);
        ++row;
    }
    for (const Finding& risk : planned_->findings) {
        auto* text = wrapped(present::words(risk), TextRole::quiet, table_);
        text->setProperty("care", true);
        grid->addWidget(text, row++, 0, 1, 3);
    }
    table_->show(); // at once, and not with what comes next
}

void WishesPanel::wish(const QString& text, PlanWishes wishes) {
    session_.run(text, WishOrder{std::move(wishes)});
}

void WishesPanel::show_all() {
    // The board leaves things out too.
    if (!stale_ && column_ && shown_out_ == session_.left_out()) return;
    stale_ = !isVisible();
    shown_out_ = session_.left_out();
    const int place = column_ ? scrolled() : 0;
    const QString focus = take_focus(this);
    if (column_) { // what was pressed in it asks for this
        column_->hide();
        column_->deleteLater();
    }
    column_ = new QWidget(this);
    auto* rows = new QVBoxLayout(column_);
    rows->setContentsMargins(0, 0, 0, 0);
    body()->insertWidget(0, column_);

    compare_ = new Card(column_);
    table_ = nullptr;
    compare_->rows()->addWidget(label(tr("Another order beside this one"), TextRole::heading, compare_));
    auto* which = new QComboBox(compare_);
    which->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    which->setMinimumContentsLength(12);
    which->setObjectName("other-order");
    which->setAccessibleName(tr("The other order"));
    which->addItem(tr("Finish each sheet before the next"), static_cast<int>(Other::sheets));
    which->addItem(tr("Each tool through all sheets"), static_cast<int>(Other::tools));
    which->addItem(tr("Usual order, nothing wished"), static_cast<int>(Other::usual));
    which->setCurrentIndex(which->findData(static_cast<int>(other_)));
    compare_->rows()->addWidget(which);
    auto* take = pill(tr("Run it so"), compare_);
    take->setObjectName("take-order");
    compare_->rows()->addWidget(take, 0, Qt::AlignRight);
    connect(which, &QComboBox::activated, this, [this, which] {
        other_ = static_cast<Other>(which->currentData().toInt());
        plan_other();
    });
    connect(take, &QPushButton::clicked, this, [this] {
        const PlanOptions options = options_of(other_);
        if (options.order != session_.project().pass_order)
            session_.run(tr("Order of the run"), in_order(options.order), "take-order");
        if (options.wishes != session_.project().wishes)
            session_.run(tr("Order of the run"), WishOrder{options.wishes}, "take-order");
    });
    rows->addWidget(compare_);
    show_table();

    auto* rules = new Card(column_);
    show_rules(rules);
    rows->addWidget(rules);
    auto* mats = new Card(column_);
    show_mats(mats);
    rows->addWidget(mats);
    auto* ticks = new Card(column_);
    show_ticks(ticks);
    rows->addWidget(ticks);
    rows->addStretch(1);
    column_->show(); // the layout would do so later, and nothing could be scrolled until then
    scroll_back(place);
    give_focus(this, focus);
}

void WishesPanel::show_rules(Card* card) {
    const Project& project = session_.project();
    card->rows()->addWidget(label(tr("Rules"), TextRole::heading, card));
    for (const OrderRule& rule : order_rules) {
        const auto& off = project.wishes.off;
        auto* box = tick(present::words(say(rule.words)),
                         std::find(off.begin(), off.end(), rule.key) == off.end(), card);
        box->setObjectName(QString("rule-") + rule.key);
        box->setToolTip(present::words(say(rule.why)));
        card->rows()->addWidget(box);
        connect(box, &QCheckBox::clicked, this, [this, key = std::string(rule.key)](bool on) {
            wish(tr("Rule of the order"), with_kept(session_.project().wishes, key, on));
        });
    }
    for (const LaneRule& rule : project.wishes.rules) {
        auto* row = new QHBoxLayout;
        const auto name = [&](LaneId lane) { return QString::fromStdString(plate(project, lane)); };
        QString text = tr("%1 before %2").arg(name(rule.before), name(rule.after));
        if (!rule.why.empty()) text = tr("%1: %2").arg(text, QString::fromStdString(rule.why));
        row->addWidget(wrapped(text, TextRole::body, card), 1);
        auto* gone = link_button(tr("Remove"), card);
        gone->setObjectName("rule-gone");
        row->addWidget(gone);
        card->rows()->addLayout(row);
        connect(gone, &QPushButton::clicked, this, [this, rule] {
            wish(tr("Rule of the order"), without_rule(session_.project().wishes, rule.before, rule.after));
        });
    }
    if (project.lanes.size() < 2) return;
    const auto lanes = [&](const char* name, const QString& spoken) {
        auto* box = new QComboBox(card);
        box->setObjectName(name);
        box->setAccessibleName(spoken);
        for (const Lane& lane : project.lanes)
            box->addItem(QString("%1  %2").arg(QString::fromStdString(plate(project, lane.id)),
                                               QString::fromStdString(lane.name)),
                         lane.id.value);
        box->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        box->setMinimumContentsLength(4);
        box->setMinimumWidth(72);
        return box;
    };
    auto* row = new QHBoxLayout;
    auto *before = lanes("rule-before", tr("Lane that runs before")),
         *after = lanes("rule-after", tr("Lane that runs after"));
    after->setCurrentIndex(1);
    // One above the other: side by side their names are cut off.
    card->rows()->addWidget(before);
    row->addWidget(label(tr("before"), TextRole::quiet, card));
    row->addWidget(after, 1);
    card->rows()->addLayout(row);
    auto* why = new QLineEdit(card);
    why->setMinimumWidth(60);
    why->setObjectName("rule-why");
    why->setPlaceholderText(tr("why, in your words"));
    auto* add = pill(tr("Add rule"), card);
    add->setObjectName("rule-add");
    auto* last = new QHBoxLayout;
    last->addWidget(why, 1);
    last->addWidget(add);
    card->rows()->addLayout(last);
    connect(add, &QPushButton::clicked, this, [this, before, after, why] {
        wish(tr("Rule of the order"),
             with_rule(session_.project().wishes,
                       {LaneId{before->currentData().toUInt()}, LaneId{after->currentData().toUInt()},
                        why->text().trimmed().toStdString()}));
    });
}

void WishesPanel::show_mats(Card* card) {
    card->rows()->addWidget(label(tr("Mats"), TextRole::heading, card));
    auto* number = new NumberField(NumberField::Kind::number, 1, 9, card);
    number->set_decimals(0);
    number->setObjectName("mats");
    number->set(session_.project().wishes.mats);
    card->rows()->addWidget(captioned(tr("of each kind at hand"), number, card), 0, Qt::AlignLeft);
    card->rows()->addWidget(
        wrapped(tr("On a spare one the next sheet is laid while the machine runs."), TextRole::quiet, card));
    connect(number, &NumberField::committed, this, [this](double n) {
        PlanWishes wishes = session_.project().wishes;
        wishes.mats = static_cast<int>(n);
        wish(tr("Mats at hand"), std::move(wishes));
    });
}

/// A tick of what is run; these stay as they are pressed.
template<class Id>
QCheckBox* WishesPanel::run_tick(const QString& text, std::set<Id> NotThisRun::*set, Id id, QWidget* parent) {
    auto* box = tick(text, !(session_.left_out().*set).contains(id), parent);
    connect(box, &QCheckBox::clicked, this, [this, set, id](bool on) {
        NotThisRun out = session_.left_out();
        on ? void((out.*set).erase(id)) : void((out.*set).insert(id));
        shown_out_ = out;
        session_.leave_out(std::move(out));
    });
    return box;
}

QWidget* WishesPanel::sheet_row(const Sheet& sheet, int count, QWidget* parent) {
    auto* row = new QWidget(parent);
    auto* columns = new QHBoxLayout(row);
    columns->setContentsMargins(0, 0, 0, 0);
    columns->addWidget(run_tick(QString::fromStdString(sheet.name), &NotThisRun::sheets, sheet.id, row), 1);
    auto* place = new QComboBox(row);
    place->setObjectName("sheet-place-" + QString::number(sheet.id.value));
    place->setAccessibleName(tr("Place of %1 in the run").arg(QString::fromStdString(sheet.name)));
    place->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    place->setMinimumContentsLength(9);
    place->addItem(tr("where best"), 0);
    for (int n = 1; n <= count; ++n)
        place->addItem(tr("as number %1").arg(n), n);
    for (const SheetPin& pin : session_.project().wishes.pins)
        if (pin.sheet == sheet.id) place->setCurrentIndex(std::min(pin.place, count));
    columns->addWidget(place);
    connect(place, &QComboBox::activated, this, [this, id = sheet.id](int n) {
        wish(tr("Place of a sheet in the run"), with_pin(session_.project().wishes, id, n));
    });
    return row;
}

void WishesPanel::show_ticks(Card* card) {
    const Project& project = session_.project();
    card->rows()->addWidget(label(tr("This run only"), TextRole::heading, card));
    card->rows()->addWidget(wrapped(
        tr("What has no tick is left out of this run. The project stays as it is."), TextRole::quiet, card));
    card->rows()->addWidget(label(tr("sheets"), TextRole::quiet, card));
    for (const Sheet& sheet : project.sheets)
        card->rows()->addWidget(sheet_row(sheet, static_cast<int>(project.sheets.size()), card));
    card->rows()->addWidget(label(tr("lanes"), TextRole::quiet, card));
    for (const Lane& lane : project.lanes) {
        auto* box = run_tick(QString("%1  %2").arg(QString::fromStdString(plate(project, lane.id)),
                                                   QString::fromStdString(lane.name)),
                             &NotThisRun::lanes, lane.id, card);
        box->setObjectName("run-lane");
        card->rows()->addWidget(box);
    }
    card->rows()->addWidget(label(tr("parts"), TextRole::quiet, card));
    for (const Part& part : project.parts) {
        auto* box = run_tick(QString::fromStdString(part.name), &NotThisRun::parts, part.id, card);
        box->setObjectName("run-part");
        card->rows()->addWidget(box);
    }
}

} // namespace dotlane::app
