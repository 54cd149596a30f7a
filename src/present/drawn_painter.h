// Paints a line as it was drawn: its fill, and its stroke with cap, join, dashes and nib. One for the bench,
// for a file that is being opened and for what is printed.
#pragma once

#include <QPainter>
#include <QPainterPath>

#include "core/project/drawing.h"

namespace dotlane::present {

/// `path` is in dots, `dots_per_mm` of them to a millimetre; its fill rule is set.
void paint_drawn(QPainter& painter, const QPainterPath& path, const Drawn& drawn, double dots_per_mm);

} // namespace dotlane::present
