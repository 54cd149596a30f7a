#include "app/recipe/source_card.h"

#include <QComboBox>
#include <QCoreApplication>
#include <QHBoxLayout>
#include <QMenu>

#include "app/recipe/step_card.h"
#include "app/widgets/side_panel.h"
#include "app/widgets/size_text.h"
#include "app/widgets/typing.h"
#include "core/checks/fit_checks.h"
#include "core/commands/apart.h"
#include "core/commands/making.h"
#include "core/commands/parts.h"
#include "present/words.h"

namespace dotlane::app {

SourceCard::SourceCard(Session& session, QWidget* parent)
    : Card(parent)
    , session_(session)
    , name_(new QLineEdit(this))
    , origin_(label({}, TextRole::quiet, this))
    , width_(new NumberField(NumberField::Kind::length, 0.1, 1e5, this))
    , height_(new NumberField(NumberField::Kind::length, 0.1, 1e5, this))
    , quantity_(new NumberField(NumberField::Kind::number, 1, 9999, this))
    , form_(new FieldForm(this))
    , glyphs_(pill(tr("Glyphs..."), this))
    , layer_row_(new QWidget(this))
    , layer_(pill(tr("Add layers"), layer_row_))
    , levels_(pill(tr("Part per level"), this))
    , pieces_(pill(tr("Part per piece"), this))
    , apart_(pill(tr("Take apart"), this))
    , colours_(new ColourRow(session, this))
    , figures_(label({}, TextRole::quiet, this))
    , stock_(new QComboBox(this)) {
    name_->setProperty("look", "bare");
    name_->setAccessibleName(tr("Name of the part"));
    name_->setObjectName("part-name");
    width_->setObjectName("finished-width");
    height_->setObjectName("finished-height");
    quantity_->setObjectName("quantity");
    quantity_->set_decimals(0);
    origin_->setWordWrap(true);
    rows()->addWidget(name_);
    rows()->addWidget(origin_);
    auto* sizes = new QHBoxLayout;
    sizes->setSpacing(6);
    width_cell_ = captioned(tr("finished width"), width_, this);
    height_cell_ = captioned(tr("height"), height_, this);
    // A width of 1234.56 mm takes more room than a number of parts.
    sizes->addWidget(width_cell_, 4);
    sizes->addWidget(height_cell_, 4);
    sizes->addWidget(captioned(tr("wanted"), quantity_, this), 1);
    glyphs_->setObjectName("glyphs");
    glyphs_->setToolTip(tr("Every glyph of the font, and its switches"));
    rows()->addWidget(form_);
    rows()->addWidget(glyphs_, 0, Qt::AlignLeft);
    connect(glyphs_, &QPushButton::clicked, this, &SourceCard::glyphs_wanted);
    rows()->addLayout(sizes);
    stock_->setObjectName("part-stock");
    stock_->setToolTip(tr("The stock that the part is meant for; sheets keep theirs"));
    stock_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    stock_->setMinimumContentsLength(12);
    rows()->addWidget(captioned(tr("of stock"), stock_, this));
    figures_->setWordWrap(true);
    rows()->addWidget(figures_);
    auto* onwards = new QHBoxLayout;
    onwards->setSpacing(6);
    layer_->setObjectName("add-layer");
    layer_->setToolTip(tr("Parts that lie on this one, each on the one before, with an even border"));
    layers_ = new NumberField(NumberField::Kind::number, 1, 20, layer_row_);
    layers_->set_decimals(0);
    layers_->set(1);
    layers_->setObjectName("how-many-layers");
    layers_->setAccessibleName(tr("How many layers"));
    reveal_ = new NumberField(NumberField::Kind::length, -200, 200, layer_row_);
    reveal_->set(in_mm(Layer{}.reveal));
    reveal_->setObjectName("layers-reveal");
    reveal_->setAccessibleName(tr("Reveal of the layers"));
    reveal_->setToolTip(tr("Border that stays in view; negative: the layers stand out beyond"));
    auto* how_many = new QHBoxLayout(layer_row_);
    how_many->setContentsMargins(0, 0, 0, 0);
    how_many->setSpacing(6);
    how_many->addWidget(captioned(tr("layers"), layers_, layer_row_), 2);
    how_many->addWidget(captioned(tr("reveal"), reveal_, layer_row_), 3);
    how_many->addWidget(layer_, 0, Qt::AlignBottom);
    levels_->setObjectName("part-per-level");
    levels_->setToolTip(tr("Each level or colour becomes a part of its own; all stay live"));
    pieces_->setObjectName("part-per-piece");
    pieces_->setToolTip(tr("Each piece becomes a part of its own; all stay live"));
    apart_->setObjectName("take-apart");
    apart_->setToolTip(tr("Colours, groups, names or pieces become parts of their own"));
    auto* aparts = new QMenu(apart_);
    apart_->setMenu(aparts);
    connect(aparts, &QMenu::aboutToShow, this, &SourceCard::offer_aparts);
    for (QWidget* b : {layer_row_, static_cast<QWidget*>(levels_), static_cast<QWidget*>(pieces_)})
        onwards->addWidget(b);
    onwards->addStretch(1);
    rows()->addLayout(onwards);
    rows()->addWidget(colours_);
    rows()->addWidget(apart_, 0, Qt::AlignLeft);
    connect(layer_, &QPushButton::clicked, this,
            [this] { Q_EMIT layers_wanted(static_cast<int>(layers_->value()), mm(reveal_->value())); });
    connect(levels_, &QPushButton::clicked, this, [this] {
        session_.run(tr("A part for each level"), TakeApart{session_.choice().part, ApartBy::level});
    });
    connect(pieces_, &QPushButton::clicked, this, [this] {
        session_.run(tr("A part for each piece"), TakeApart{session_.choice().part, ApartBy::piece});
    });
    form_->set_fonts([this] { return fonts(); });
    form_->set_parts([this] { return other_parts(session_); });
    connect(form_, &FieldForm::edited, this,
            [this](const QString& key, const QString& name, const std::shared_ptr<Fields>& change) {
                const Part* part = session_.part();
                if (!part) return;
                SourceSpec spec = part->source.spec;
                fields(spec, *change);
                if (auto* lettering = std::get_if<Lettering>(&spec); lettering && key == "kind")
                    fit_font(*lettering, session_.fonts());
                session_.run(name, ChangeSource{part->id, spec}, key + QString::number(part->id.value));
            });
    on_typed(name_, this, [this] {
        const Part* part = session_.part();
        const auto text = name_->text().trimmed().toStdString();
        if (part && text != part->name && !session_.run(tr("Rename part"), RenamePart{part->id, text}))
            refresh();
    });
    connect(width_, &NumberField::committed, this, [this](double wanted) {
        session_.run(tr("Finished size"), SizePart{session_.choice().part, mm(wanted)}, "size");
    });
    connect(height_, &NumberField::committed, this, [this](double wanted) {
        session_.run(tr("Finished size"), SizePart{session_.choice().part, {}, mm(wanted)}, "size");
    });
    connect(stock_, &QComboBox::activated, this, [this] {
        session_.run(tr("Stock of the part"),
                     StockPart{session_.choice().part, stock_->currentData().toString().toStdString()});
    });
    connect(quantity_, &NumberField::committed, this, [this](double n) {
        session_.run(tr("Quantity"), WantPart{session_.choice().part, static_cast<int>(n)}, "quantity");
    });
}

void SourceCard::offer_aparts() {
    apart_->menu()->clear();
    const Part* part = session_.part();
    if (!part) return;
    const QString words[] = {tr("By colour"), tr("By group"), tr("By name"), tr("By piece")};
    for (const ApartBy by : all_aparts) {
        if (by == ApartBy::level) continue; // a picture's
        const QString text = words[static_cast<int>(by)];
        // A menu opens at once: the pieces of what is large are counted when they are asked for.
        const bool counted = by != ApartBy::piece || points_of(*part->source.drawing) <= 10'000;
        const auto count = counted ? bundles(*part->source.drawing, by, part->one_colour).size() : 0;
        const bool possible = !counted || (count > 1 && count <= most_parts_apart);
        auto* action = apart_->menu()->addAction(
            possible && counted ? tr("%1: %n part(s)", nullptr, static_cast<int>(count)).arg(text) : text);
        action->setObjectName(QStringLiteral("apart-by-") + apart_name(by));
        action->setEnabled(possible);
        connect(action, &QAction::triggered, this, [this, by, id = part->id] {
            session_.run(tr("Take apart"), TakeApart{id, by});
        });
    }
}

void SourceCard::refresh() {
    const Part* part = session_.part();
    if (!part) return;
    const LengthUnit unit = session_.project().unit;
    if (!being_typed(name_)) name_->setText(QString::fromStdString(part->name));
    const bool made = is_made(*part);
    width_cell_->setVisible(!made);
    height_cell_->setVisible(!made);
    form_->setVisible(made);
    figures_->setVisible(made);
    const auto* lettering = std::get_if<Lettering>(&part->source.spec);
    colours_->refresh();
    glyphs_->setVisible(lettering && lettering->kind == Lettering::Kind::outlines);
    const auto* picture = std::get_if<Picture>(&part->source.spec);
    levels_->setVisible(picture && picture->levels > 1 && picture->only == 0);
    pieces_->setVisible(picture);
    apart_->setVisible(!made && part->source.drawing->lines.size() > 1);
    layer_row_->setVisible(!picture && !lettering);
    quantity_->set(part->quantity);
    if (stock_->count() == 0) {
        stock_->addItem(tr("none in particular"), QString());
        for (const Stock& stock : session_.catalog().stocks)
            stock_->addItem(present::words(word(stock)), QString::fromStdString(stock.id));
    }
    stock_->setCurrentIndex(stock_->findData(QString::fromStdString(part->stock)));
    reveal_->set(reveal_->value(), unit);
    if (made) return show_made(*part);
    origin_->setText(tr("from %1, %n line(s)", nullptr, static_cast<int>(part->source.drawing->lines.size()))
                         .arg(QString::fromStdString(part->source.file_name)));
    if (const EvaluatedPart* e = session_.evaluated()) {
        width_->set(e->source_box.width(), unit);
        height_->set(e->source_box.height(), unit);
    }
}

void SourceCard::show_made(const Part& part) {
    const LengthUnit unit = session_.project().unit;
    origin_->setText(QCoreApplication::translate("Sources", kind_of(part.source.spec)->name));
    SourceSpec spec = part.source.spec;
    form_->show_fields([&](Fields& f) { fields(spec, f); }, unit);
    QStringList words;
    if (const EvaluatedPart* e = session_.evaluated()) words = figure_words(e->figures, unit);
    if (const auto* card = std::get_if<FoldedCard>(&spec)) {
        QStringList names;
        for (const EnvelopeFit& fit : envelopes_for(session_.catalog(), card->width, card->height))
            names << QString::fromStdString(fit.envelope->name) + (fit.tight ? tr(" (tight)") : QString());
        words << (names.isEmpty() ? tr("no usual envelope fits")
                                  : tr("envelope %1").arg(names.join(tr(" or "))));
        QStringList sizes;
        if (const EvaluatedPart* e = session_.evaluated())
            for (const SheetFit& fit : fits_of(session_.project(), session_.catalog(), *e)) {
                QString turned;
                if (fit.turned.way == FitWay::quarter) turned = tr(" turned");
                if (fit.turned.way == FitWay::angled)
                    turned = tr(" turned by %1 to %2°")
                                 .arg(std::ceil(in_degrees(fit.turned.from)))
                                 .arg(std::floor(in_degrees(fit.turned.to)));
                sizes << size_text(fit.stock->width, fit.stock->height, unit, 0) + turned;
            }
        words << (sizes.isEmpty() ? tr("larger than this machine reaches")
                                  : tr("stock of %1").arg(sizes.join(", ")));
    }
    figures_->setText(words.join(", "));
    figures_->setVisible(!words.isEmpty());
}

QStringList SourceCard::fonts() const {
    const Part* part = session_.part();
    const auto* lettering = part ? std::get_if<Lettering>(&part->source.spec) : nullptr;
    return lettering ? font_names(session_.workshop().fonts(), lettering->kind) : QStringList();
}

} // namespace dotlane::app
