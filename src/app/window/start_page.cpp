#include "app/window/start_page.h"

#include <QCoreApplication>
#include <QFileInfo>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QPainter>

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
    , notice_(new Notice(this))
    , lists_(new QVBoxLayout) {
    auto* outer = new QVBoxLayout(this);
    outer->setContentsMargins(0, 44, 0, 30);
    auto* column = new QWidget(this);
    column->setFixedWidth(850);
    auto* rows = new QVBoxLayout(column);
    rows->setSpacing(14);
    auto* title = label(tr("What are you making?"), TextRole::title, column);
    title->setFont(present::ui_font(22, QFont::DemiBold));
    title->setStyleSheet("font-size: 30px");
    rows->addWidget(title);
    auto* tiles = new QGridLayout;
    tiles->setSpacing(14);
    const QSize size(155, 196);
    std::vector<JobTile*> all;
    for (const SourceKind& kind : source_kinds()) {
        SourceSpec fresh = kind.fresh;
        if (lender_of(fresh)) continue; // there is no other part yet
        auto* tile = new JobTile(
            QString("start-") + kind.key, QCoreApplication::translate("Sources", kind.name),
            QCoreApplication::translate("Sources", kind.about), example_of(kind, workshop), size, column);
        connect(tile, &Card::pressed, this, [this, key = kind.key] { Q_EMIT made(key); });
        all.push_back(tile);
    }
    auto* drawing =
        new JobTile("open-drawing", tr("From a file"),
                    tr("A drawing or a picture: open it, or drop it here."), paint_drawing_job, size, column);
    auto* project = new JobTile("open-project", tr("Go on with a project"),
                                tr("Open a project that was saved."), paint_project_job, size, column);
    auto* demo = new JobTile("open-demo", tr("Look at the demo"), tr("For the Saltmarsh Lantern Walk."),
                             paint_lantern_job, size, column);
    all.insert(all.end(), {drawing, project, demo});
    for (std::size_t i = 0; i < all.size(); ++i)
        tiles->addWidget(all[i], static_cast<int>(i) / 5, static_cast<int>(i) % 5);
    rows->addLayout(tiles);
    lists_->setSpacing(6);
    rows->addWidget(notice_);
    rows->addLayout(lists_);
    rows->addStretch(1);
    outer->addWidget(column, 1, Qt::AlignHCenter);
    connect(drawing, &Card::pressed, this, &StartPage::drawing_wanted);
    connect(project, &Card::pressed, this, &StartPage::project_wanted);
    connect(demo, &Card::pressed, this, &StartPage::demo_wanted);
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
