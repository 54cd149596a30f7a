#include "app/recipe/step_card.h"

#include <QCoreApplication>
#include <QHBoxLayout>
#include <QKeyEvent>

#include "app/bench/part_view.h"
#include "app/widgets/side_panel.h"
#include "app/widgets/size_text.h"
#include "core/base/text.h"
#include "core/catalog/mats.h"
#include "core/commands/making.h"
#include "core/commands/steps.h"
#include "core/derive/saving.h"
#include "present/words.h"

namespace dotlane::app {

QStringList figure_words(const std::vector<Figure>& figures, LengthUnit unit) {
    QStringList out;
    for (const Figure& f : figures) {
        const std::string spaced = QString(f.key).replace('_', ' ').toStdString();
        const QString name = QCoreApplication::translate("Figures", spaced.c_str());
        const QString unit_name = f.unit;
        const QString value = unit_name == "mm"    ? QString::fromStdString(to_text(mm(f.value), unit))
                              : unit_name == "mm2" ? QString::fromStdString(number(f.value / 100, 1)) + " cm²"
                                                   : QString::fromStdString(number(f.value, 2));
        out << name + " " + value;
    }
    return out;
}

QStringList font_names(FontShelf& shelf, Lettering::Kind kind) {
    QStringList out;
    if (kind == Lettering::Kind::strokes) {
        for (const StrokeFont& font : shelf.stroke_fonts())
            out << QString::fromStdString(font.name);
        return out;
    }
    out = {"Lobster Two", "Dancing Script", "League Spartan", "EB Garamond", "Cabin"};
    for (const std::string& family : shelf.families())
        if (const QString name = QString::fromStdString(family); !out.contains(name)) out << name;
    return out;
}

std::vector<std::pair<PartId, QString>> other_parts(const Session& session) {
    std::vector<std::pair<PartId, QString>> out;
    for (const Part& part : session.project().parts)
        if (part.id != session.choice().part) out.emplace_back(part.id, QString::fromStdString(part.name));
    return out;
}

StepCard::StepCard(Session& session, StepId step, QWidget* parent)
    : Card(parent)
    , session_(session)
    , step_(step)
    , on_(new QCheckBox(this))
    , plate_(new PlateButton(this))
    , form_(new FieldForm(this))
    , sources_(new QWidget(this))
    , sources_lane_(new PlateButton(sources_))
    , sources_aside_(link_button({}, sources_))
    , second_(new QComboBox(this))
    , figures_(label({}, TextRole::quiet, this))
    , grip_(new Grip(this))
    , aside_(link_button({}, this))
    , ways_(link_button(tr("Other ways..."), this))
    , pieces_(link_button(tr("Pieces..."), this)) {
    on_->setFont(present::ui_font(10.5, QFont::DemiBold));
    on_->setToolTip(tr("Switch the step on or off"));
    on_->setObjectName("on");
    auto* top = new QHBoxLayout;
    top->setSpacing(5);
    top->addWidget(grip_);
    top->addWidget(on_, 1);
    top->addWidget(plate_);
    rows()->addLayout(top);
    rows()->addWidget(form_);
    auto* from = new QHBoxLayout(sources_);
    from->setContentsMargins(0, 0, 0, 0);
    from->addWidget(label(tr("its source"), TextRole::quiet, sources_));
    from->addWidget(sources_lane_);
    from->addWidget(sources_aside_);
    from->addStretch(1);
    sources_aside_->setObjectName("sources-aside");
    sources_lane_->setObjectName("sources-lane");
    rows()->addWidget(sources_);
    connect(sources_lane_, &PlateButton::lane_opened, this, &StepCard::lane_opened);
    connect(sources_lane_, &PlateButton::clicked, this, [this] {
        sources_lane_->offer_lanes(session_.project(), [this](LaneId lane) {
            session_.run(tr("Lane of the source"), TreatSources{session_.choice().part, step_, lane});
        });
    });
    connect(sources_aside_, &QPushButton::clicked, this, [this] {
        const Step* now = current();
        const LineSet* set =
            now && !now->of.empty() ? dotlane::find(*session_.part(), now->of.front()) : nullptr;
        if (!set) return;
        session_.run(tr("Source of the outline"),
                     TreatSources{session_.choice().part, step_, {}, !set->set_aside});
    });
    second_->setObjectName("second");
    second_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    rows()->addWidget(second_);
    connect(second_, &QComboBox::activated, this, [this](int i) {
        const LineSetId set{second_->itemData(i).toUInt()};
        edit(tr("Other lines of the step"), [set](Step& s) {
            s.by.clear();
            if (set) s.by.push_back(set);
        });
    });
    figures_->setWordWrap(true);
    rows()->addWidget(figures_);
    auto* foot = new QHBoxLayout;
    foot->setSpacing(10);
    auto* remove = link_button(tr("Remove"), this);
    remove->setObjectName("remove-step");
    aside_->setObjectName("step-aside");
    grip_->setObjectName("step-grip");
    grip_->setToolTip(tr("Drag the step to do it earlier or later (Alt+Up, Alt+Down)"));
    ways_->setObjectName("fill-ways");
    ways_->setToolTip(tr("Other styles and angles, and what each would come to"));
    connect(ways_, &QPushButton::clicked, this, &StepCard::ways_wanted);
    pieces_->setObjectName("fill-pieces");
    pieces_->setToolTip(tr("Press on the bench the pieces that are to be filled"));
    connect(pieces_, &QPushButton::clicked, this, &StepCard::pieces_wanted);
    for (QPushButton* b : {ways_, pieces_, remove, aside_})
        foot->addWidget(b);
    foot->addStretch(1);
    rows()->addLayout(foot);
    setFocusPolicy(Qt::TabFocus);
    connect(on_, &QCheckBox::clicked, this, [this](bool on) {
        edit(on ? tr("Switch step on") : tr("Switch step off"), [on](Step& s) { s.on = on; });
    });
    connect(plate_, &PlateButton::lane_opened, this, &StepCard::lane_opened);
    connect(plate_, &PlateButton::clicked, this, [this] {
        plate_->offer_lanes(session_.project(), [this](LaneId lane) {
            edit(tr("Lane of the step"), [lane](Step& s) { s.lane = lane; });
        });
    });
    connect(remove, &QPushButton::clicked, this, [this] {
        session_.run(tr("Remove step"), RemoveStep{session_.choice().part, step_});
    });
    connect(grip_, &Grip::moved_by, this, &StepCard::move);
    connect(grip_, &Grip::dragged, this, &StepCard::dragged);
    connect(grip_, &Grip::dropped, this, &StepCard::dropped);
    connect(grip_, &Grip::given_up, this, &StepCard::given_up);
    connect(aside_, &QPushButton::clicked, this, [this] {
        const Step* now = current();
        if (now)
            edit(now->aside ? tr("Run lines") : tr("Set lines aside"), [](Step& s) { s.aside = !s.aside; });
    });
    connect(form_, &FieldForm::edited, this,
            [this](const QString& key, const QString& name, const std::shared_ptr<Fields>& change) {
                const Step* now = current();
                if (!now) return;
                edit(
                    tr("%1: %2").arg(QCoreApplication::translate("Steps", kind_of(now->what).name), name),
                    [&](Step& s) {
                        fields(s.what, *change);
                        if (Lettering* lettering = lettering_in(s.what); lettering && key == "kind")
                            fit_font(*lettering, session_.workshop().fonts());
                    },
                    key);
            });
    connect(form_, &FieldForm::opened, this, &StepCard::refresh);
    connect(this, &Card::pressed, this, [this] {
        Choice choice = session_.choice();
        choice.step = choice.step == step_ ? StepId{} : step_;
        session_.choose(choice);
    });
    refresh();
}

const Step* StepCard::current() const {
    const Part* part = session_.part();
    return part ? dotlane::find(*part, step_) : nullptr;
}

void StepCard::edit(const QString& text, const std::function<void(Step&)>& how, const QString& merge) {
    const Step* now = current();
    if (!now) return;
    Step next = *now;
    how(next);
    session_.run(text,
                 ChangeStep{session_.choice().part, step_, next.what, next.on, next.aside, next.lane, next.of,
                            next.by},
                 merge.isEmpty() ? merge : merge + QString::number(step_.value));
}

void StepCard::move(int by) {
    const Part* part = session_.part();
    if (!part) return;
    const auto& steps = part->steps;
    const auto at = std::find_if(steps.begin(), steps.end(), [this](const Step& s) { return s.id == step_; });
    move_to(static_cast<int>(at - steps.begin()) + by);
}

void StepCard::move_to(int to) {
    const Part* part = session_.part();
    if (!part || to < 0 || to >= static_cast<int>(part->steps.size())) return;
    if (part->steps[static_cast<std::size_t>(to)].id == step_) return;
    session_.run(tr("Move step"), MoveStep{part->id, step_, to});
}

void StepCard::show_sources(const Step& step) {
    const LineSet* set = step.of.empty() ? nullptr : dotlane::find(*session_.part(), step.of.front());
    const bool rim = kind_of(step.what).behind; // what it runs around is run too, or not
    sources_->setVisible(rim && set);
    if (!rim || !set) return;
    sources_lane_->setVisible(!set->set_aside);
    sources_lane_->set_lane(session_.project(), set->lane);
    sources_aside_->setText(set->set_aside ? tr("Run it too") : tr("Set it aside"));
}

void StepCard::show_second(const Step& step, const StepKind& kind) {
    second_->setVisible(kind.second != StepKind::Second::none);
    if (kind.second == StepKind::Second::none) return;
    const bool cuts = kind.second == StepKind::Second::wanted,
               spares = kind.second == StepKind::Second::spared;
    const QString what = cuts ? tr("cut by %1") : spares ? tr("keeps off %1") : tr("to %1");
    second_->clear();
    if (!cuts) second_->addItem(spares ? tr("keeps off nothing") : what.arg(tr("all other lines")), 0);
    const auto add = [&](LineSetId id, const QString& name) {
        if (std::find(step.of.begin(), step.of.end(), id) == step.of.end())
            second_->addItem(what.arg(name), id.value);
    };
    const auto add_sets = [&](StepId of) {
        for (const LineSet& set : session_.part()->sets)
            if (set.step == of) add(set.id, QString::fromStdString(set.name));
    };
    add_sets({});
    for (const Step& earlier : session_.part()->steps) {
        if (earlier.id == step_) break;
        if (earlier.result)
            add(earlier.result, QCoreApplication::translate("Steps", kind_of(earlier.what).name).toLower());
        add_sets(earlier.id);
    }
    if (step.by.size() > 1) {
        second_->addItem(what.arg(tr("%n line set(s)", nullptr, static_cast<int>(step.by.size()))));
        second_->setCurrentIndex(second_->count() - 1);
    } else {
        second_->setCurrentIndex(second_->findData(step.by.empty() ? 0U : step.by.front().value));
    }
    second_->setAccessibleName(second_->currentText());
}

namespace {

/// What is saved of the stock; where nothing is, what could be, so that it is known before another way is
/// chosen.
QString worth_words(const std::vector<Figure>& figures, const Project& project, const Catalog& catalog,
                    const Part& part) {
    for (const char* key : {"saved", "hidden"})
        for (const Figure& f : figures) {
            if (std::string_view(f.key) != key || f.value <= 0) continue;
            const auto worth = stock_saved(project, catalog, part, square_mm(f.value));
            if (!worth) return {};
            const QString text = std::string_view(key) == "saved"
                                     ? StepCard::tr("saved: %1 sheets of %2, worth %3")
                                     : StepCard::tr("could be saved: %1 sheets of %2, worth %3");
            return "\n" + text.arg(QString::fromStdString(number(worth->sheets, 2)),
                                   present::words(word(*worth->stock)),
                                   QString::fromStdString(number(worth->price, 2)));
        }
    return {};
}

} // namespace

QString StepCard::what_it_did(const Step& step) {
    const EvaluatedPart* e = session_.evaluated();
    if (!step.on) return tr("switched off");
    const auto it = e ? e->reports.find(step_) : decltype(e->reports.end()){};
    if (!e || it == e->reports.end()) return tr("...");
    const StepReport& report = *it->second;
    const LengthUnit unit = session_.project().unit;
    if (!report.refused.empty()) return present::words(report.refused);
    if (!report.ink) {
        QString out = figure_words(report.figures, unit).join(", ");
        const Part* part = session_.part();
        if (part) out += worth_words(report.figures, session_.project(), session_.catalog(), *part);
        for (const Needed& n : report.needs) {
            const LineSet* of = part ? dotlane::find(*part, n.of) : nullptr;
            out += "\n" + (of ? QString::fromStdString(of->name) : present::words(n.what)) + ": " +
                   size_text(n.width, n.height, unit);
            if (const Machine* machine = session_.catalog().machine(session_.project().machine);
                machine && n.on_mat) {
                const Mat* mat = mat_that_holds(session_.catalog(), *machine, n.width, n.height);
                out += mat ? tr(", on the mat \"%1\"").arg(present::words(word(*mat)))
                           : tr(", which no mat of this machine holds in one piece");
            }
            if (n.cloth)
                out += tr("; of cloth %1 wide, %2 for %n copies", nullptr, n.cloth->copies)
                           .arg(QString::fromStdString(to_text(n.cloth->width, unit)),
                                QString::fromStdString(to_text(n.cloth->length, unit)));
        }
        return out;
    }
    const InkReport& fill = *report.ink;
    if (!step.lane) return tr("The fill has no lane.");
    if (!fill.refused.empty()) return present::words(fill.refused);
    return fill_figures(fill, session_.project(), session_.catalog(), *e, step_).join("\n") +
           tr("\n%1 tip, inset %2")
               .arg(QString::fromStdString(to_text(fill.tip, unit)),
                    QString::fromStdString(to_text(fill.inset, unit)));
}

void StepCard::refresh() {
    const Step* s = current();
    if (!s) return;
    const StepKind& kind = kind_of(s->what);
    const auto& steps = session_.part()->steps;
    on_->setText(QCoreApplication::translate("Steps", kind.name));
    on_->setChecked(s->on);
    plate_->setVisible(kind.makes && !s->aside);
    plate_->set_lane(session_.project(), s->lane);
    aside_->setVisible(kind.makes && !kind.inks);
    ways_->setVisible(kind.inks && s->on);
    pieces_->setVisible((kind.inks || kind.press) && s->on);
    if (kind.press) {
        pieces_->setText(tr("%1...").arg(QCoreApplication::translate("Steps", kind.press)));
        pieces_->setToolTip(tr("Press on the bench where they are to be, or one to take it away"));
    }
    aside_->setText(s->aside ? tr("Run") : tr("Set aside"));
    grip_->setVisible(steps.size() > 1);
    grip_->setAccessibleName(tr("Move %1: Up, Down").arg(on_->text()));
    set_chosen(session_.choice().step == step_);
    if (const EvaluatedPart* e = session_.evaluated())
        if (const InkReport* ink = ink_of(*e, step_)) {
            form_->set_empty_value("inset", ink->inset);
            form_->set_empty_value("spacing", ink->spacing);
        }
    form_->set_fonts([this] {
        const Step* now = current();
        const Lettering* lettering = now ? lettering_in(now->what) : nullptr;
        return lettering ? font_names(session_.workshop().fonts(), lettering->kind) : QStringList();
    });
    form_->set_parts([this] {
        auto parts = other_parts(session_);
        const Step* now = current();
        // Words can follow the outline of the part that they are on.
        if (now && lettering_in(now->what)) parts.insert(parts.begin(), {PartId{}, tr("this part")});
        return parts;
    });
    StepWhat what = s->what;
    StepWhat fresh = kind.fresh;
    form_->show_fields([&](Fields& f) { fields(what, f); }, session_.project().unit,
                       [&](Fields& f) { fields(fresh, f); });
    show_sources(*s);
    show_second(*s, kind);
    figures_->setText(what_it_did(*s));
    figures_->setVisible(!figures_->text().isEmpty());
    setAccessibleName(tr("Step %1").arg(on_->text()));
}

void StepCard::keyPressEvent(QKeyEvent* event) {
    if (event->modifiers() == Qt::AltModifier && (event->key() == Qt::Key_Up || event->key() == Qt::Key_Down))
        move(event->key() == Qt::Key_Up ? -1 : 1);
    else
        Card::keyPressEvent(event);
}

} // namespace dotlane::app
