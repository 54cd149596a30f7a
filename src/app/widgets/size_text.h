// Finished sizes in words.
#pragma once

#include <QCoreApplication>
#include <algorithm>

#include "core/base/measure.h"

namespace dotlane::app {

/// "50.8 × 33.9 mm": the unit once and no fractions of what is over a metre, as narrow cards have no room.
inline QString size_text(Length width, Length height, LengthUnit unit, int decimals_mm = 1) {
    if (std::max(in_mm(width), in_mm(height)) >= 1000) decimals_mm = 0;
    return QCoreApplication::translate("size", "%1 × %2")
        .arg(QString::fromStdString(to_text(width, unit, decimals_mm)).section(' ', 0, -2),
             QString::fromStdString(to_text(height, unit, decimals_mm)));
}

} // namespace dotlane::app
