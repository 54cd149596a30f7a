// What a new part can start from.
#pragma once

#include "app/widgets/side_panel.h"
#include "core/workflow/workshop.h"

namespace dotlane::app {

class JobsPanel : public SidePanel {
    Q_OBJECT

  public:
    explicit JobsPanel(Workshop& workshop, QWidget* parent = nullptr);

  Q_SIGNALS:
    void made(const QString& kind); ///< key of a SourceKind
    void drawing_wanted();
    void done();
};

} // namespace dotlane::app
