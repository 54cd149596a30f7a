// The picture that a part has printed on it, where it will be seen.
#pragma once

#include "present/part_painter.h"

namespace dotlane::present {

/// Nothing for parts without one. `to`: from the part to what `view` shows. `bleed`: how far it runs on below
/// the cut, dotted. May be called from any thread.
void paint_printed(QPainter& painter, const Part& part, const EvaluatedPart& evaluated, const Affine& to,
                   const View& view, bool bleed);
/// Lines in whose place a picture is printed.
bool stands_for_picture(const Project& project, const Part& part, const EvaluatedPart& evaluated,
                        const RunSet& run);

} // namespace dotlane::present
