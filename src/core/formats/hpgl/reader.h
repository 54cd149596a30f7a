// HP-GL reader: pen moves of a plotter file to a Drawing. A plotter unit is 0.025 mm (HP-GL reference).
//
// Taken: IN DF PU PD PA PR SP AA AR CI EA ER. Not taken, and told: labels, scaling by SC, fills,
// line types. Every pen is a colour.
#pragma once

#include <string>

#include "core/base/finding.h"
#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/project/drawing.h"

namespace dotlane {

struct HpglResult {
    Drawing drawing; ///< mm
    Findings findings;
};

/// Errors: "hpgl.not-hpgl" (no known command), "hpgl.number" with the line, "hpgl.large" (over a million
/// lines), "cancelled".
Result<HpglResult> read_hpgl(const std::string& bytes, const std::string& file_name,
                             Progress& progress = no_progress());

} // namespace dotlane
