#include "app/sheets/sheet_panel.h"

#include <QHBoxLayout>

#include "app/widgets/size_text.h"
#include "app/widgets/typing.h"
#include "core/commands/placing.h"
#include "core/commands/project.h"
#include "present/words.h"

namespace dotlane::app {
namespace {

template<class List>
void fill_box(QComboBox* box, const List& list, const std::string& chosen) {
    if (box->count() != static_cast<int>(list.size())) {
        box->clear();
        for (const auto& item : list)
            box->addItem(present::words(word(item)), QString::fromStdString(item.id));
    }
    box->setCurrentIndex(box->findData(QString::fromStdString(chosen)));
}

} // namespace

SheetPanel::SheetPanel(Session& session, QWidget* parent)
    : SidePanel(tr("Sheet"), parent)
    , session_(session)
    , findings_(new FindingList(session, this)) {
    auto* add = pill(tr("Add sheet"), this);
    add->setObjectName("add-sheet");
    head()->addWidget(add);
    body()->addWidget(sheet_card());
    body()->addWidget(placed_card());
    arrange_ = new ArrangeCard(session_, this);
    body()->addWidget(arrange_);
    marks_ = new MarksCard(session_, this);
    body()->addWidget(marks_);
    body()->addWidget(findings_);
    connect(findings_, &FindingList::chosen, this, [this](const Finding& f) {
        if (f.place.box.valid()) Q_EMIT place_wanted(f.place.box);
    });
    body()->addStretch(1);
    connect(add, &QPushButton::clicked, this, &SheetPanel::add_sheet);
    connect(&session_, &Session::derivedChanged, this, &SheetPanel::show_sheet);
    connect(&session_, &Session::projectChanged, this, [this](const Changes& what) {
        if (what.sheet(session_.choice().sheet) || what.part_list || !what.parts.empty() || what.machine ||
            what.unit)
            show_sheet();
    });
    connect(&session_, &Session::choiceChanged, this, &SheetPanel::show_sheet);
    show_sheet();
}

QWidget* SheetPanel::sheet_card() {
    auto* card = new Card(this);
    name_ = new QLineEdit(card);
    name_->setProperty("look", "bare");
    name_->setAccessibleName(tr("Name of the sheet"));
    stock_ = new QComboBox(card);
    mat_ = new QComboBox(card);
    machine_ = new QComboBox(card);
    name_->setObjectName("sheet-name");
    stock_->setObjectName("stock");
    mat_->setObjectName("mat");
    machine_->setObjectName("machine");
    usable_ = label({}, TextRole::quiet, card);
    usable_->setWordWrap(true);
    card->rows()->addWidget(name_);
    card->rows()->addWidget(captioned(tr("stock"), stock_, card));
    card->rows()->addWidget(captioned(tr("mat"), mat_, card));
    card->rows()->addWidget(captioned(tr("machine, for the whole project"), machine_, card));
    card->rows()->addWidget(usable_);
    auto* row = new QHBoxLayout;
    auto* place = pill(tr("Place the chosen part"), card);
    place->setObjectName("place-part");
    remove_sheet_ = link_button(tr("Remove sheet"), card);
    remove_sheet_->setObjectName("remove-sheet");
    row->addWidget(place);
    row->addStretch(1);
    row->addWidget(remove_sheet_);
    card->rows()->addLayout(row);
    connect(place, &QPushButton::clicked, this, &SheetPanel::place_part);
    on_typed(name_, this, [this] {
        const auto text = name_->text().trimmed().toStdString();
        if (!text.empty() && session_.sheet() && text != session_.sheet()->name)
            change_sheet(tr("Rename sheet"), {{}, text, {}, {}});
    });
    connect(stock_, &QComboBox::activated, this, [this] {
        change_sheet(tr("Stock"), {{}, {}, stock_->currentData().toString().toStdString(), {}});
    });
    connect(mat_, &QComboBox::activated, this, [this] {
        change_sheet(tr("Mat"), {{}, {}, {}, mat_->currentData().toString().toStdString()});
    });
    connect(machine_, &QComboBox::activated, this, [this] {
        ChangeProject change;
        change.machine = machine_->currentData().toString().toStdString();
        session_.run(tr("Machine"), change);
    });
    connect(remove_sheet_, &QPushButton::clicked, this,
            [this] { session_.run(tr("Remove sheet"), RemoveSheet{session_.choice().sheet}); });
    return card;
}

QWidget* SheetPanel::placed_card() {
    placed_ = new Card(this);
    placed_->set_chosen(true);
    placed_name_ = label({}, TextRole::heading, placed_);
    const auto length = [&](const char* name, double low) {
        auto* f = new NumberField(NumberField::Kind::length, low, 1e4, placed_);
        f->setObjectName(name);
        return f;
    };
    const auto count = [&](const char* name) {
        auto* f = new NumberField(NumberField::Kind::number, 1, 200, placed_);
        f->set_decimals(0);
        f->setObjectName(name);
        return f;
    };
    left_ = length("left", -1e4);
    top_ = length("top", -1e4);
    gap_ = length("gap", 0);
    gap_->set(5);
    turn_ = new NumberField(NumberField::Kind::degrees, -360, 360, placed_);
    turn_->setObjectName("turn");
    turn_->set_step(15);
    columns_ = count("columns");
    rows_ = count("rows");
    columns_->set(2);
    rows_->set(1);
    mirrored_ = new QCheckBox(tr("mirrored"), placed_);
    mirrored_->setObjectName("mirrored");
    auto* numbers = new QHBoxLayout;
    numbers->addWidget(captioned(tr("from left"), left_, placed_));
    numbers->addWidget(captioned(tr("from top"), top_, placed_));
    numbers->addWidget(captioned(tr("turned"), turn_, placed_));
    auto* row = new QHBoxLayout;
    auto* quarter = pill(tr("Quarter turn"), placed_);
    quarter->setObjectName("quarter-turn");
    auto* off = link_button(tr("Take off"), placed_);
    off->setObjectName("take-off");
    row->addWidget(mirrored_);
    row->addStretch(1);
    row->addWidget(quarter);
    auto* copies = new QHBoxLayout;
    copies->addWidget(captioned(tr("across"), columns_, placed_));
    copies->addWidget(captioned(tr("down"), rows_, placed_));
    copies->addWidget(captioned(tr("gap"), gap_, placed_));
    auto* last = new QHBoxLayout;
    auto* copy = pill(tr("Copy in a grid"), placed_);
    copy->setObjectName("copy-grid");
    last->addWidget(copy);
    last->addStretch(1);
    last->addWidget(off);
    placed_->rows()->addWidget(placed_name_);
    placed_->rows()->addLayout(numbers);
    placed_->rows()->addLayout(row);
    placed_->rows()->addLayout(copies);
    placed_->rows()->addLayout(last);
    connect(left_, &NumberField::committed, this, [this](double v) {
        change_placed(tr("Move part"), {{}, mm(v)}, "left");
    });
    connect(top_, &NumberField::committed, this, [this](double v) {
        change_placed(tr("Move part"), {{}, {}, mm(v)}, "top");
    });
    connect(turn_, &NumberField::committed, this, [this](double v) {
        change_placed(tr("Turn part"), {{}, {}, {}, degrees(v)}, "turn");
    });
    connect(mirrored_, &QCheckBox::clicked, this, [this](bool on) {
        change_placed(tr("Mirror part"), {{}, {}, {}, {}, on});
    });
    connect(quarter, &QPushButton::clicked, this, [this] { arrange_->turn(degrees(90)); });
    connect(copy, &QPushButton::clicked, this, &SheetPanel::make_copies);
    connect(off, &QPushButton::clicked, this, &SheetPanel::remove_placed);
    return placed_;
}

const Placement* SheetPanel::placed() const {
    return find_placement(session_.project(), session_.choice().placement);
}

Extent SheetPanel::extent_of_placed(const Placement& p) const {
    const auto derived = session_.derived();
    const EvaluatedPart* e = derived ? derived->part(p.part) : nullptr;
    return e && is_there(*e, p.piece) ? extent_of(*e, p.piece) : Extent(dotlane::Box{0, 0, 1, 1});
}

void SheetPanel::change_sheet(const QString& text, ChangeSheet change) {
    change.sheet = session_.choice().sheet;
    if (!session_.run(text, change)) show_sheet(); // the field shows what is still so
}

void SheetPanel::change_placed(const QString& text, ChangePlaced change, const QString& merge) {
    change.placed = session_.choice().placement;
    session_.run(text, change, merge);
}

void SheetPanel::remove_placed() {
    if (auto all = session_.chosen_placements(); !all.empty())
        session_.run(tr("Take part off the sheet"), TakeOff{{std::move(all)}});
}

void SheetPanel::add_sheet() {
    const Sheet* like = session_.sheet();
    const auto done = session_.run(
        tr("Add sheet"), AddSheet{{}, like ? like->stock : std::string(), like ? like->mat : std::string()});
    if (!done) return;
    Choice choice = session_.choice();
    choice.sheet = done->sheet;
    session_.choose(choice);
    if (session_.project().sheets.size() == 1) place_part(); // the first sheet is for the part at hand
}

void SheetPanel::choose_placed(const std::vector<PlacementId>& made) {
    Choice choice = session_.choice();
    choice.placement = made.empty() ? PlacementId{} : made.front();
    choice.with.clear();
    choice.with.insert(made.begin() + (made.empty() ? 0 : 1), made.end());
    if (!made.empty()) find_placement(session_.project(), made.front(), &choice.sheet);
    session_.choose(choice);
}

void SheetPanel::place_part() {
    const Part* part = session_.part();
    if (!part) return;
    if (!session_.sheet()) return add_sheet();
    if (const auto done = session_.run(tr("Place part"), PlacePart{session_.choice().sheet, {part->id}}))
        choose_placed(done->placements);
}

void SheetPanel::duplicate() {
    if (const auto done = session_.run(tr("Duplicate part"), CopyPlaced{{session_.chosen_placements()}}))
        choose_placed(done->placements);
}

void SheetPanel::make_copies() {
    session_.run(tr("Copies in a grid"), CopyInGrid{session_.choice().placement,
                                                    {static_cast<int>(columns_->value()),
                                                     static_cast<int>(rows_->value()), mm(gap_->value())}});
}

void SheetPanel::show_sheet() {
    const Project& project = session_.project();
    const Sheet* sheet = session_.sheet();
    const LengthUnit unit = project.unit;
    fill_box(machine_, session_.catalog().machines, project.machine);
    fill_box(stock_, session_.catalog().stocks, sheet ? sheet->stock : "");
    fill_box(mat_, session_.catalog().mats, sheet ? sheet->mat : "");
    for (QWidget* w : {static_cast<QWidget*>(stock_), static_cast<QWidget*>(mat_),
                       static_cast<QWidget*>(name_), static_cast<QWidget*>(remove_sheet_)})
        w->setEnabled(sheet);
    if (!being_typed(name_)) name_->setText(sheet ? QString::fromStdString(sheet->name) : tr("no sheet yet"));
    const auto derived = session_.derived();
    const LaidSheet* laid = derived && sheet ? derived->sheet(sheet->id) : nullptr;
    usable_->setText(laid ? tr("The tool reaches %1 of it.")
                                .arg(size_text(mm(laid->usable.width()), mm(laid->usable.height()), unit))
                          : QString());
    const Placement* p = placed();
    const bool single = session_.chosen_placements().size() == 1;
    placed_->setVisible(p && single);
    arrange_->refresh();
    marks_->refresh();
    if (p) {
        const Part* part = dotlane::find(project, p->part);
        QString name = part ? QString::fromStdString(part->name) : QString();
        if (p->piece > 0) name = tr("%1, piece %2").arg(name).arg(p->piece);
        placed_name_->setText(name);
        const dotlane::Box box = placed_box(*p, extent_of_placed(*p));
        left_->set(box.x0, unit);
        top_->set(box.y0, unit);
        turn_->set(in_degrees(p->turn));
        mirrored_->setChecked(p->mirrored);
    }
    show_findings();
}

void SheetPanel::show_findings() {
    const auto derived = session_.derived();
    Findings mine;
    if (derived)
        for (const Finding& f : derived->findings)
            if (f.place.sheet && f.place.sheet == session_.choice().sheet) mine.push_back(f);
    findings_->show_findings(mine);
}

} // namespace dotlane::app
