#include "app/window/actions.h"

#include <QMenu>
#include <QMenuBar>

#include "core/base/result.h"

namespace dotlane::app {

bool possible(When when, const Situation& now) {
    switch (when) {
    case When::always:
        return true;
    case When::project:
        return now.project;
    case When::part:
        return now.part;
    case When::lines:
        return now.lines;
    case When::placed:
        return now.placed;
    case When::undo:
        return now.undo;
    case When::redo:
        return now.redo;
    }
    return false;
}

Actions::Actions(QWidget* window)
    : QObject(window) {
    for (ActionEntry& entry : action_entries()) {
        auto* action = new QAction(entry.words, window);
        // What a letter of the bench does is said beside the words, as keys are.
        if (!entry.letter.isEmpty()) action->setText(entry.words + "\t" + entry.letter);
        action->setObjectName(entry.id);
        action->setShortcuts(entry.keys);
        action->setCheckable(entry.checkable);
        window->addAction(action); // its key works wherever it stands
        const bool first = by_id_.emplace(entry.id, all_.size()).second;
        DOTLANE_CHECK(first);
        all_.push_back({std::move(entry), action});
    }
    bound_.resize(all_.size());
    set_situation({});
}

void Actions::bind(const QString& id, std::function<void(bool)> run) {
    const auto at = by_id_.find(id);
    DOTLANE_CHECK(at != by_id_.end() && !bound_[at->second]);
    bound_[at->second] = true;
    connect(all_[at->second].action, &QAction::triggered, this, std::move(run));
}

void Actions::check_all_bound() const {
    for (std::size_t i = 0; i < all_.size(); ++i)
        DOTLANE_CHECK(bound_[i]);
}

void Actions::set_situation(const Situation& now) {
    for (const One& one : all_)
        one.action->setEnabled(possible(one.entry.when, now));
}

void Actions::fill(QMenuBar* bar) const {
    std::vector<QMenu*> menus;
    for (QAction* top : bar->actions()) {
        menus.push_back(new QMenu(bar));
        top->setMenu(menus.back());
    }
    for (const One& one : all_) {
        if (!one.entry.in_menu) continue;
        QMenu* menu = menus[static_cast<std::size_t>(one.entry.menu)];
        if (one.entry.line_above) menu->addSeparator();
        menu->addAction(one.action);
    }
}

QAction* Actions::find(const QString& id) const {
    const auto at = by_id_.find(id);
    return at == by_id_.end() ? nullptr : all_[at->second].action;
}

QString Actions::path(const ActionEntry& entry) {
    return QString(title(entry.menu)).remove('&') + " > " + QString(entry.words).remove('&');
}

} // namespace dotlane::app
