// "Find a command": every command of the menus by a few letters of its name.
#pragma once

#include <QFrame>

class QAction;
class QLineEdit;
class QListWidget;
class QMenuBar;

namespace dotlane::app {

class CommandPalette : public QFrame {
    Q_OBJECT

  public:
    CommandPalette(QMenuBar* menus, QWidget* parent);
    void open();

  protected:
    bool eventFilter(QObject* object, QEvent* event) override;

  private:
    void search(const QString& text);
    void run();
    QMenuBar* menus_;
    QLineEdit* field_;
    QListWidget* list_;
    QList<QAction*> found_;
};

} // namespace dotlane::app
