// "Find a command": every action by a few letters of its name.
#pragma once

#include <QFrame>

class QAction;
class QLineEdit;
class QListWidget;

namespace dotlane::app {

class Actions;

class CommandPalette : public QFrame {
    Q_OBJECT

  public:
    CommandPalette(const Actions& actions, QWidget* parent);
    void open();

  protected:
    bool eventFilter(QObject* object, QEvent* event) override;

  private:
    void search(const QString& text);
    void run();
    const Actions& actions_;
    QLineEdit* field_;
    QListWidget* list_;
    QList<QAction*> found_;
};

} // namespace dotlane::app
