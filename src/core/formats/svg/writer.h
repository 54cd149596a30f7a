// SVG writer: a program's strokes in real millimetres. The page is the mat with a strip below it; in the
// strip stands a 10 mm check square, and at three corners of the usable area stand origin marks that are the
// same in every file of an export, so that passes opened one by one still lie on one another.
#pragma once

#include <optional>
#include <string>

#include "core/formats/trace/printed.h"
#include "core/machine/program.h"

namespace dotlane {

struct SvgExport {
    SheetId sheet;           ///< which sheet
    std::optional<int> pass; ///< a pass number; empty: all passes of the sheet
    std::string note;        ///< stands in the file's description
};

/// Height of the strip under the mat that holds the check square.
inline constexpr Length check_strip = mm(20);
inline constexpr Length check_square = mm(10);

std::string write_svg(const Program& program, const SvgExport& what);

/// What is printed on a sheet: the page is the stock, in real millimetres.
/// `images`: of the print's pictures, behind its shapes.
std::string write_print_svg(const PrintSheet& print, const std::vector<PlacedImage>& images,
                            const std::string& project, const std::string& note);

} // namespace dotlane
