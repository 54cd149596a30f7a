#include "app/window/start_page.h"

#include <QFileInfo>
#include <QHBoxLayout>
#include <QKeyEvent>
#include <QPainter>

#include "app/widgets/card.h"
#include "app/widgets/notice.h"
#include "present/lane_style.h"

namespace dotlane::app {
namespace {

/// A job as a picture.
class Tile : public Card {
  public:
    enum class Picture { drawing, project, lantern };
    Tile(Picture picture, const QString& title, const QString& text, QWidget* parent)
        : Card(parent)
        , picture_(picture) {
        setFixedSize(236, 214);
        setCursor(Qt::PointingHandCursor);
        setFocusPolicy(Qt::TabFocus);
        setAccessibleName(title);
        rows()->setContentsMargins(18, 122, 16, 14);
        rows()->addWidget(label(title, TextRole::heading, this));
        auto* more = label(text, TextRole::quiet, this);
        more->setWordWrap(true);
        more->setAlignment(Qt::AlignTop);
        rows()->addWidget(more, 1);
    }

  protected:
    void keyPressEvent(QKeyEvent* event) override {
        if (event->key() == Qt::Key_Return || event->key() == Qt::Key_Space)
            Q_EMIT pressed();
        else
            Card::keyPressEvent(event);
    }
    void focusInEvent(QFocusEvent* event) override {
        set_chosen(true);
        Card::focusInEvent(event);
    }
    void focusOutEvent(QFocusEvent* event) override {
        set_chosen(false);
        Card::focusOutEvent(event);
    }
    void paintEvent(QPaintEvent* event) override {
        Card::paintEvent(event);
        const present::Theme& theme = present::Theme::current();
        QPainter painter(this);
        painter.setRenderHint(QPainter::Antialiasing);
        const QRectF area(14, 14, width() - 28, 100);
        painter.setPen(Qt::NoPen);
        painter.setBrush(theme.panel);
        painter.drawRoundedRect(area, 6, 6);
        painter.setBrush(Qt::NoBrush);
        switch (picture_) {
        case Picture::drawing: { // lines of three lanes
            const QColor colours[] = {theme.ink, QColor("#a8462d"), QColor("#5a6996")};
            const Action actions[] = {Action::cut, Action::draw, Action::score};
            for (int i = 0; i < 3; ++i)
                present::paint_sample(
                    painter, {actions[i], present::legible_on(colours[i], theme.panel), 0.5},
                    QRectF(area.left() + 34, area.top() + 18 + 24 * i, area.width() - 68, 16));
            break;
        }
        case Picture::project: { // tracks with stops
            const double y0 = area.top() + 32, y1 = area.top() + 66;
            painter.setPen(QPen(theme.hairline, 4, Qt::SolidLine, Qt::RoundCap));
            painter.drawLine(QPointF(area.left() + 26, y0), QPointF(area.right() - 26, y0));
            painter.drawLine(QPointF(area.left() + 26, y1), QPointF(area.right() - 26, y1));
            painter.setPen(Qt::NoPen);
            painter.setBrush(QColor("#a8832d"));
            painter.drawRoundedRect(QRectF(area.left() + 44, y0 - 8, 56, 16), 8, 8);
            painter.setBrush(theme.tide);
            painter.drawRoundedRect(QRectF(area.left() + 118, y1 - 8, 48, 16), 8, 8);
            painter.setPen(QPen(theme.ink, 2.6));
            painter.setBrush(theme.card);
            painter.drawEllipse(QPointF(area.left() + 38, y0), 6, 6);
            painter.drawEllipse(QPointF(area.left() + 109, y1), 6, 6);
            break;
        }
        case Picture::lantern: {
            const QPointF c = area.center();
            painter.setPen(QPen(theme.ink, 2));
            painter.setBrush(QColor("#f2d9a4"));
            painter.drawRoundedRect(QRectF(c.x() - 22, c.y() - 26, 44, 58), 6, 6);
            for (const double x : {-11.0, 0.0, 11.0})
                painter.drawLine(QPointF(c.x() + x, c.y() - 26), QPointF(c.x() + x, c.y() + 32));
            painter.setBrush(Qt::NoBrush);
            painter.drawArc(QRectF(c.x() - 14, c.y() - 44, 28, 34), 0, 180 * 16);
            break;
        }
        }
    }

  private:
    Picture picture_;
};

void clear(QLayout* layout) {
    while (QLayoutItem* item = layout->takeAt(0)) {
        if (item->widget()) item->widget()->deleteLater();
        if (item->layout()) clear(item->layout());
        delete item;
    }
}

} // namespace

StartPage::StartPage(QWidget* parent)
    : QWidget(parent)
    , notice_(new Notice(this))
    , lists_(new QVBoxLayout) {
    auto* outer = new QVBoxLayout(this);
    outer->setContentsMargins(0, 60, 0, 40);
    auto* column = new QWidget(this);
    column->setFixedWidth(760);
    auto* rows = new QVBoxLayout(column);
    rows->setSpacing(16);
    auto* title = label(tr("What are you making?"), TextRole::title, column);
    title->setFont(present::ui_font(22, QFont::DemiBold));
    title->setStyleSheet("font-size: 30px");
    rows->addWidget(title);
    auto* tiles = new QHBoxLayout;
    tiles->setSpacing(18);
    auto* drawing = new Tile(Tile::Picture::drawing, tr("From a drawing"),
                             tr("Open an SVG file, or drop one anywhere here."), column);
    auto* project = new Tile(Tile::Picture::project, tr("Go on with a project"),
                             tr("Open a project that was saved."), column);
    auto* demo = new Tile(Tile::Picture::lantern, tr("Look at the demo"),
                          tr("The invitation to the Saltmarsh Lantern Walk."), column);
    drawing->setObjectName("open-drawing");
    project->setObjectName("open-project");
    demo->setObjectName("open-demo");
    tiles->addWidget(drawing);
    tiles->addWidget(project);
    tiles->addWidget(demo);
    tiles->addStretch(1);
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
        auto* text = label(tr("\"%1\" was not saved when the program ended (copy of %2).")
                               .arg(copy.name, QString(copy.saved_at).replace('T', ' ')),
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
