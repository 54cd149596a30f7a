#include "app/recipe/source_card.h"

#include <QHBoxLayout>

#include "app/widgets/side_panel.h"
#include "core/project/edits.h"

namespace dotlane::app {

SourceCard::SourceCard(Session& session, QWidget* parent)
    : Card(parent)
    , session_(session)
    , name_(new QLineEdit(this))
    , origin_(label({}, TextRole::quiet, this))
    , width_(new NumberField(NumberField::Kind::length, 0.1, 1e5, this))
    , height_(new NumberField(NumberField::Kind::length, 0.1, 1e5, this))
    , quantity_(new NumberField(NumberField::Kind::number, 1, 9999, this)) {
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
    sizes->addWidget(captioned(tr("finished width"), width_, this));
    sizes->addWidget(captioned(tr("height"), height_, this));
    sizes->addWidget(captioned(tr("wanted"), quantity_, this));
    rows()->addLayout(sizes);
    connect(name_, &QLineEdit::editingFinished, this, [this] {
        const Part* part = session_.part();
        const auto text = name_->text().trimmed().toStdString();
        if (part && text != part->name &&
            !session_.change(tr("Rename part"),
                             [id = part->id, text](Project& p) { return rename_part(p, id, text); }))
            refresh();
    });
    connect(width_, &NumberField::committed, this, [this](double mm_wanted) {
        if (const EvaluatedPart* e = session_.evaluated()) scale_to(mm_wanted, e->source_box.width());
    });
    connect(height_, &NumberField::committed, this, [this](double mm_wanted) {
        if (const EvaluatedPart* e = session_.evaluated()) scale_to(mm_wanted, e->source_box.height());
    });
    connect(quantity_, &NumberField::committed, this, [this](double n) {
        session_.change(
            tr("Quantity"),
            [id = session_.choice().part, n](Project& p) { return set_quantity(p, id, static_cast<int>(n)); },
            "quantity");
    });
}

void SourceCard::scale_to(double mm_wanted, double mm_now) {
    const Part* part = session_.part();
    const EvaluatedPart* e = session_.evaluated();
    // What is derived may lag behind by one version; its own scale tells how large the source is.
    if (!part || !e || mm_now < 1e-9) return;
    const Part* measured = dotlane::find(*session_.derived()->project, part->id);
    const double factor = measured->scale * mm_wanted / mm_now;
    session_.change(
        tr("Finished size"), [id = part->id, factor](Project& p) { return scale_part(p, id, factor); },
        "size");
}

void SourceCard::refresh() {
    const Part* part = session_.part();
    if (!part) return;
    const LengthUnit unit = session_.project().unit;
    if (!name_->hasFocus()) name_->setText(QString::fromStdString(part->name));
    origin_->setText(tr("from %1, %n line(s)", nullptr, static_cast<int>(part->source.drawing->lines.size()))
                         .arg(QString::fromStdString(part->source.file_name)));
    quantity_->set(part->quantity);
    if (const EvaluatedPart* e = session_.evaluated()) {
        width_->set(e->source_box.width(), unit);
        height_->set(e->source_box.height(), unit);
    }
}

} // namespace dotlane::app
