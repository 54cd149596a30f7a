#include "app/recipe/finding_card.h"

#include <QHBoxLayout>
#include <QPainter>

#include "present/theme.h"
#include "present/words.h"

namespace dotlane::app {

FindingCard::FindingCard(Session& session, const Finding& finding, QWidget* parent)
    : FindingCard(
          finding,
          [&session](const Finding& one) {
              const auto derived = session.derived();
              if (!derived) return;
              session.change(present::remedy_words(one),
                             [derived, one, &catalog = session.catalog()](Project& p) {
                                 return apply_remedy(p, catalog, *derived, one);
                             });
          },
          parent) {}

FindingCard::FindingCard(const Finding& finding, const Mend& mend, QWidget* parent)
    : Card(parent)
    , finding_(finding) {
    set_wrong(finding.grade == Grade::error);
    rows()->setContentsMargins(30, 9, 10, 9);
    auto* text =
        label(present::words(finding), finding.grade == Grade::hint ? TextRole::quiet : TextRole::body, this);
    text->setWordWrap(true);
    rows()->addWidget(text);
    setAccessibleName(text->text());
    if (finding.place.box.valid()) {
        setCursor(Qt::PointingHandCursor);
        setToolTip(tr("Press to see the place"));
    }
    if (finding.remedy.code.empty()) return;
    auto* buttons = new QHBoxLayout;
    buttons->setSpacing(6);
    add_remedy(mend, finding.remedy, "remedy", *buttons);
    for (std::size_t i = 0; i < finding.more.size(); ++i)
        add_remedy(mend, finding.more[i], QStringLiteral("remedy-%1").arg(i + 2), *buttons);
    buttons->addStretch(1);
    rows()->addLayout(buttons);
}

void FindingCard::add_remedy(const Mend& mend, const Remedy& remedy, const QString& name, QHBoxLayout& row) {
    Finding one = finding_;
    one.remedy = remedy;
    auto* button = pill(present::remedy_words(one), this);
    button->setObjectName(name);
    row.addWidget(button);
    connect(button, &QPushButton::clicked, this, [mend, one] { mend(one); });
}

void FindingCard::paintEvent(QPaintEvent* event) {
    Card::paintEvent(event);
    const present::Theme& theme = present::Theme::current();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(Qt::NoPen);
    // Told apart by shape as well as colour: square, triangle, ring.
    const QPointF c(17, 18);
    switch (finding_.grade) {
    case Grade::error:
        painter.setBrush(theme.error);
        painter.drawRoundedRect(QRectF(c - QPointF(5, 5), c + QPointF(5, 5)), 1.5, 1.5);
        break;
    case Grade::caution:
        painter.setBrush(theme.lamp);
        painter.drawPolygon(QPolygonF{c + QPointF(0, -6), c + QPointF(6, 5), c + QPointF(-6, 5)});
        break;
    case Grade::hint:
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(theme.hint, 1.8));
        painter.drawEllipse(c, 4.2, 4.2);
        break;
    }
}

} // namespace dotlane::app
