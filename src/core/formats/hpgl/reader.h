// HP-GL reader: pen moves of a plotter file to a Drawing. A plotter unit is 0.025 mm (HP-GL reference).
//
// Taken: IN DF PU PD PA PR SP AA AR CI EA ER, and the scaling by IP and SC of all three types (HP-GL
// reference, "The configuration group"): uneven scales make ellipses of circles. Not taken, and told: labels,
// fills, turned pages (RO), points relative to the plotter's own page (IR); and a scale without points, as
// every plotter has others of its own. Every pen is a colour.
#pragma once

#include <string>

#include "core/base/finding.h"
#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/formats/limits.h"
#include "core/project/drawing.h"

namespace dotlane {

struct HpglResult {
    Drawing drawing; ///< mm
    Findings findings;
};

struct HpglOptions {
    std::string file_name; ///< for messages only
    ReadLimits limits = {};
};

/// Errors: "hpgl.not-hpgl" (no known command), "hpgl.number" with the line, "hpgl.large", "cancelled".
Result<HpglResult> read_hpgl(const std::string& bytes, const HpglOptions& options,
                             Progress& progress = no_progress());

} // namespace dotlane
