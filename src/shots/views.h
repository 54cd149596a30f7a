// Pictures of the views, from the demo's data: for the documentation and for looking at every screen.
#pragma once

#include <QString>

#include "core/derive/workshop.h"

namespace dotlane::shots {

/// Exit code: 0 saved, 2 unknown view (the known ones are printed) or unwritable file.
int take_shot(Workshop& workshop, const QString& view, const QString& out, const QString& size);

} // namespace dotlane::shots
