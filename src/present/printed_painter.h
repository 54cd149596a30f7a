// The picture that a part has printed on it, where it will be seen; how far it runs on below the cut, dotted.
#pragma once

#include "present/part_painter.h"

namespace dotlane::present {

/// Nothing for parts without one. May be called from any thread.
void paint_printed(QPainter& painter, const PartScene& scene, const View& view);

} // namespace dotlane::present
