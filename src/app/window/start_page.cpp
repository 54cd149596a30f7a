#include "app/window/start_page.h"

#include <QCoreApplication>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLineEdit>
#include <QPainter>
#include <QScrollArea>

#include "app/jobs/job_tile.h"
#include "app/widgets/notice.h"
#include "present/theme.h"

namespace dotlane::app {
namespace {

/// Tracks with stops.
void paint_project_job(QPainter& painter, const QRectF& area) {
    const present::Theme& theme = present::Theme::current();
    const double y0 = area.top() + area.height() * 0.28, y1 = area.top() + area.height() * 0.72;
    painter.setPen(QPen(theme.hairline, 4, Qt::SolidLine, Qt::RoundCap));
    painter.drawLine(QPointF(area.left() + 6, y0), QPointF(area.right() - 6, y0));
    painter.drawLine(QPointF(area.left() + 6, y1), QPointF(area.right() - 6, y1));
    painter.setPen(Qt::NoPen);
    painter.setBrush(QColor("#a8832d"));
    painter.drawRoundedRect(QRectF(area.left() + 22, y0 - 7, 42, 14), 7, 7);
    painter.setBrush(theme.tide);
    painter.drawRoundedRect(QRectF(area.left() + 72, y1 - 7, 34, 14), 7, 7);
    painter.setPen(QPen(theme.ink, 2.4));
    painter.setBrush(theme.card);
    painter.drawEllipse(QPointF(area.left() + 16, y0), 5.5, 5.5);
    painter.drawEllipse(QPointF(area.left() + 65, y1), 5.5, 5.5);
}

void paint_lantern_job(QPainter& painter, const QRectF& area) {
    const QPointF c = area.center() + QPointF(0, 4);
    const double k = area.height() / 84;
    painter.setPen(QPen(present::Theme::current().ink, 1.8));
    painter.setBrush(QColor("#f2d9a4"));
    painter.drawRoundedRect(QRectF(c.x() - 22 * k, c.y() - 26 * k, 44 * k, 58 * k), 6 * k, 6 * k);
    for (const double x : {-11.0, 0.0, 11.0})
        painter.drawLine(QPointF(c.x() + x * k, c.y() - 26 * k), QPointF(c.x() + x * k, c.y() + 32 * k));
    painter.setBrush(Qt::NoBrush);
    painter.drawArc(QRectF(c.x() - 14 * k, c.y() - 44 * k, 28 * k, 34 * k), 0, 180 * 16);
}

/// Swatches with lines, dots and cells.
void paint_samples_job(QPainter& painter, const QRectF& area) {
    const present::Theme& theme = present::Theme::current();
    const double side = area.height() * 0.42, gap = area.height() * 0.08;
    const QPointF corner(area.center().x() - side - gap / 2, area.center().y() - side - gap / 2);
    for (int k = 0; k < 4; ++k) {
        const QRectF box(corner.x() + (k % 2) * (side + gap), corner.y() + (k / 2) * (side + gap), side,
                         side);
        painter.save();
        painter.setClipRect(box);
        painter.setPen(QPen(k % 2 == 0 ? theme.ink : theme.tide, 1.3));
        for (double t = 3; t < 2 * side; t += 5.5) {
            if (k == 0) painter.drawLine(box.topLeft() + QPointF(t, 0), box.topLeft() + QPointF(0, t));
            if (k == 1 && t < side) painter.drawEllipse(box.center(), t / 2, t / 2);
            if (k == 2 && t < side) {
                painter.drawLine(box.topLeft() + QPointF(t, 0), box.bottomLeft() + QPointF(t, 0));
                painter.drawLine(box.topLeft() + QPointF(0, t), box.topRight() + QPointF(0, t));
            }
            for (double u = 3; k == 3 && u < side; u += 5.5)
                painter.drawPoint(box.topLeft() + QPointF(t, u));
        }
        painter.restore();
        painter.setPen(QPen(theme.hairline, 1));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(box);
    }
}

void clear(QLayout* layout) {
    while (QLayoutItem* item = layout->takeAt(0)) {
        if (item->widget()) item->widget()->deleteLater();
        if (item->layout()) clear(item->layout());
        delete item;
    }
}

} // namespace

StartPage::StartPage(Workshop& workshop, QWidget* parent)
    : QWidget(parent)
    , typed_(new QLineEdit(this))
    , tiles_(new QGridLayout)
    , notice_(new Notice(this))
    , lists_(new QVBoxLayout) {
    // As many jobs as there come to be scroll, rather than make the window larger than the screen.
    auto* scroll = new QScrollArea(this);
    scroll->setWidgetResizable(true);
    scroll->setFrameShape(QFrame::NoFrame);
    scroll->setFocusPolicy(Qt::NoFocus);
    auto* page = new QWidget;
    scroll->setWidget(page);
    auto* whole = new QVBoxLayout(this);
    whole->setContentsMargins(0, 0, 0, 0);
    whole->addWidget(scroll);
    auto* outer = new QVBoxLayout(page);
    outer->setContentsMargins(0, 34, 0, 24);
    auto* column = new QWidget(page);
    column->setFixedWidth(1020);
    auto* rows = new QVBoxLayout(column);
    rows->setSpacing(14);
    auto* title = label(tr("What are you making?"), TextRole::title, column);
    title->setFont(present::ui_font(22, QFont::DemiBold));
    title->setStyleSheet("font-size: 30px");
    typed_->setObjectName("start-typed");
    typed_->setPlaceholderText(tr("Type to narrow; arrows and Enter choose"));
    typed_->setAccessibleName(tr("What are you making? Type to narrow"));
    typed_->setClearButtonEnabled(true);
    typed_->setFixedWidth(310);
    typed_->installEventFilter(this);
    connect(typed_, &QLineEdit::textChanged, this, &StartPage::narrow);
    auto* top = new QHBoxLayout;
    top->addWidget(title, 1);
    top->addWidget(typed_, 0, Qt::AlignBottom);
    rows->addLayout(top);
    add_jobs(workshop, column);
    tiles_->setHorizontalSpacing(14);
    tiles_->setVerticalSpacing(4);
    rows->addLayout(tiles_);
    lists_->setSpacing(6);
    rows->addWidget(notice_);
    rows->addLayout(lists_);
    rows->addStretch(1);
    outer->addWidget(column, 1, Qt::AlignHCenter);
    narrow();
}

void StartPage::add_jobs(Workshop& workshop, QWidget* column) {
    const QSize size(155, 178);
    std::map<SourceRow::Wanted, std::vector<const SourceKind*>> groups;
    for (const SourceKind& kind : source_kinds()) {
        SourceSpec fresh = kind.fresh;
        if (!lender_of(fresh)) groups[kind.wanted].push_back(&kind); // there is no other part yet
    }
    for (const auto& [wanted, kinds] : groups)
        for (const SourceKind* kind : kinds) {
            const QString name = QCoreApplication::translate("Sources", kind->name),
                          about = QCoreApplication::translate("Sources", kind->about);
            auto* tile = new JobTile(QString("start-") + kind->key, name, about, example_of(*kind, workshop),
                                     size, column);
            connect(tile, &Card::pressed, this, [this, key = kind->key] { Q_EMIT made(key); });
            add_job(tile, QCoreApplication::translate("Sources", title(wanted)), name + ' ' + about);
        }
    for (const StepKind& kind : step_kinds()) {
        if (!kind.begins) continue;
        const QString name = QCoreApplication::translate("Steps", kind.name),
                      about = QCoreApplication::translate("Steps", kind.about);
        auto* tile =
            new JobTile(QString("start-") + kind.key, name, about, example_of(kind, workshop), size, column);
        connect(tile, &Card::pressed, this, [this, key = kind.key] { Q_EMIT made(key); });
        add_job(tile, QCoreApplication::translate("Steps", title(kind.wanted)), name + ' ' + about);
    }
    const auto add_other = [&](const char* id, const QString& group, const QString& name,
                               const QString& about, JobTile::Painting painting, auto wanted) {
        auto* tile = new JobTile(id, name, about, std::move(painting), size, column);
        connect(tile, &Card::pressed, this, wanted);
        add_job(tile, group, name + ' ' + about);
    };
    add_other("open-drawing", QCoreApplication::translate("Sources", title(SourceRow::Wanted::files)),
              tr("From a file"), tr("A drawing or a picture: open it, or drop it here."), paint_drawing_job,
              &StartPage::drawing_wanted);
    add_other("samples", tr("Samples"), tr("Fill samples"),
              tr("All styles of fill on one sheet, to draw and to keep."), paint_samples_job,
              &StartPage::samples_wanted);
    add_other("open-project", tr("Projects"), tr("Go on with a project"),
              tr("Open a project that was saved."), paint_project_job, &StartPage::project_wanted);
    add_other("open-demo", tr("Projects"), tr("Look at the demo"), tr("For the Saltmarsh Lantern Walk."),
              paint_lantern_job, &StartPage::demo_wanted);
}

void StartPage::add_job(JobTile* tile, const QString& group, const QString& words) {
    auto* caption = label(group, TextRole::quiet, tile->parentWidget());
    caption->setContentsMargins(2, 6, 0, 0);
    jobs_.push_back({tile, caption, group, words});
}

void StartPage::narrow() {
    const QStringList words = typed_->text().split(' ', Qt::SkipEmptyParts);
    for (const Job& job : jobs_) {
        tiles_->removeWidget(job.tile);
        tiles_->removeWidget(job.caption);
        job.tile->hide();
        job.caption->hide();
    }
    shown_.clear();
    QString group;
    for (const Job& job : jobs_) {
        const QString all = job.words + ' ' + job.group;
        if (!std::all_of(words.begin(), words.end(),
                         [&](const QString& word) { return all.contains(word, Qt::CaseInsensitive); }))
            continue;
        const int at = static_cast<int>(shown_.size()), row = at / columns * 2, column = at % columns;
        tiles_->addWidget(job.caption, row, column, Qt::AlignLeft);
        tiles_->addWidget(job.tile, row + 1, column, Qt::AlignLeft | Qt::AlignTop);
        // Over the first of a group, and over the first of a row that a group goes on in.
        job.caption->setText(group == job.group && column > 0 ? QString() : job.group);
        job.caption->show();
        job.tile->show();
        group = job.group;
        shown_.push_back(job.tile);
    }
    tiles_->setColumnStretch(columns, 1);
    // What is called so comes before what is only told with the words.
    const auto called = std::find_if(shown_.begin(), shown_.end(), [&](const JobTile* tile) {
        return !words.isEmpty() && tile->accessibleName().startsWith(words.join(' '), Qt::CaseInsensitive);
    });
    light(called == shown_.end() ? 0 : static_cast<int>(called - shown_.begin()));
}

void StartPage::light(int at) {
    lit_ = at;
    for (std::size_t i = 0; i < shown_.size(); ++i)
        shown_[i]->set_chosen(static_cast<int>(i) == lit_);
}

bool StartPage::eventFilter(QObject* object, QEvent* event) {
    if (object == typed_ && event->type() == QEvent::FocusOut) light(-1); // the tile with the keyboard is lit
    if (object == typed_ && event->type() == QEvent::FocusIn) light(0);
    if (object != typed_ || event->type() != QEvent::KeyPress || shown_.empty())
        return QWidget::eventFilter(object, event);
    const auto go = [&](int by) {
        light(std::clamp(std::max(lit_, 0) + by, 0, static_cast<int>(shown_.size()) - 1));
        return true;
    };
    switch (static_cast<QKeyEvent*>(event)->key()) {
    case Qt::Key_Return:
    case Qt::Key_Enter:
        Q_EMIT shown_[static_cast<std::size_t>(std::max(lit_, 0))]->pressed();
        return true;
    case Qt::Key_Left:
        return typed_->text().isEmpty() && go(-1);
    case Qt::Key_Right:
        return typed_->text().isEmpty() && go(1);
    case Qt::Key_Up:
        return go(-columns);
    case Qt::Key_Down:
        return go(columns);
    default:
        return false;
    }
}

void StartPage::showEvent(QShowEvent* event) {
    QWidget::showEvent(event);
    typed_->clear();
    typed_->setFocus();
}

void StartPage::show_error(const QString& text) {
    notice_->tell(Notice::Kind::error, text);
}

void StartPage::show_lists(const QStringList& recent, const std::vector<LeftBehind>& left_behind) {
    clear(lists_);
    for (const LeftBehind& copy : left_behind) {
        auto* card = new Card(this);
        card->set_chosen(true);
        auto* row = new QHBoxLayout;
        auto* text =
            label(tr("\"%1\" was not saved when the program ended (copy of %2).").arg(copy.name, copy.when()),
                  TextRole::body, card);
        text->setWordWrap(true);
        auto* restore = pill(tr("Restore it"), card);
        restore->setObjectName("restore");
        auto* refuse = pill(tr("Throw it away"), card);
        refuse->setObjectName("refuse");
        row->addWidget(text, 1);
        row->addWidget(restore);
        row->addWidget(refuse);
        card->rows()->addLayout(row);
        lists_->addWidget(card);
        connect(restore, &QPushButton::clicked, this, [this, copy] { Q_EMIT recovery_wanted(copy); });
        connect(refuse, &QPushButton::clicked, this, [this, copy] { Q_EMIT recovery_refused(copy); });
    }
    if (recent.isEmpty()) return;
    lists_->addWidget(label(tr("Recent projects"), TextRole::heading, this));
    for (const QString& path : recent) {
        const QFileInfo info(path);
        auto* button = link_button(info.completeBaseName() + "   " + info.absolutePath(), this);
        button->setObjectName("recent");
        button->setAccessibleName(tr("Open %1").arg(path));
        lists_->addWidget(button, 0, Qt::AlignLeft);
        connect(button, &QPushButton::clicked, this, [this, path] { Q_EMIT recent_wanted(path); });
    }
}

} // namespace dotlane::app
