#include "app/widgets/picker.h"

#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QPainter>
#include <QStyledItemDelegate>
#include <QVBoxLayout>

#include "app/widgets/card.h"
#include "present/theme.h"

namespace dotlane::app {
namespace {

constexpr int key_role = Qt::UserRole, about_role = Qt::UserRole + 1, picture_role = Qt::UserRole + 2;
constexpr int row_height = 60, group_height = 32, picture_width = 68, edge = 8;

bool is_group(const QListWidgetItem* item) {
    return item->data(key_role).isNull();
}

class Rows final : public QStyledItemDelegate {
  public:
    using QStyledItemDelegate::QStyledItemDelegate;

    QSize sizeHint(const QStyleOptionViewItem& option, const QModelIndex& index) const override {
        return {option.rect.width(), index.data(key_role).isNull() ? group_height : row_height};
    }

    void paint(QPainter* painter, const QStyleOptionViewItem& option,
               const QModelIndex& index) const override {
        const present::Theme& theme = present::Theme::current();
        painter->save();
        painter->setRenderHint(QPainter::Antialiasing);
        const QRectF rect = QRectF(option.rect).adjusted(1, 1, -1, -1);
        if (index.data(key_role).isNull()) {
            painter->setFont(present::ui_font(9, QFont::DemiBold));
            painter->setPen(theme.quiet);
            painter->drawText(rect.adjusted(4, 10, 0, 0), Qt::AlignLeft | Qt::AlignVCenter,
                              index.data().toString());
        } else {
            paint_entry(*painter, option, index, rect);
        }
        painter->restore();
    }

  private:
    static void paint_entry(QPainter& painter, const QStyleOptionViewItem& option, const QModelIndex& index,
                            const QRectF& rect) {
        const present::Theme& theme = present::Theme::current();
        const bool now = option.state & QStyle::State_Selected,
                   under = option.state & QStyle::State_MouseOver;
        painter.setPen(now ? QPen(theme.lamp, 1.6) : under ? QPen(theme.hairline, 1) : QPen(Qt::NoPen));
        painter.setBrush(now || under ? QBrush(theme.card) : QBrush(Qt::NoBrush));
        painter.drawRoundedRect(rect, 7, 7);
        const QRectF frame(QPointF(rect.left() + edge - 2, rect.top() + edge - 2), Picker::picture_size());
        painter.setPen(Qt::NoPen);
        painter.setBrush(now || under ? theme.panel : theme.card);
        painter.drawRoundedRect(frame, 5, 5);
        if (const auto shown = index.data(picture_role).value<QPixmap>(); !shown.isNull())
            painter.drawPixmap(frame.topLeft(), shown);
        const QRectF text = rect.adjusted(picture_width + 16, 6, -6, -4);
        painter.setFont(present::ui_font(10, QFont::DemiBold));
        painter.setPen(theme.ink);
        painter.drawText(text, Qt::AlignLeft | Qt::AlignTop, index.data().toString());
        painter.setFont(present::ui_font(9));
        painter.setPen(theme.quiet);
        painter.drawText(text.adjusted(0, 18, 0, 0), Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
                         index.data(about_role).toString());
    }
};

} // namespace

Picker::Picker(const QString& what, QWidget* parent)
    : QFrame(parent)
    , typed_(new QLineEdit(this))
    , list_(new QListWidget(this)) {
    typed_->setObjectName("picker-typed");
    typed_->setPlaceholderText(tr("Type to narrow; arrows and Enter choose"));
    typed_->setAccessibleName(tr("%1: type to narrow").arg(what));
    typed_->setClearButtonEnabled(true);
    typed_->installEventFilter(this);
    list_->setObjectName("picker-list");
    list_->setAccessibleName(what);
    list_->setItemDelegate(new Rows(list_));
    list_->setMouseTracking(true);
    list_->setFrameShape(QFrame::NoFrame);
    list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
    list_->setVerticalScrollBarPolicy(Qt::ScrollBarAlwaysOff); // it is as high as its rows: the panel scrolls
    list_->setFocusPolicy(Qt::NoFocus);
    list_->viewport()->setAutoFillBackground(false);
    auto* rows = new QVBoxLayout(this);
    rows->setContentsMargins(0, 0, 0, 0);
    rows->addWidget(typed_);
    rows->addWidget(list_);
    connect(typed_, &QLineEdit::textChanged, this, &Picker::narrow);
    connect(list_, &QListWidget::itemClicked, this, &Picker::choose);
}

void Picker::clear() {
    list_->clear();
}

void Picker::add_group(const QString& title, const std::vector<Entry>& entries) {
    auto* head = new QListWidgetItem(title, list_);
    head->setFlags(Qt::NoItemFlags);
    for (const Entry& entry : entries) {
        auto* item = new QListWidgetItem(entry.name, list_);
        item->setData(key_role, entry.key);
        item->setData(about_role, entry.about);
        item->setData(Qt::AccessibleTextRole, entry.name + ": " + entry.about);
    }
    narrow();
}

void Picker::set_picture(const QString& key, const QPixmap& picture) {
    for (int row = 0; row < list_->count(); ++row)
        if (list_->item(row)->data(key_role).toString() == key)
            list_->item(row)->setData(picture_role, picture);
}

QSize Picker::picture_size() {
    return {picture_width, row_height - 2 * edge + 2};
}

void Picker::open() {
    typed_->clear();
    narrow();
    show();
    typed_->setFocus();
}

void Picker::narrow() {
    const QStringList words = typed_->text().split(' ', Qt::SkipEmptyParts);
    QListWidgetItem *head = nullptr, *first = nullptr;
    // What begins with the words comes before what is only told with them.
    const auto begins = [&](const QListWidgetItem* item) {
        return !words.isEmpty() && item->text().startsWith(words.join(' '), Qt::CaseInsensitive);
    };
    int height = 4;
    if (list_->count() == 1) height += group_height; // a heading alone is a message
    for (int row = 0; row < list_->count(); ++row) {
        QListWidgetItem* item = list_->item(row);
        if (is_group(item)) {
            head = item;
            head->setHidden(list_->count() > 1);
            continue;
        }
        const QString all = item->text() + ' ' + item->data(about_role).toString() + ' ' + head->text();
        const bool fits = std::all_of(words.begin(), words.end(), [&](const QString& word) {
            return all.contains(word, Qt::CaseInsensitive);
        });
        item->setHidden(!fits);
        if (!fits) continue;
        if (head->isHidden()) {
            head->setHidden(false);
            height += group_height;
        }
        height += row_height;
        if (!first || (begins(item) && !begins(first))) first = item;
    }
    list_->setFixedHeight(height);
    list_->setCurrentItem(first);
}

void Picker::go(int by) {
    for (int row = list_->currentRow() + by; row >= 0 && row < list_->count(); row += by) {
        QListWidgetItem* item = list_->item(row);
        if (item->isHidden() || is_group(item)) continue;
        list_->setCurrentRow(row);
        Q_EMIT row_wanted(list_->visualItemRect(item).translated(list_->pos()));
        return;
    }
}

void Picker::choose(QListWidgetItem* item) {
    if (!item || is_group(item)) return;
    Q_EMIT chosen(item->data(key_role).toString());
}

bool Picker::eventFilter(QObject* object, QEvent* event) {
    if (object != typed_ || event->type() != QEvent::KeyPress) return QFrame::eventFilter(object, event);
    switch (static_cast<QKeyEvent*>(event)->key()) {
    case Qt::Key_Escape:
        Q_EMIT given_up();
        return true;
    case Qt::Key_Return:
    case Qt::Key_Enter:
        choose(list_->currentItem());
        return true;
    case Qt::Key_Up:
        go(-1);
        return true;
    case Qt::Key_Down:
        go(1);
        return true;
    default:
        return false;
    }
}

} // namespace dotlane::app
