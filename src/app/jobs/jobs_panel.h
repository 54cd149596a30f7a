// What a new part can start from.
#pragma once

#include "app/widgets/side_panel.h"
#include "core/derive/workshop.h"

namespace dotlane::app {

class Picker;

class JobsPanel : public SidePanel {
    Q_OBJECT

  public:
    explicit JobsPanel(Workshop& workshop, QWidget* parent = nullptr);
    /// With nothing typed, the keyboard in the list.
    void open();

  Q_SIGNALS:
    void made(const QString& kind); ///< key of a SourceKind
    void drawing_wanted();
    void done();

  private:
    Picker* picker_;
};

} // namespace dotlane::app
