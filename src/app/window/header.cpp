#include "app/window/header.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>

#include "app/widgets/card.h"
#include "present/theme.h"

namespace dotlane::app {

FindingsPill::FindingsPill(QWidget* parent)
    : QWidget(parent) {
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::TabFocus);
    setSizePolicy(QSizePolicy::Fixed, QSizePolicy::Fixed);
}

QSize FindingsPill::sizeHint() const {
    return {errors_ > 0 ? 150 : 118, 30};
}

void FindingsPill::set_counts(int errors, int cautions, int hints) {
    errors_ = errors, cautions_ = cautions, hints_ = hints;
    setAccessibleName(tr("Findings: %1 errors, %2 cautions, %3 hints").arg(errors).arg(cautions).arg(hints));
    setToolTip(tr("%1 errors, %2 cautions, %3 hints").arg(errors).arg(cautions).arg(hints));
    updateGeometry();
    update();
}

void FindingsPill::paintEvent(QPaintEvent*) {
    const present::Theme& theme = present::Theme::current();
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(hasFocus() ? theme.lamp : theme.hairline, 1));
    painter.setBrush(theme.card);
    painter.drawRoundedRect(QRectF(rect()).adjusted(0.5, 0.5, -0.5, -0.5), height() / 2.0, height() / 2.0);
    painter.setFont(present::ui_font(10));
    const QFontMetricsF metrics(painter.font());
    double x = 16;
    const auto word = [&](const QString& text, QColor colour) {
        painter.setPen(colour);
        painter.drawText(QRectF(x, 0, width() - x, height()), Qt::AlignLeft | Qt::AlignVCenter, text);
        x += metrics.horizontalAdvance(text) + 12;
    };
    const double y = height() / 2.0;
    if (errors_ > 0) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(theme.error);
        painter.drawRoundedRect(QRectF(x, y - 4.5, 9, 9), 1.5, 1.5);
        x += 14;
        word(QString::number(errors_), theme.ink);
    }
    if (cautions_ + hints_ == 0 && errors_ == 0) return word(tr("No findings"), theme.quiet);
    if (cautions_ > 0) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(theme.lamp);
        painter.drawPolygon(
            QPolygonF{QPointF(x + 5, y - 5.5), QPointF(x + 10.5, y + 4.5), QPointF(x - 0.5, y + 4.5)});
    } else {
        painter.setBrush(Qt::NoBrush);
        painter.setPen(QPen(theme.hint, 1.8));
        painter.drawEllipse(QPointF(x + 5, y), 4.2, 4.2);
    }
    x += 16;
    word(tr("%n finding(s)", nullptr, cautions_ + hints_), theme.ink);
}

void FindingsPill::mousePressEvent(QMouseEvent*) {
    Q_EMIT pressed();
}

void FindingsPill::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Space || event->key() == Qt::Key_Return)
        Q_EMIT pressed();
    else
        QWidget::keyPressEvent(event);
}

Header::Header(Session& session, QWidget* parent)
    : QWidget(parent)
    , session_(session)
    , title_(label({}, TextRole::title, this))
    , of_(label({}, TextRole::quiet, this))
    , stations_(new StationBar({tr("Part"), tr("Sheets"), tr("Rehearsal")}, this))
    , findings_(new FindingsPill(this))
    , export_(pill(tr("Export..."), this, true)) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(16, 2, 12, 2);
    row->setSpacing(12);
    title_->setMaximumWidth(300);
    row->addWidget(title_);
    row->addWidget(of_);
    row->addStretch(1);
    row->addWidget(stations_);
    row->addStretch(1);
    row->addWidget(findings_);
    row->addWidget(export_);
    export_->setObjectName("export");
    findings_->setObjectName("findings");
    connect(findings_, &FindingsPill::pressed, this, &Header::findings_wanted);
    connect(export_, &QPushButton::clicked, this, &Header::export_wanted);
    connect(&session_, &Session::projectChanged, this, [this](const Changes& what) {
        if (what.name || what.part(session_.choice().part)) show_state();
    });
    connect(&session_, &Session::derivedChanged, this, &Header::show_state);
    connect(&session_, &Session::choiceChanged, this, &Header::show_state);
}

void Header::show_state() {
    const auto& parts = session_.project().parts;
    const Part* part = session_.part();
    const QString name =
        part ? QString::fromStdString(part->name) : QString::fromStdString(session_.project().name);
    title_->setText(QFontMetrics(title_->font()).elidedText(name, Qt::ElideRight, 290));
    title_->setToolTip(name);
    std::size_t index = 0;
    while (part && index < parts.size() && parts[index].id != part->id)
        ++index;
    of_->setText(part ? tr("%1 of %n part(s)", nullptr, static_cast<int>(parts.size())).arg(index + 1)
                      : tr("no part yet"));
    const auto derived = session_.derived();
    const Findings none;
    const Findings& all = derived ? derived->findings : none;
    findings_->set_counts(count(all, Grade::error), count(all, Grade::caution), count(all, Grade::hint));
    export_->setEnabled(derived && (derived->plan || count(all, Grade::error) > 0));
}

} // namespace dotlane::app
