// The keyboard stays where it is while controls are built anew under it.
#pragma once

#include <QString>

class QWidget;

namespace dotlane::app {

/// Takes the keyboard from a named control within, which is about to go, and tells its name; empty when there
/// is none. Left alone, the keyboard would go to the next control, and the column would scroll there.
QString take_focus(QWidget* within);
/// Gives it to the control of that name, once what has been built is shown.
void give_focus(QWidget* within, const QString& name);

} // namespace dotlane::app
