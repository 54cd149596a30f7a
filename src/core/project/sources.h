// Where a part's lines come from: a file, a calculator that is told what is meant, or lettering. Plain
// values, each with its numbers declared once in `fields`. The lines are computed from them in sources/; they
// carry roles
// ("outline", "fold"), and a part's line sets of such a source are named by role.
#pragma once

#include <memory>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "core/base/id.h"
#include "core/base/measure.h"
#include "core/base/units.h"
#include "core/project/fields.h"

namespace dotlane {

/// The lines of a file, kept as they came.
struct FromFile {
    bool operator==(const FromFile&) const = default;
};

/// A card that is folded; sizes are those of the folded card.
struct FoldedCard {
    enum class Fold { single, gate, three, zigzag };
    enum class Opens { side, top };
    enum class Line { score, perforate, none };
    Length width = mm(105), height = mm(148); ///< 5..2000 mm
    Fold fold = Fold::single;
    Opens opens = Opens::side;
    Line line = Line::score;
    Length setback = mm(1); ///< the fold line stops this far before the edges, 0..50 mm
    Length tuck = mm(1.5);  ///< panels that fold inwards are narrower by this, 0..20 mm
    Length corner;          ///< radius of the outer corners, 0..200 mm
    /// 0: of one sheet. Otherwise each panel is a piece of its own and all but the last have a strip this
    /// wide beyond the fold, which is glued behind the next; 0..50 mm
    Length hinge;
    bool operator==(const FoldedCard&) const = default;
};

/// A card in the outline of another part: what lies beyond the fold is mirrored, so that both halves are one
/// piece where they meet. Both halves together are twice the outline, less the overlap.
struct ShapeCard {
    enum class Fold { left, right, top, bottom };
    PartId of;
    Fold fold = Fold::left;
    Length overlap = mm(8); ///< of the two halves: the fold lies half of it inside each outline, 0..1000 mm
    FoldedCard::Line line = FoldedCard::Line::score;
    Length setback = mm(1); ///< the fold line stops this far before the ends of the hinge, 0..50 mm
    bool operator==(const ShapeCard&) const = default;
};

/// A layer, mat or frame that shows an even border of another part: of a folded card, of its front.
struct Layer {
    enum class Corners { mitred, round };
    PartId of;
    Length reveal = mm(4); ///< border that stays in view; negative: it stands out beyond, -200..200 mm
    Length frame;          ///< 0: whole; otherwise a mat with an opening, 0..500 mm wide
    Corners corners = Corners::mitred; ///< those that point away from the layer
    bool operator==(const Layer&) const = default;
};

/// A label, tag or plain mat with an edge of its own.
struct Label {
    enum class Edge { plain, rounded, bracket, scalloped, notched, oval, circles };
    enum class Hole { none, round, slot };
    Edge edge = Edge::bracket;
    Length width = mm(80), height = mm(50); ///< 3..2000 mm
    Length corner = mm(8);                  ///< radius or depth of the edge's corners, 0..500 mm
    Length scallop = mm(8);                 ///< wished width of a scallop, 1..200 mm
    Length circle = mm(25);                 ///< diameter of the circles at corners and sides, 1..500 mm
    Hole hole = Hole::none;
    Length hole_size = mm(5);   ///< diameter, or height of the slot, 0.5..100 mm
    Length slot_width = mm(15); ///< 1..300 mm
    Length hole_inset = mm(5);  ///< from the top edge to the hole, 0..500 mm
    Length border;              ///< inset of an inner border line, 0: none; 0..200 mm
    std::string also; ///< further sizes, "60x40, 40x25" (mm unless they say): laid in a row behind it
    bool operator==(const Label&) const = default;
};

/// A round badge: what is seen, and what is cut so that it wraps around the back.
struct Badge {
    enum class Size { own, small, medium, large };
    Size size = Size::medium;              ///< 25/35, 37/49 or 58/70 mm, or as `visible` and `cut` say
    Length visible = mm(37), cut = mm(49); ///< diameters, 5..500 mm
    Length safe = mm(2);                   ///< art stays this far inside the visible edge, 0..50 mm
    bool guides = true;                    ///< the visible circle, set aside as a guide
    bool operator==(const Badge&) const = default;
};

/// A strip with a repeating edge.
struct EdgeStrip {
    enum class Edge { scallop, wave, zigzag, deckle };
    enum class Ask { count, pitch };
    Edge edge = Edge::scallop;
    Length length = mm(240), height = mm(30); ///< 5..5000 mm, 1..1000 mm
    Length depth = mm(6);                     ///< of the edge, 0.2..200 mm
    Ask ask = Ask::pitch;
    int count = 16;        ///< repeats, 1..1000
    Length pitch = mm(15); ///< wished; the nearest that makes every repeat whole is taken, 0.5..1000 mm
    bool both_sides = false;
    int seed = 1; ///< of the deckle, 1..9999
    bool operator==(const EdgeStrip&) const = default;
};

/// A motif repeated over a sheet.
struct RepeatPattern {
    enum class Motif { star, disc, square, diamond, hexagon, heart, drop, part };
    enum class Rows { straight, brick, hexagonal };
    Motif motif = Motif::star;
    Length size = mm(14); ///< across, 1..1000 mm
    Length gap = mm(4);   ///< between neighbours, 0..500 mm
    Rows rows = Rows::straight;
    Length width = mm(292), height = mm(292); ///< of the sheet, 5..5000 mm
    Length margin = mm(6);                    ///< 0..500 mm
    int wanted =
        0; ///< 0: as many as fit at this size; otherwise the size is solved so that so many fit across
    int points = 5;     ///< of the star, 3..24
    PartId of;          ///< the part that is the motif
    bool frame = false; ///< the sheet's outline too
    bool operator==(const RepeatPattern&) const = default;
};

/// How a score line is folded: towards the scored side or away from it. For the eye and the hands; the
/// machine scores both alike.
enum class Fold { valley, mountain };

/// Boxes, sleeves and envelopes of one sheet; sizes are those of what goes inside.
struct Carton {
    enum class Kind { tuck_box, sleeve, envelope };
    Kind kind = Kind::sleeve;
    Length width = mm(70), depth = mm(70), height = mm(120); ///< 3..2000 mm; an envelope has no depth
    Length thickness = mm(0.3);                              ///< of the stock, 0..5 mm
    Length tab = mm(12);                                     ///< glue tab, 2..200 mm
    bool windows = true;                                     ///< of a sleeve: one in each panel
    Length frame = mm(12);                                   ///< around a window, 1..500 mm
    Fold folds = Fold::valley;                               ///< as seen from the side that is scored
    Length ease = mm(2); ///< play of an envelope's content each way, 0..50 mm
    bool operator==(const Carton&) const = default;
};

/// Text in a font of outlines; or in single strokes, for pens, foil and engraving: those of a stroke font, or
/// the centre lines of outlines.
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
};

/// A picture whose outlines are traced. The file's own bytes are kept, so that the tracing stays live.
struct Picture {
    enum class By { grey, colour };
    std::string file_name;                    ///< without folder; for showing only
    std::shared_ptr<const std::string> bytes; ///< of the PNG or JPEG file; shared, never changed
    Length width = mm(120);                   ///< of the whole picture, 1..5000 mm
    int threshold = 0;                        ///< 1..255: darker is cut; 0: found from the picture
    bool invert = false;                      ///< lighter is cut
    By by = By::grey;
    int levels = 1;    ///< of grey, or so many colours beside the paper's; each a line set of its own, 1..6
    int only = 0;      ///< 0: all levels; otherwise this one alone, 1..6
    int speckle = 8;   ///< areas of up to so many pixels are left out, 0..100,000
    int reconnect = 0; ///< gaps of up to twice so many pixels are closed, 0..20
    double corner = 1; ///< 0: all corners sharp; 1.34: none
    double tolerance = 0.4; ///< pixels by which curves may leave the edge, 0..5
    bool patient = false;   ///< traced however large and rough it is, which may take minutes
    bool operator==(const Picture& o) const;
};

using SourceSpec = std::variant<FromFile, FoldedCard, Label, Badge, EdgeStrip, RepeatPattern, Carton,
                                Lettering, Picture, ShapeCard, Layer>;

/// Shows every member to the visitor.
void fields(SourceSpec& spec, Fields& f);
void fields(Lettering& lettering, Fields& f);
/// Where a source that takes another part's outline names that part; null for all others.
PartId* lender_of(SourceSpec& spec);
/// The part whose outline the source takes; none when it takes none.
PartId borrows_from(const SourceSpec& spec);

struct SourceKind {
    const char* key;   ///< "folded-card": in files and on the command line
    const char* name;  ///< "Folded card"
    const char* about; ///< one sentence
    SourceSpec fresh;
};
/// All that can be begun from nothing, in the order in which they are offered: not FromFile, not Picture.
const std::vector<SourceKind>& source_kinds();
const SourceKind* source_kind(std::string_view key);
/// None for FromFile.
const SourceKind* kind_of(const SourceSpec& spec);

} // namespace dotlane
