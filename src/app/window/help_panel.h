// The keys, and the program's words.
#pragma once

#include "app/widgets/side_panel.h"

namespace dotlane::app {

class HelpPanel : public SidePanel {
    Q_OBJECT

  public:
    explicit HelpPanel(QWidget* parent = nullptr);

  Q_SIGNALS:
    void done();
};

} // namespace dotlane::app
