#include "app/jobs/job_tile.h"

#include <QKeyEvent>
#include <QPainter>

#include "core/derive/lending.h"
#include "core/sources/make.h"
#include "present/lane_style.h"
#include "present/source_picture.h"

namespace dotlane::app {

JobTile::JobTile(const QString& name, const QString& title, const QString& about, Painting painting,
                 QSize size, QWidget* parent)
    : Card(parent)
    , painting_(std::move(painting))
    , picture_height_(about.isEmpty() ? size.height() - 44 : size.height() - 100) {
    setObjectName(name);
    setFixedSize(size);
    setCursor(Qt::PointingHandCursor);
    setFocusPolicy(Qt::TabFocus);
    setAccessibleName(title);
    rows()->setContentsMargins(12, picture_height_ + 18, 10, 8);
    rows()->setSpacing(2);
    auto* heading = label(title, TextRole::heading, this);
    heading->setWordWrap(true);
    heading->setAlignment(Qt::AlignTop | (about.isEmpty() ? Qt::AlignHCenter : Qt::AlignLeft));
    rows()->addWidget(heading, about.isEmpty() ? 1 : 0);
    if (about.isEmpty()) return;
    auto* more = label(about, TextRole::quiet, this);
    more->setWordWrap(true);
    more->setAlignment(Qt::AlignTop);
    rows()->addWidget(more, 1);
}

void JobTile::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Space)
        Q_EMIT pressed();
    else
        Card::keyPressEvent(event);
}

void JobTile::focusInEvent(QFocusEvent* event) {
    set_chosen(true);
    Card::focusInEvent(event);
}

void JobTile::focusOutEvent(QFocusEvent* event) {
    set_chosen(false);
    Card::focusOutEvent(event);
}

void JobTile::paintEvent(QPaintEvent* event) {
    Card::paintEvent(event);
    QPainter painter(this);
    painter.setRenderHint(QPainter::Antialiasing);
    const QRectF area(10, 10, width() - 20, picture_height_);
    painter.setPen(Qt::NoPen);
    painter.setBrush(present::Theme::current().panel);
    painter.drawRoundedRect(area, 6, 6);
    painter.setBrush(Qt::NoBrush);
    painting_(painter, area.adjusted(10, 8, -10, -8));
}

JobTile::Painting example_of(const SourceKind& kind, Workshop& workshop) {
    const SourceSpec spec = sample_of(kind);
    // Computed when it is first painted: a window that opens a project at once never needs it.
    auto drawing = std::make_shared<std::shared_ptr<const Drawing>>();
    return [spec, drawing, &workshop](QPainter& painter, const QRectF& area) {
        if (!*drawing) {
            Label lender; // for those that take another part's outline
            lender.width = mm(60), lender.height = mm(44);
            const auto outline = make_lines(lender, workshop.fonts());
            const Borrowed borrowed = outline ? lend(*outline, 1) : Borrowed{};
            const auto made = make_lines(spec, workshop.fonts(), &borrowed);
            *drawing = made ? made->drawing : std::make_shared<const Drawing>();
        }
        present::paint_source(painter, **drawing, area);
    };
}

void paint_drawing_job(QPainter& painter, const QRectF& area) {
    const QColor colours[] = {present::Theme::current().ink, QColor("#a8462d"), QColor("#5a6996")};
    const Action actions[] = {Action::cut, Action::draw, Action::score};
    const double step = area.height() / 3;
    for (int i = 0; i < 3; ++i)
        present::paint_sample(
            painter, {actions[i], present::legible_on(colours[i], present::Theme::current().panel), 0.5},
            QRectF(area.left() + 8, area.top() + step * i + step / 2 - 8, area.width() - 16, 16));
}

} // namespace dotlane::app
