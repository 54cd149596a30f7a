#include "app/window/palette.h"

#include <QAction>
#include <QKeyEvent>
#include <QLineEdit>
#include <QListWidget>
#include <QVBoxLayout>

#include "app/window/actions.h"

namespace dotlane::app {
namespace {

/// The letters of `wanted` in order somewhere in `text`; the lower the better, -1 for none.
int distance(const QString& text, const QString& wanted) {
    if (const auto at = text.indexOf(wanted, 0, Qt::CaseInsensitive); at >= 0) return static_cast<int>(at);
    int cost = 1000;
    qsizetype from = 0;
    for (const QChar c : wanted) {
        const auto at = text.indexOf(c, from, Qt::CaseInsensitive);
        if (at < 0) return -1;
        cost += static_cast<int>(at - from);
        from = at + 1;
    }
    return cost;
}

} // namespace

CommandPalette::CommandPalette(const Actions& actions, QWidget* parent)
    : QFrame(parent)
    , actions_(actions)
    , field_(new QLineEdit(this))
    , list_(new QListWidget(this)) {
    setObjectName("panel");
    setFrameShape(QFrame::StyledPanel);
    auto* rows = new QVBoxLayout(this);
    field_->setPlaceholderText(tr("Find a command"));
    field_->setAccessibleName(tr("Find a command"));
    field_->setObjectName("palette-field");
    list_->setObjectName("palette-list");
    list_->setFocusPolicy(Qt::NoFocus);
    rows->addWidget(field_);
    rows->addWidget(list_);
    field_->installEventFilter(this);
    connect(field_, &QLineEdit::textChanged, this, &CommandPalette::search);
    connect(list_, &QListWidget::itemClicked, this, &CommandPalette::run);
    hide();
}

void CommandPalette::open() {
    const int w = std::min(520, parentWidget()->width() - 60);
    setGeometry((parentWidget()->width() - w) / 2, 70, w, 340);
    field_->clear();
    search({});
    show();
    raise();
    field_->setFocus();
}

void CommandPalette::search(const QString& text) {
    QList<std::tuple<int, QString, QAction*>> hits;
    for (const Actions::One& one : actions_.all()) {
        const QString name = Actions::path(one.entry);
        if (!one.action->isEnabled()) continue;
        if (const int cost = distance(name, text); cost >= 0)
            hits.push_back({text.isEmpty() ? 0 : cost, name, one.action});
    }
    std::stable_sort(hits.begin(), hits.end(),
                     [](const auto& a, const auto& b) { return std::get<0>(a) < std::get<0>(b); });
    list_->clear();
    found_.clear();
    for (const auto& [cost, name, action] : hits) {
        const QString key = action->shortcut().toString(QKeySequence::NativeText);
        list_->addItem(key.isEmpty() ? name : name + "    " + key);
        found_ << action;
    }
    list_->setCurrentRow(0);
}

void CommandPalette::run() {
    QAction* action = found_.value(list_->currentRow());
    hide();
    if (action) action->trigger();
}

bool CommandPalette::eventFilter(QObject* object, QEvent* event) {
    if (event->type() == QEvent::FocusOut && isVisible()) hide();
    if (event->type() != QEvent::KeyPress) return QFrame::eventFilter(object, event);
    switch (static_cast<QKeyEvent*>(event)->key()) {
    case Qt::Key_Escape:
        hide();
        return true;
    case Qt::Key_Down:
        list_->setCurrentRow(std::min(list_->currentRow() + 1, list_->count() - 1));
        return true;
    case Qt::Key_Up:
        list_->setCurrentRow(std::max(list_->currentRow() - 1, 0));
        return true;
    case Qt::Key_Return:
    case Qt::Key_Enter:
        run();
        return true;
    default:
        return QFrame::eventFilter(object, event);
    }
}

} // namespace dotlane::app
