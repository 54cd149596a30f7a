// What a renderer shows of an SVG file: gradients, patterns, filters and pictures that lines cannot hold. The
// renderer is librsvg's rsvg-convert, run as a process of its own with limits on time and memory, so that no
// file can take the program with it; it reads nothing but what it is given.
#pragma once

#include <string>

#include "core/base/result.h"

namespace dotlane {

/// A PNG file on white, its larger side of so many pixels (16..4000). Errors: "render.missing" (rsvg-convert
/// is not installed), "render.failed" (it gave up, took more than 4 s or more than 1 GB), and those of
/// reading an SVG file that is no SVG at all.
Result<std::string> render_svg(std::string bytes, int larger_side);

} // namespace dotlane
