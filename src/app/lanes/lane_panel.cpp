#include "app/lanes/lane_panel.h"

#include <QColorDialog>
#include <QHBoxLayout>

#include "app/lanes/tool_card.h"
#include "app/widgets/plate_button.h"
#include "app/widgets/typing.h"
#include "core/base/text.h"
#include "present/theme.h"
#include "present/words.h"

namespace dotlane::app {

std::vector<const Tool*> tools_for(const Catalog& catalog, Action action) {
    std::vector<const Tool*> out;
    for (const Tool& tool : catalog.tools)
        if (std::find(tool.actions.begin(), tool.actions.end(), action) != tool.actions.end())
            out.push_back(&tool);
    return out;
}

LanePanel::LanePanel(Session& session, QWidget* parent)
    : SidePanel(tr("Lanes"), parent)
    , session_(session)
    , list_(new StationColumn(this)) {
    auto* back = pill(tr("Done"), this);
    back->setObjectName("lanes-done");
    head()->addWidget(back);
    body()->addWidget(editor());
    tool_card_ = new ToolCard(session_, this);
    body()->addWidget(tool_card_);
    body()->addWidget(list_);
    body()->addStretch(1);
    connect(back, &QPushButton::clicked, this, &LanePanel::done);
    connect(&session_, &Session::projectChanged, this, [this](const Changes& what) {
        if (what.lanes || what.unit || what.machine || what.sheet_list || !what.sheets.empty()) show_lanes();
    });
    connect(&session_, &Session::derivedChanged, this, &LanePanel::count_lines);
    show_lanes();
}

QWidget* LanePanel::editor() {
    editor_ = new Card(this);
    editor_->set_chosen(true);
    name_ = new QLineEdit(editor_);
    name_->setProperty("look", "bare");
    name_->setAccessibleName(tr("Name of the lane"));
    action_ = new QComboBox(editor_);
    action_->setObjectName("lane-action");
    for (const Action action : all_actions)
        action_->addItem(present::action_title(action), static_cast<int>(action));
    tool_ = new QComboBox(editor_);
    tool_->setObjectName("lane-tool");
    colour_ = pill(tr("Colour"), editor_);
    colour_->setObjectName("lane-colour");
    repeats_ = new NumberField(NumberField::Kind::number, 1, 8, editor_);
    repeats_->setObjectName("lane-repeats");
    repeats_->set_decimals(0);
    fold_ = new QComboBox(editor_);
    fold_->setObjectName("lane-fold");
    fold_->addItem(tr("valley"), static_cast<int>(Fold::valley));
    fold_->addItem(tr("mountain"), static_cast<int>(Fold::mountain));
    fold_->setToolTip(tr("Valley: towards the scored side. Mountain: away from it, drawn with ticks."));
    figures_ = label({}, TextRole::quiet, editor_);
    caution_ = label({}, TextRole::quiet, editor_);
    caution_->setWordWrap(true);
    auto* remove = link_button(tr("Remove lane"), editor_);
    remove->setObjectName("lane-remove");
    editor_->rows()->addWidget(name_);
    editor_->rows()->addWidget(captioned(tr("action"), action_, editor_));
    editor_->rows()->addWidget(captioned(tr("tool"), tool_, editor_));
    auto* row = new QHBoxLayout;
    row->addWidget(captioned(tr("times run"), repeats_, editor_));
    row->addWidget(captioned(tr("pen or foil"), colour_, editor_));
    row->addWidget(captioned(tr("fold"), fold_, editor_));
    row->addStretch(1);
    editor_->rows()->addLayout(row);
    editor_->rows()->addWidget(ways());
    editor_->rows()->addWidget(figures_);
    editor_->rows()->addWidget(caution_);
    editor_->rows()->addWidget(remove, 0, Qt::AlignRight);
    on_typed(name_, this, [this] {
        const auto text = name_->text().trimmed().toStdString();
        const Lane* lane = dotlane::find(session_.project(), lane_);
        if (lane && !text.empty() && text != lane->name)
            change(tr("Rename lane"), [text](ChangeLane& c) { c.name = text; });
    });
    connect(action_, &QComboBox::activated, this, [this] {
        const auto action = static_cast<Action>(action_->currentData().toInt());
        change(tr("Action of the lane"), [action](ChangeLane& c) { c.action = action; });
    });
    connect(tool_, &QComboBox::activated, this, [this] {
        change(tr("Tool of the lane"),
               [id = tool_->currentData().toString().toStdString()](ChangeLane& c) { c.tool = id; });
    });
    connect(fold_, &QComboBox::activated, this, [this] {
        change(tr("Fold"),
               [this](ChangeLane& c) { c.fold = static_cast<Fold>(fold_->currentData().toInt()); });
    });
    connect(repeats_, &NumberField::committed, this, [this](double n) {
        change(tr("Times the lane is run"), [n](ChangeLane& c) { c.repeats = static_cast<int>(n); });
    });
    connect(colour_, &QPushButton::clicked, this, &LanePanel::choose_colour);
    connect(remove, &QPushButton::clicked, this,
            [this] { session_.run(tr("Remove lane"), RemoveLane{lane_}); });
    return editor_;
}

QWidget* LanePanel::ways() {
    auto* box = new QWidget(editor_);
    auto* column = new QVBoxLayout(box);
    column->setContentsMargins(0, 0, 0, 0);
    start_ = new QComboBox(box);
    start_->setObjectName("lane-start");
    const QString words[] = {tr("where it is shortest"), tr("off their corners"), tr("at the top"),
                             tr("at the right"),         tr("at the bottom"),     tr("at the left")};
    for (const LineStart start : all_line_starts)
        start_->addItem(words[static_cast<int>(start)], static_cast<int>(start));
    column->addWidget(captioned(tr("closed lines begin"), start_, box));
    pieces_ = new QComboBox(box);
    pieces_->setObjectName("lane-pieces");
    pieces_->addItem(tr("where it is shortest"), false);
    pieces_->addItem(tr("small ones before large ones"), true);
    pieces_->setToolTip(tr("Nothing is cut where the stock has been loosened by much"));
    column->addWidget(captioned(tr("next piece"), pieces_, box));
    auto* row = new QHBoxLayout;
    const auto field = [&](const char* name, const QString& caption, const QString& tip,
                           NumberField::Kind kind, double high) {
        auto* number = new NumberField(kind, 0, high, box);
        number->setObjectName(name);
        number->setToolTip(tip);
        row->addWidget(captioned(caption, number, box));
        return number;
    };
    overcut_ = field("lane-overcut", tr("overcut"), tr("Closed lines are run on so far past their beginning"),
                     NumberField::Kind::length, 10);
    lead_in_ =
        field("lane-lead-in", tr("lead-in"),
              tr("The beginning of each line is run forth and back first: for tips that must get warm"),
              NumberField::Kind::length, 20);
    dwell_ = field("lane-dwell", tr("rest, s"), tr("The tool rests so long where it has landed"),
                   NumberField::Kind::number, 10);
    row->addStretch(1);
    column->addLayout(row);
    connect(start_, &QComboBox::activated, this, [this] {
        change(tr("Beginning of lines"),
               [this](ChangeLane& c) { c.start = static_cast<LineStart>(start_->currentData().toInt()); });
    });
    connect(pieces_, &QComboBox::activated, this, [this] {
        change(tr("Order of pieces"),
               [this](ChangeLane& c) { c.small_first = pieces_->currentData().toBool(); });
    });
    connect(overcut_, &NumberField::committed, this,
            [this](double v) { change(tr("Overcut"), [v](ChangeLane& c) { c.overcut = mm(v); }); });
    connect(lead_in_, &NumberField::committed, this,
            [this](double v) { change(tr("Lead-in"), [v](ChangeLane& c) { c.lead_in = mm(v); }); });
    connect(dwell_, &NumberField::committed, this, [this](double v) {
        change(tr("Rest of the tool"), [v](ChangeLane& c) { c.dwell = seconds(v); });
    });
    return box;
}

void LanePanel::choose_colour() {
    const Lane* lane = dotlane::find(session_.project(), lane_);
    if (!lane) return;
    const QColor c =
        QColorDialog::getColor(present::to_qcolor(lane->colour), this, tr("Colour of the pen or foil"));
    if (!c.isValid()) return;
    const auto byte = [](int v) { return static_cast<std::uint8_t>(v); };
    const Colour colour{byte(c.red()), byte(c.green()), byte(c.blue())};
    change(tr("Colour of the lane"), [colour](ChangeLane& change) { change.colour = colour; });
}

void LanePanel::change(const QString& text, const std::function<void(ChangeLane&)>& how) {
    ChangeLane command{lane_};
    how(command);
    if (!session_.run(text, command)) show_lanes(); // the field shows what is still so
}

void LanePanel::show_lane(LaneId lane) {
    lane_ = lane;
    show_lanes();
}

void LanePanel::count_lines() {
    std::size_t lines = 0;
    if (const auto derived = session_.derived())
        for (const auto& [id, part] : derived->parts)
            for (const RunSet& run : part->runs)
                if (run.lane == lane_) lines += run.lines.size();
    figures_->setText(tr("%n line(s) in it", nullptr, static_cast<int>(lines)));
}

void LanePanel::show_lanes() {
    const Project& project = session_.project();
    const Lane* lane = dotlane::find(project, lane_);
    editor_->setVisible(lane);
    if (lane) {
        if (!being_typed(name_)) name_->setText(QString::fromStdString(lane->name));
        action_->setCurrentIndex(action_->findData(static_cast<int>(lane->action)));
        tool_->clear();
        for (const Tool* tool : tools_for(session_.catalog(), lane->action))
            tool_->addItem(
                tr("%1, %2 mm")
                    .arg(present::words(word(*tool)), QString::fromStdString(number(in_mm(tool->tip), 2))),
                QString::fromStdString(tool->id));
        tool_->setCurrentIndex(tool_->findData(QString::fromStdString(lane->tool)));
        repeats_->set(lane->repeats);
        start_->setCurrentIndex(start_->findData(static_cast<int>(lane->run.start)));
        pieces_->setCurrentIndex(pieces_->findData(lane->run.small_first));
        pieces_->parentWidget()->setVisible(row(lane->action).parts);
        overcut_->set(in_mm(lane->run.overcut), project.unit);
        lead_in_->set(in_mm(lane->run.lead_in), project.unit);
        dwell_->set(in_seconds(lane->run.dwell));
        start_->parentWidget()->parentWidget()->setVisible(row(lane->action).run);
        const bool scores = row(lane->action).folds, coloured = row(lane->action).tool_colour;
        fold_->parentWidget()->setVisible(scores);
        fold_->setCurrentIndex(fold_->findData(static_cast<int>(lane->fold)));
        colour_->parentWidget()->findChild<QLabel*>()->setText(coloured ? tr("pen or foil") : tr("shown as"));
        colour_->setText(present::words(word(lane->colour)));
        QPixmap swatch(14, 14);
        swatch.fill(present::to_qcolor(lane->colour));
        colour_->setIcon(swatch);
        count_lines();
        const Tool* tool = session_.catalog().tool(lane->tool);
        caution_->setText(tool ? present::words(as_word("Catalog", tool->caution)) : QString());
        caution_->setVisible(tool && !tool->caution.empty());
    }
    tool_card_->show_lane(lane_);
    list_->clear();
    for (const Lane& l : project.lanes) {
        auto* card = new Card(list_);
        auto* row = new QHBoxLayout;
        auto* plate = new PlateButton(card);
        plate->set_lane(project, l.id);
        plate->setAttribute(Qt::WA_TransparentForMouseEvents);
        plate->setFocusPolicy(Qt::NoFocus);
        row->addWidget(plate);
        row->addWidget(
            label(tr("%1, %2").arg(present::action_title(l.action), QString::fromStdString(l.name)),
                  TextRole::body, card),
            1);
        card->rows()->addLayout(row);
        card->set_chosen(l.id == lane_);
        card->setCursor(Qt::PointingHandCursor);
        connect(card, &Card::pressed, this, [this, id = l.id] { show_lane(id); });
        list_->add(card);
    }
    auto* add = pill(tr("New lane"), list_);
    add->setObjectName("new-lane");
    connect(add, &QPushButton::clicked, this, [this] {
        if (const auto done = session_.run(tr("New lane"), AddLane{})) show_lane(done->lane);
    });
    list_->add(add, false);
}

} // namespace dotlane::app
