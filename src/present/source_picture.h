// A small picture of what a source makes, for lists of jobs.
#pragma once

#include <QPainter>

#include "core/project/drawing.h"

namespace dotlane::present {

/// The lines, by their roles, on stock of this colour; as large as fits the area.
void paint_source(QPainter& painter, const Drawing& drawing, const QRectF& area);

} // namespace dotlane::present
