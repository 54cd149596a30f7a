// The picture that a part has printed on it, where it will be seen.
#pragma once

#include "core/derive/printing.h"
#include "core/machine/program.h"
#include "present/lane_style.h"

namespace dotlane::present {

/// `scale`: of the part. `to`: from the part to what `view` shows. `bleed`: how far it runs on below the cut,
/// dotted. May be called from any thread.
void paint_printed(QPainter& painter, const PrintedPicture& printed, double scale, const Affine& to,
                   const View& view, bool bleed);

/// Lines that are printed, in the colours they were drawn in, with a hair around areas: white ones are seen
/// too.
void paint_printed(QPainter& painter, const std::vector<PrintShape>& shapes, const View& view);

/// A picture where it has been put on a mat.
void paint_picture(QPainter& painter, const PrintPicture& picture, const View& view);

} // namespace dotlane::present
