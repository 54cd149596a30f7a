// What can be done in the window, each in one row: its name, its words, its keys, when it can be used. Menus,
// the command palette, the help of keys and the tests are made from these rows; who does it is bound by name.
#pragma once

#include <QAction>
#include <QKeySequence>
#include <functional>
#include <map>
#include <vector>

class QMenuBar;

namespace dotlane::app {

/// What has to be there for an action to make sense.
enum class When { always, project, part, lines, placed, undo, redo };

/// The menus, in their order in the bar.
enum class MenuName { project, edit, part, lane, sheet, run, view, help };
inline constexpr int menu_count = 8;
QString title(MenuName menu); ///< with its mnemonic

struct ActionEntry {
    QString id; ///< what it is bound by; the name of its QAction
    MenuName menu = MenuName::project;
    QString words; ///< with its mnemonic
    QList<QKeySequence> keys = {};
    When when = When::always;
    bool line_above = false; ///< in its menu
    bool in_menu = true;     ///< otherwise found by its words only: there are too many of its kind for a menu
    bool checkable = false;
    QString letter = {}; ///< a key of the bench, while that has the keyboard
};

/// Every action there is; what kinds of sources, steps and tools' actions there are comes from their tables.
std::vector<ActionEntry> action_entries();

/// What is there now, by which actions are enabled.
struct Situation {
    bool project = false, part = false, lines = false, placed = false;
    bool undo = false, redo = false;
};
bool possible(When when, const Situation& now);

/// The rows as QActions of a window.
class Actions : public QObject {
    Q_OBJECT

  public:
    explicit Actions(QWidget* window);

    /// Each action is bound once; stops on one that is not in the list.
    void bind(const QString& id, std::function<void(bool checked)> run);
    /// Stops when an action was forgotten.
    void check_all_bound() const;
    void set_situation(const Situation& now);
    void fill(QMenuBar* bar) const;
    QAction* find(const QString& id) const;

    struct One {
        ActionEntry entry;
        QAction* action;
    };
    const std::vector<One>& all() const { return all_; }
    /// "Part > Add step: Outline", as the palette lists it.
    static QString path(const ActionEntry& entry);

  private:
    std::vector<One> all_;
    std::map<QString, std::size_t> by_id_;
    std::vector<bool> bound_;
};

} // namespace dotlane::app
