// The keys, and the program's words.
#pragma once

#include "app/widgets/side_panel.h"

namespace dotlane::app {

class Actions;

class HelpPanel : public SidePanel {
    Q_OBJECT

  public:
    explicit HelpPanel(QWidget* parent = nullptr);
    /// Those of the actions, and those that the bench has itself.
    void show_keys(const Actions& actions);

  Q_SIGNALS:
    void done();

  private:
    bool shown_ = false;
};

} // namespace dotlane::app
