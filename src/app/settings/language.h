// The language of the interface: English plurals always, then the user's language where there is a
// translation.
#pragma once

namespace dotlane::app {

/// Call once, after the application object exists.
void install_language();

} // namespace dotlane::app
