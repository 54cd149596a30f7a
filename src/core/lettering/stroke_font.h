// Single-stroke lettering: the Hershey repertoire (A. V. Hershey, National Bureau of Standards SP 424, 1976)
// in the .jhf form of Debian's hershey-fonts-data: glyph number (5 columns), count of pairs (3 columns), then
// pairs of letters as offsets from 'R'. The first pair is the glyph's left and right edge; " R" lifts the
// pen; y runs down, the baseline lies at +9 and capitals reach -12. The n-th glyph of a file is the character
// 32 + n.
#pragma once

#include <map>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/geometry/polyline.h"

namespace dotlane {

struct StrokeGlyph {
    double left = 0, right = 0; ///< font units
    Polylines strokes;          ///< font units, baseline at y = 0, y down
    double advance() const { return right - left; }
};

struct StrokeFont {
    std::string name;
    std::vector<StrokeGlyph> glyphs; ///< from U+0020 on

    /// None when the font has no such character.
    const StrokeGlyph* glyph(char32_t character) const;
    double capital_height() const; ///< of "H", font units
};

/// Error "font.strokes" with the line when the file is not of this form.
Result<StrokeFont> read_stroke_font(const std::string& bytes, std::string name);

} // namespace dotlane
