// Shaped text on its way to lines: glyphs at their places, and what sets them on an arc or along an outline.
// Private to lettering.
#pragma once

#include "core/sources/parts.h"

namespace dotlane::sources {

inline constexpr double nominal_em = 100; ///< mm; text is laid out at this size and scaled once

struct Glyph {
    Shape shape;      ///< at its place in its line, baseline at y = 0
    std::string name; ///< the characters it stands for
    double x = 0, advance = 0;
};

struct Line {
    std::vector<Glyph> glyphs;
    double width = 0;
};

struct Layout {
    std::vector<Line> lines;
    double capitals = 70; ///< height of capitals at the nominal size
    bool strokes = false;
    Findings findings;
};

inline void move(Glyph& glyph, double dx, double dy = 0) {
    glyph.shape = transformed(glyph.shape, Affine::translation({dx, dy}));
    glyph.x += dx;
}

/// Each glyph keeps its shape and is set upright on the circle under the middle of its advance. Lines further
/// down lie on smaller circles (on larger ones inside).
void set_on_arc(Layout& layout, const Lettering& spec);
/// Likewise on the outer edge of another part. Errors: "source.part", "source.text" (longer than the edge).
Result<void> set_along(Layout& layout, const Lettering& spec, const Borrowed* along);

} // namespace dotlane::sources
