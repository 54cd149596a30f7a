// What lies on one another on a sheet, by true outlines: what is cut through is an error, what is only marked
// over a caution. A part in the hole of another, or two that interlock, overlap in nothing but their boxes.
#pragma once

#include "core/derive/laid.h"

namespace dotlane {

/// "sheet.cut-through" (error) and "sheet.overlap" (caution), each once for a pair. Overlaps of under 0.05 mm
/// are edges that touch. `sheet`: its name.
Findings check_overlaps(const LaidSheet& laid, const std::string& sheet);

} // namespace dotlane
