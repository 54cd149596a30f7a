// Pictures of the views, from the demo's data: for the documentation and for looking at every screen.
#pragma once

#include <QStringList>
#include <functional>

#include "core/derive/workshop.h"

namespace dotlane::app {
class MainWindow;
}

namespace dotlane::shots {

QStringList view_names();
/// Lets `look` see the window with the view on it; false when there is no such view.
bool with_view(Workshop& workshop, const QString& view, QSize size,
               const std::function<void(app::MainWindow&)>& look);

/// Exit code: 0 saved, 2 unknown view (the known ones are printed) or unwritable file.
int take_shot(Workshop& workshop, const QString& view, const QString& out, const QString& size);

} // namespace dotlane::shots
