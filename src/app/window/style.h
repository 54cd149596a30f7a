// The application's palette and style sheet, made from the theme.
#pragma once

namespace dotlane::app {

/// Applies fonts, palette and style sheet to the whole application.
void apply_style(bool dark);

} // namespace dotlane::app
