// Text in a font of outlines; or in single strokes, for pens, foil and engraving: those of a stroke font, or
// the centre lines of outlines.
#pragma once

#include "core/project/sources/kind.h"

namespace dotlane {

struct Lettering {
    enum class Kind { outlines, strokes, centre_lines };
    enum class SizedBy { capitals, width, height };
    enum class Align { left, centre, right };
    enum class Path { straight, arc, outline };
    std::string text = "Lantern"; ///< with marks: core/lettering/marks.h
    Kind kind = Kind::outlines;
    std::string font = "Lobster Two"; ///< family, or the name of a stroke font
    bool italic = false;
    int weight = 400; ///< 100..900
    SizedBy sized_by = SizedBy::capitals;
    Length size = mm(20); ///< of the capitals, or of the whole, 0.5..5000 mm
    Align align = Align::left;
    EmSpace tracking;         ///< further space between letters, -50..200 % of the em or -100..500 mm
    double line_gap = 120;    ///< from baseline to baseline, % of the em, 20..500
    double glyph_width = 100; ///< %, 20..400
    Path path = Path::straight;
    Length radius = mm(60); ///< of the arc's baseline, 2..5000 mm; the text stands on top of the circle
    bool inside = false;    ///< the text stands inside the circle, at its foot; or inside the outline
    PartId of;              ///< whose outline the text follows; of words on a part, none: that part's own
    double start =
        75; ///< middle of the text, % of the outline, clockwise from its right at half its height, 0..100
    Length lift = mm(2);  ///< of the baseline off the outline, -200..500 mm
    std::string features; ///< "ss01, -liga": OpenType features on or off
    bool join = false;    ///< letters that touch become one outline
    Length snug; ///< with `join`: letters are brought together until they overlap by this, 0..20 mm; 0: not
    bool operator==(const Lettering&) const = default;

    PartId* lender() { return path == Path::outline ? &of : nullptr; }
    std::vector<std::string> roles() const {
        if (path != Path::outline) return {};
        return {kind == Kind::outlines ? role::letters : role::strokes};
    }
    static Lettering sample() {
        Lettering out;
        out.join = true, out.snug = mm(0.3);
        return out;
    }

    static constexpr SourceRow row{.key = "lettering",
                                   .name = "Lettering",
                                   .about = "Words in any font, joined or in strokes.",
                                   .wanted = SourceRow::Wanted::words};
    friend void fields(Lettering& s, Fields& f) {
        const bool outlines = s.kind == Lettering::Kind::outlines,
                   shaped = s.kind != Lettering::Kind::strokes, arc = s.path == Lettering::Path::arc,
                   along = s.path == Lettering::Path::outline;
        f.text({"text", "text"}, s.text, TextKind::lines);
        f.text({"font", "font"}, s.font, TextKind::font);
        f.one_of({"kind", "made of"}, s.kind, {"outlines", "strokes", "centre-line"});
        if (f.when(shaped)) f.whole({"weight", "weight", "400 regular, 700 bold"}, s.weight, 100, 900);
        f.one_of({"sized-by", "sized by"}, s.sized_by, {"capitals", "width", "height"});
        f.length({"size", "size"}, s.size, mm(0.5), mm(5000));
        f.one_of({"align", "aligned"}, s.align, {"left", "centre", "right"});
        f.percent({"line-gap", "line gap %", "From baseline to baseline, in hundredths of the em"},
                  s.line_gap, 20, 500);
        f.em_space({"tracking", "tracking", "Further space between letters: 5 % of the em, or -0.9 mm"},
                   s.tracking, -50, 200);
        f.percent({"glyph-width", "letter width %"}, s.glyph_width, 20, 400);
        f.one_of({"path", "on a"}, s.path, {"straight", "arc", "outline"});
        if (f.when(arc)) f.length({"radius", "radius"}, s.radius, mm(2), mm(5000));
        if (f.when(along)) {
            f.part({"of", "outline of", "", {4, "0"}}, s.of);
            f.percent({"start",
                       "middle at %",
                       "Of the outline, clockwise from its right side: 25 is the foot, 75 the top",
                       {4, "75"}},
                      s.start, 0, 100);
            f.length({"lift", "off the outline", "", {4, "2"}}, s.lift, mm(-200), mm(500));
        }
        if (f.when(arc || along))
            f.flag({"inside", along ? "inside the outline" : "inside, at the foot"}, s.inside);
        if (f.when(shaped)) f.flag({"italic", "italic"}, s.italic);
        if (f.when(outlines)) f.flag({"join", "join letters"}, s.join);
        if (f.when(outlines && s.join))
            f.length(
                {"snug", "snug by", "Letters move together until they overlap by this; 0: as they stand"},
                s.snug, mm(0), mm(20));
        if (f.when(shaped))
            f.text({"features", "font features", "Such as ss01 or -liga"}, s.features, TextKind::plain);
    }
    friend Result<SourceLines> make(const Lettering& spec, const MakeInput& in);
};

} // namespace dotlane
