// The look of the window: colours, fonts and the style sheet.
#pragma once

namespace dotlane::app {

/// Colours and fonts; widgets read them while they are made.
void apply_theme(bool dark);
/// The style sheet. Widgets made under one are styled again with every parent they are given, which takes
/// four fifths of making the window: a first window is made before this is called.
void apply_sheet();
/// Both, for a window that stands already.
void apply_style(bool dark);

} // namespace dotlane::app
