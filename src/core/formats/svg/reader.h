// SVG reader: bytes of a file to a Drawing in millimetres.
//
// Taken: physical units and viewBox with preserveAspectRatio, percentages, nested svg, groups, switch and the
// conditions of any element (SVG 1.1, 5.8), use and symbol, all basic shapes, the full path grammar,
// transforms, presentation attributes, style attributes and simple style sheets, display and visibility, fill
// rules, stroke-only lines, clip paths (applied to the geometry), text (turned to outlines with the fonts
// installed), .svgz. Not taken, and told as findings with a count: filters, masks, pictures, gradients and
// patterns as colour, markers, foreign objects, animation. References out of the file are never followed.
#pragma once

#include <string>

#include "core/base/finding.h"
#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/formats/limits.h"
#include "core/lettering/outliner.h"
#include "core/project/drawing.h"

namespace dotlane {

struct SvgOptions {
    std::string file_name;      ///< for messages only
    FontShelf* fonts = nullptr; ///< without it text becomes a finding
    ReadLimits limits = {};
};

struct SvgResult {
    Drawing drawing;            ///< at 96 user units per inch when the file has no physical size
    bool physical_size = false; ///< width and height carry mm, cm, in, pt, pc or Q
    Findings findings;          ///< what was left out or changed, each once with its count
};

/// Errors (nothing is changed by any of them): "svg.empty", "svg.packed", "svg.entities", "svg.not-xml",
/// "svg.not-svg", "svg.deep" (over 256 levels), "svg.large" (more lines, segments or elements than the
/// options allow), "svg.number" (a coordinate beyond 1e9), "cancelled".
Result<SvgResult> read_svg(std::string bytes, const SvgOptions& options, Progress& progress = no_progress());

} // namespace dotlane
