#include "app/opening/opening_panel.h"

#include <QHBoxLayout>
#include <QRadioButton>

#include "app/lanes/lane_panel.h"
#include "app/recipe/finding_card.h"
#include "app/widgets/size_text.h"
#include "present/words.h"

namespace dotlane::app {

OpeningPanel::OpeningPanel(Session& session, QWidget* parent)
    : SidePanel(tr("Opening"), parent)
    , session_(session)
    , stations_(new StationColumn(this))
    , take_(pill(tr("Take it in"), this, true)) {
    auto* give_up = pill(tr("Cancel"), this);
    give_up->setObjectName("give-up");
    take_->setObjectName("take-in");
    head()->addWidget(give_up);
    head()->addWidget(take_);
    body()->addWidget(stations_);
    body()->addStretch(1);
    connect(take_, &QPushButton::clicked, this, &OpeningPanel::take);
    connect(give_up, &QPushButton::clicked, this, [this] {
        file_.reset();
        Q_EMIT given_up();
    });
}

void OpeningPanel::show_file(std::shared_ptr<OpenedFile> file) {
    file_ = std::move(file);
    factor_.reset();
    kind_ = nullptr;
    if (!file_->picture && !opened().asks_scale) factor_ = 1;
    build();
    if (file_->picture)
        Q_EMIT picture_scaled(*file_->picture, file_->picture->picture.width);
    else
        Q_EMIT scaled(opened(), factor_.value_or(1));
}

void OpeningPanel::build() {
    stations_->clear();
    stations_->add(size_card());
    begin_ = nullptr;
    if (!file_->picture) stations_->add(begin_card());
    for (std::size_t i = 0; i < file_->gatherings.size(); ++i)
        stations_->add(gathering_card(i));
    for (const Finding& f : opened().findings)
        stations_->add(new FindingCard(
                           f, [this](const Finding& one) { treat(one); }, stations_),
                       false);
    take_->setEnabled(factor_.has_value());
    take_->setToolTip(factor_ ? QString() : tr("Choose the size first"));
}

void OpeningPanel::treat(const Finding& finding) {
    const std::string& code = finding.remedy.code;
    if (code == "open.as-picture") return void(Q_EMIT as_picture_wanted());
    const auto choice = stray_choice(code);
    if (!choice) return;
    treat_strays(file_->opened, *choice);
    // The lines are counted anew; what was chosen for their colours stays.
    auto gatherings = gather_lanes(*opened().source.drawing, session_.catalog(), kind_);
    for (Gathering& now : gatherings)
        for (const Gathering& was : file_->gatherings)
            if (was.stroke == now.stroke && was.fill == now.fill && was.dashed == now.dashed)
                now.action = was.action, now.tool = was.tool, now.name = was.name, now.reason = was.reason;
    file_->gatherings = std::move(gatherings);
    if (opened().asks_scale) factor_.reset(); // it was chosen by another size
    build_soon();
}

/// Not while the card that was pressed is still at work.
void OpeningPanel::build_soon() {
    QMetaObject::invokeMethod(
        this,
        [this] {
            if (!file_) return;
            const int place = scrolled();
            build();
            if (begin_) begin_->setFocus(); // what had it is gone
            scroll_back(place);
            Q_EMIT scaled(opened(), factor_.value_or(1));
        },
        Qt::QueuedConnection);
}

/// Lanes are guessed anew for what is to be made, but for those that were chosen by hand.
void OpeningPanel::begin_with(const StepKind* kind) {
    const auto guessed = [this](const StepKind* of) {
        return gather_lanes(*opened().source.drawing, session_.catalog(), of);
    };
    const std::vector<Gathering> before = guessed(kind_), now = guessed(kind);
    for (std::size_t i = 0; i < now.size(); ++i) {
        Gathering& one = file_->gatherings[i];
        if (one.action == before[i].action && one.tool == before[i].tool) one = now[i];
    }
    kind_ = kind;
    build_soon();
}

QWidget* OpeningPanel::size_card() {
    if (const auto& picture = file_->picture)
        return asked_size(QString::fromStdString(picture->picture.file_name), scale_choices(*picture),
                          in_mm(picture->picture.width), [this](Length width) -> Result<ScaleChoice> {
                              OpenedPicture settled = *file_->picture;
                              if (const auto ok = settle_width(settled, width); !ok)
                                  return tl::make_unexpected(ok.error());
                              return ScaleChoice{{},
                                                 in_mm(width) / settled.width,
                                                 width,
                                                 width * (double(settled.height) / settled.width)};
                          });
    const dotlane::Box box = opened().box;
    const QString name = QString::fromStdString(opened().source.file_name);
    if (opened().asks_scale)
        return asked_size(name, scale_choices(opened()), box.width(),
                          [this](Length width) { return scale_to_width(opened(), width); });
    auto* card = new Card(stations_);
    card->rows()->addWidget(label(name, TextRole::heading, card));
    const LengthUnit unit = session_.project().unit;
    card->rows()->addWidget(
        label(tr("%1, %n line(s)", nullptr, static_cast<int>(opened().source.drawing->lines.size()))
                  .arg(size_text(mm(box.width()), mm(box.height()), unit)),
              TextRole::quiet, card));
    return card;
}

/// What is made of a drawing as a whole, its colours being layers.
QWidget* OpeningPanel::begin_card() {
    auto* card = new Card(stations_);
    begin_ = new QComboBox(card);
    begin_->setObjectName("begin-with");
    begin_->setAccessibleName(tr("What becomes of the drawing"));
    begin_->addItem(tr("its lines, as they are"), QString());
    for (const StepKind& kind : step_kinds())
        if (kind.layers) begin_->addItem(present::words(word(kind)), QString(kind.key));
    begin_->setCurrentIndex(kind_ ? begin_->findData(QString(kind_->key)) : 0);
    connect(begin_, &QComboBox::activated, this,
            [this] { begin_with(step_kind(begin_->currentData().toString().toStdString())); });
    card->rows()->addWidget(captioned(tr("make of it"), begin_, card));
    return card;
}

QWidget* OpeningPanel::asked_size(const QString& file_name, const std::vector<ScaleChoice>& choices,
                                  double width_now, std::function<Result<ScaleChoice>(Length)> for_width) {
    auto* card = new Card(stations_);
    card->rows()->addWidget(label(file_name, TextRole::heading, card));
    const LengthUnit unit = session_.project().unit;
    const auto size = [unit](const ScaleChoice& c) { return size_text(c.width, c.height, unit); };
    auto* why = label(tr("The file does not say how large it is. Which finished size is meant?"),
                      TextRole::body, card);
    why->setWordWrap(true);
    card->rows()->addWidget(why);
    sizes_ = new QButtonGroup(card);
    for (const ScaleChoice& choice : choices) {
        auto* button = new QRadioButton(tr("%1 (%2)").arg(size(choice), present::words(choice.label)), card);
        button->setObjectName("scale-" + QString::fromStdString(choice.label.english()).section(' ', 0, 0));
        sizes_->addButton(button);
        card->rows()->addWidget(button);
        connect(button, &QRadioButton::clicked, this, [this, factor = choice.factor] { set_factor(factor); });
    }
    auto* row = new QHBoxLayout;
    auto* other = new QRadioButton(tr("a width of"), card);
    sizes_->addButton(other);
    width_ = new NumberField(NumberField::Kind::length, 0.1, 1e5, card);
    width_->setObjectName("wanted-width");
    width_->setAccessibleName(tr("Finished width"));
    width_->set(width_now, unit);
    result_ = label({}, TextRole::quiet, card);
    row->addWidget(other);
    row->addWidget(width_);
    row->addWidget(result_, 1);
    card->rows()->addLayout(row);
    const auto use_width = [this, other, size, for_width = std::move(for_width)](double mm_wide) {
        const auto choice = for_width(mm(mm_wide));
        if (!choice) return result_->setText(present::words(choice.error()));
        other->setChecked(true);
        result_->setText(size(*choice));
        set_factor(choice->factor);
    };
    connect(width_, &NumberField::committed, this, use_width);
    connect(other, &QRadioButton::clicked, this, [this, use_width] { use_width(width_->value()); });
    return card;
}

void OpeningPanel::fill_tools(QComboBox* tools, std::size_t index) {
    tools->clear();
    for (const Tool* tool : tools_for(session_.catalog(), file_->gatherings[index].action))
        tools->addItem(present::words(word(*tool)), QString::fromStdString(tool->id));
    tools->setCurrentIndex(tools->findData(QString::fromStdString(file_->gatherings[index].tool)));
}

QWidget* OpeningPanel::gathering_card(std::size_t index) {
    const Gathering& g = file_->gatherings[index];
    auto* card = new Card(stations_);
    auto* top = new QHBoxLayout;
    auto* swatch = new QLabel(card);
    QPixmap colour(18, 18);
    colour.fill(present::to_qcolor(g.colour));
    swatch->setPixmap(colour);
    top->addWidget(swatch);
    const QString closed = g.open == 0     ? tr("closed")
                           : g.closed == 0 ? tr("open")
                                           : tr("%1 closed, %2 open").arg(g.closed).arg(g.open);
    top->addWidget(label(tr("%n line(s), %1", nullptr, static_cast<int>(g.lines.size())).arg(closed),
                         TextRole::heading, card),
                   1);
    card->rows()->addLayout(top);
    auto* reason = label(present::words(g.reason), TextRole::quiet, card);
    reason->setWordWrap(true);
    card->rows()->addWidget(reason);
    auto* row = new QHBoxLayout;
    auto* action = new QComboBox(card);
    action->setObjectName(QStringLiteral("action-%1").arg(index));
    for (const Action a : all_actions)
        action->addItem(present::action_title(a), static_cast<int>(a));
    action->setCurrentIndex(action->findData(static_cast<int>(g.action)));
    action->setAccessibleName(tr("Action for the lines of this colour"));
    auto* tools = new QComboBox(card);
    tools->setObjectName(QStringLiteral("tool-%1").arg(index));
    tools->setAccessibleName(tr("Tool for the lines of this colour"));
    fill_tools(tools, index);
    row->addWidget(action);
    row->addWidget(tools, 1);
    card->rows()->addLayout(row);
    connect(action, &QComboBox::activated, this, [this, index, action, tools, reason] {
        Gathering& one = file_->gatherings[index];
        choose_action(one, static_cast<Action>(action->currentData().toInt()), session_.catalog());
        fill_tools(tools, index);
        reason->setText(present::words(one.reason));
    });
    connect(tools, &QComboBox::activated, this, [this, index, tools] {
        choose_tool(file_->gatherings[index], tools->currentData().toString().toStdString(),
                    session_.catalog());
    });
    return card;
}

void OpeningPanel::set_factor(double factor) {
    factor_ = factor;
    take_->setEnabled(true);
    take_->setToolTip({});
    if (file_->picture)
        Q_EMIT picture_scaled(*file_->picture, mm(factor * file_->picture->width));
    else
        Q_EMIT scaled(opened(), factor);
}

void OpeningPanel::take() {
    if (!file_ || !factor_) return;
    if (auto picture = file_->picture) {
        if (!settle_width(*picture, mm(*factor_ * picture->width))) return;
        file_.reset();
        return void(Q_EMIT picture_taken(*picture));
    }
    Opened settled = opened();
    settle_scale(settled, *factor_);
    std::vector<StepWhat> begin;
    if (kind_) begin.push_back(kind_->fresh);
    const auto done = session_.run(tr("Open %1").arg(QString::fromStdString(settled.source.file_name)),
                                   TakeIn{settled, file_->gatherings, begin});
    if (!done) return;
    file_.reset();
    session_.choose_part(done->part);
    Q_EMIT taken();
}

} // namespace dotlane::app
