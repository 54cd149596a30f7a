#include "app/jobs/job_tile.h"

#include <QKeyEvent>
#include <QPainter>

#include "core/commands/making.h"
#include "core/derive/lending.h"
#include "core/recipe/evaluate.h"
#include "core/sources/make.h"
#include "core/sources/parts.h"
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

JobTile::Painting example_of(const StepKind& kind, Workshop& workshop) {
    auto drawing = std::make_shared<std::shared_ptr<const Drawing>>();
    return [&kind, drawing, &workshop](QPainter& painter, const QRectF& area) {
        if (!*drawing) {
            *drawing = std::make_shared<const Drawing>();
            Lettering word;
            word.text = "BO", word.font = "League Spartan", word.size = mm(45);
            Project project;
            const auto source = make_lines(word, workshop.fonts());
            const auto made =
                apply(MakePart{word, {}, {}, {kind.fresh}}, project, workshop.catalog(), workshop.fonts());
            if (source && made) {
                const EvaluatedPart part =
                    evaluate(*dotlane::find(project, made->part), {*source, {}, {}, true});
                Drawing lines;
                for (const RunSet& run : part.runs)
                    lines.lines.push_back({{},
                                           {},
                                           role::outline,
                                           sources::shape_of(region_of(run.lines, FillRule::evenodd)),
                                           {}});
                *drawing = std::make_shared<const Drawing>(std::move(lines));
            }
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
