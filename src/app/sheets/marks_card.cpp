#include "app/sheets/marks_card.h"

#include <QGridLayout>

#include "app/widgets/side_panel.h"
#include "core/commands/sheets.h"
#include "core/derive/correction.h"
#include "present/words.h"

namespace dotlane::app {

MarksCard::MarksCard(Session& session, QWidget* parent)
    : Card(parent)
    , session_(session)
    , said_(label({}, TextRole::quiet, this))
    , forget_(link_button(tr("As printed"), this)) {
    rows()->addWidget(label(tr("Marks of the print"), TextRole::heading, this));
    auto* hint =
        label(tr("Where the tool meets the middle of each cross, on the mat"), TextRole::quiet, this);
    hint->setWordWrap(true);
    rows()->addWidget(hint);
    auto* grid = new QGridLayout;
    grid->setHorizontalSpacing(6);
    grid->setVerticalSpacing(4);
    const QString names[] = {tr("first"), tr("second"), tr("third")};
    for (int i = 0; i < 3; ++i) {
        grid->addWidget(label(names[i], TextRole::quiet, this), i, 0);
        for (int k = 0; k < 2; ++k) {
            auto* field = new NumberField(NumberField::Kind::length, -5000, 5000, this);
            at_[i][k] = field;
            field->setObjectName(QStringLiteral("mark-%1-%2").arg(i + 1).arg(k == 0 ? "x" : "y"));
            field->setAccessibleName(k == 0 ? tr("%1 mark, from the left").arg(names[i])
                                            : tr("%1 mark, from the top").arg(names[i]));
            grid->addWidget(field, i, k + 1);
            connect(field, &NumberField::committed, this, &MarksCard::commit);
        }
    }
    grid->setColumnStretch(3, 1);
    rows()->addLayout(grid);
    said_->setWordWrap(true);
    said_->setObjectName("marks-said");
    rows()->addWidget(said_);
    forget_->setObjectName("forget-marks");
    rows()->addWidget(forget_, 0, Qt::AlignLeft);
    connect(forget_, &QPushButton::clicked, this, [this] {
        ChangeSheet change{session_.choice().sheet};
        change.found.emplace();
        session_.run(tr("Marks as printed"), change);
    });
}

std::vector<Point> MarksCard::printed() const {
    const auto derived = session_.derived();
    if (!derived || !derived->plan) return {};
    for (const PrintSheet& print : derived->plan->program.prints)
        if (print.sheet.sheet == session_.choice().sheet) return mark_places(print);
    return {};
}

void MarksCard::refresh() {
    const Sheet* sheet = session_.sheet();
    const std::vector<Point> marks = sheet ? printed() : std::vector<Point>();
    const bool shown = sheet && (marks.size() >= 3 || !sheet->found.empty());
    setVisible(shown);
    if (!shown) return;
    filling_ = true;
    std::vector<Point> at = marks;
    if (!sheet->found.empty()) at.assign(sheet->found.begin() + 3, sheet->found.end());
    for (std::size_t i = 0; i < 3 && i < at.size(); ++i) {
        at_[i][0]->set(at[i].x, session_.project().unit);
        at_[i][1]->set(at[i].y, session_.project().unit);
    }
    filling_ = false;
    forget_->setVisible(!sheet->found.empty());
    QString said = tr("As printed: the cut follows the mat.");
    for (const Finding& f : session_.derived()->findings)
        if (f.place.sheet == sheet->id && f.code.starts_with("print.") &&
            (f.code == "print.corrected" || f.code == "print.marks"))
            said = present::words(f.message);
    said_->setText(said);
}

void MarksCard::commit() {
    if (filling_ || !session_.sheet()) return;
    ChangeSheet change{session_.choice().sheet};
    change.found = printed();
    if (change.found->size() < 3) return; // the print is gone: they can only be forgotten
    change.found->resize(3);
    for (const auto& at : at_)
        change.found->push_back({at[0]->value(), at[1]->value()});
    if (*change.found != session_.sheet()->found) session_.run(tr("Marks found"), change, "marks");
}

} // namespace dotlane::app
