#include "core/project/sources.h"

#include <tuple>

namespace dotlane {
namespace {

void of(FromFile&, Fields&) {}

void of(FoldedCard& s, Fields& f) {
    f.length({"width", "finished width"}, s.width, mm(5), mm(2000));
    f.length({"height", "finished height"}, s.height, mm(5), mm(2000));
    f.one_of({"fold", "fold"}, s.fold, {"single", "gate", "three", "zigzag"});
    f.one_of({"opens", "opens at the"}, s.opens, {"side", "top"});
    f.one_of({"line", "fold line"}, s.line, {"score", "perforate", "none"});
    if (f.when(s.line != FoldedCard::Line::none))
        f.length({"setback", "setback", "The fold line stops this far before the edges"}, s.setback, mm(0),
                 mm(50));
    if (f.when(s.fold == FoldedCard::Fold::gate || s.fold == FoldedCard::Fold::three))
        f.length({"tuck", "tuck", "Panels that fold inwards are narrower by this"}, s.tuck, mm(0), mm(20));
    f.length({"corner", "corner radius"}, s.corner, mm(0), mm(200));
    f.length({"hinge", "glued hinge", "0: of one sheet; otherwise panels, joined by strips this wide"},
             s.hinge, mm(0), mm(50));
}

void of(ShapeCard& s, Fields& f) {
    f.part({"of", "outline of"}, s.of);
    f.one_of({"fold", "fold at the"}, s.fold, {"left", "right", "top", "bottom"});
    f.length(
        {"overlap", "overlap", "The two halves overlap by this at the fold: more makes the hinge longer"},
        s.overlap, mm(0), mm(1000));
    f.one_of({"line", "fold line"}, s.line, {"score", "perforate", "none"});
    if (f.when(s.line != FoldedCard::Line::none))
        f.length({"setback", "setback", "The fold line stops this far before the ends of the hinge"},
                 s.setback, mm(0), mm(50));
}

void of(Layer& s, Fields& f) {
    f.part({"of", "on top of"}, s.of);
    f.length({"reveal", "reveal", "The border that stays in view; negative stands out beyond"}, s.reveal,
             mm(-200), mm(200));
    f.length({"frame", "frame", "0: a whole layer; otherwise a mat this wide around an opening"}, s.frame,
             mm(0), mm(500));
    f.one_of({"corners", "corners"}, s.corners, {"mitred", "round"});
}

void of(Label& s, Fields& f) {
    f.one_of({"edge", "edge"}, s.edge,
             {"plain", "rounded", "bracket", "scalloped", "notched", "oval", "circles"});
    f.length({"width", "width"}, s.width, mm(3), mm(2000));
    f.length({"height", "height"}, s.height, mm(3), mm(2000));
    const bool cornered =
        s.edge == Label::Edge::rounded || s.edge == Label::Edge::bracket || s.edge == Label::Edge::notched;
    if (f.when(cornered)) f.length({"corner", "corner"}, s.corner, mm(0), mm(500));
    if (f.when(s.edge == Label::Edge::scalloped))
        f.length({"scallop", "scallop", "Wished width; the nearest that makes every one whole is taken"},
                 s.scallop, mm(1), mm(200));
    if (f.when(s.edge == Label::Edge::circles))
        f.length({"circle", "circles", "Diameter: cut out of the corners, added to the short sides"},
                 s.circle, mm(1), mm(500));
    f.length({"border", "border inset", "A line inside the edge; 0 for none"}, s.border, mm(0), mm(200));
    f.one_of({"hole", "hole"}, s.hole, {"none", "round", "slot"});
    if (f.when(s.hole != Label::Hole::none)) {
        f.length({"hole-size", "hole size"}, s.hole_size, mm(0.5), mm(100));
        f.length({"hole-inset", "below the edge"}, s.hole_inset, mm(0), mm(500));
    }
    if (f.when(s.hole == Label::Hole::slot))
        f.length({"slot-width", "slot width"}, s.slot_width, mm(1), mm(300));
    f.text({"also", "further sizes", "Such as 60x40, 2in x 1in: laid in a row behind the first"}, s.also,
           TextKind::plain);
}

void of(Badge& s, Fields& f) {
    const bool own = s.size == Badge::Size::own;
    f.one_of({"size", "seen / cut, mm"}, s.size, {"own", "25/35", "37/49", "58/70"});
    if (f.when(own)) f.length({"visible", "visible"}, s.visible, mm(5), mm(500));
    if (f.when(own))
        f.length({"cut", "cut", "Diameter that is cut; the rest wraps around"}, s.cut, mm(5), mm(500));
    f.length({"safe", "safe margin"}, s.safe, mm(0), mm(50));
    f.flag({"guides", "show the visible circle"}, s.guides);
}

void of(EdgeStrip& s, Fields& f) {
    f.one_of({"edge", "edge"}, s.edge, {"scallop", "wave", "zigzag", "deckle"});
    f.length({"length", "length"}, s.length, mm(5), mm(5000));
    f.length({"height", "height"}, s.height, mm(1), mm(1000));
    f.length({"depth", "depth", "Of the edge"}, s.depth, mm(0.2), mm(200));
    f.one_of({"ask", "repeats by"}, s.ask, {"count", "pitch"});
    if (f.when(s.ask == EdgeStrip::Ask::count)) f.whole({"count", "repeats"}, s.count, 1, 1000);
    if (f.when(s.ask == EdgeStrip::Ask::pitch))
        f.length({"pitch", "pitch", "Wished; the nearest that makes every repeat whole is taken"}, s.pitch,
                 mm(0.5), mm(1000));
    if (f.when(s.edge == EdgeStrip::Edge::deckle)) f.whole({"seed", "another one"}, s.seed, 1, 9999);
    f.flag({"both-sides", "both long sides"}, s.both_sides);
}

void of(RepeatPattern& s, Fields& f) {
    f.one_of({"motif", "motif"}, s.motif,
             {"star", "disc", "square", "diamond", "hexagon", "heart", "drop", "part"});
    if (f.when(s.motif == RepeatPattern::Motif::part)) f.part({"of", "motif from"}, s.of);
    if (f.when(s.wanted == 0)) f.length({"size", "size"}, s.size, mm(1), mm(1000));
    f.length({"gap", "gap"}, s.gap, mm(0), mm(500));
    f.one_of({"rows", "rows"}, s.rows, {"straight", "brick", "hexagonal"});
    f.length({"width", "sheet width"}, s.width, mm(5), mm(5000));
    f.length({"height", "sheet height"}, s.height, mm(5), mm(5000));
    f.length({"margin", "margin"}, s.margin, mm(0), mm(500));
    f.whole({"wanted", "wanted across", "0: as many as fit; otherwise the size is solved"}, s.wanted, 0,
            1000);
    if (f.when(s.motif == RepeatPattern::Motif::star)) f.whole({"points", "points"}, s.points, 3, 24);
    f.flag({"frame", "outline of the sheet too"}, s.frame);
}

void of(Carton& s, Fields& f) {
    const bool envelope = s.kind == Carton::Kind::envelope, sleeve = s.kind == Carton::Kind::sleeve;
    f.one_of({"kind", "kind"}, s.kind, {"tuck-box", "sleeve", "envelope"});
    f.length({"width", "width", "Of what goes inside"}, s.width, mm(3), mm(2000));
    if (f.when(!envelope)) f.length({"depth", "depth"}, s.depth, mm(3), mm(2000));
    f.length({"height", "height"}, s.height, mm(3), mm(2000));
    if (f.when(!envelope))
        f.length({"thickness", "stock thickness", "Panels are made larger by it"}, s.thickness, mm(0), mm(5));
    f.length({"tab", "glue tab"}, s.tab, mm(2), mm(200));
    if (f.when(sleeve)) f.flag({"windows", "a window in each panel"}, s.windows);
    if (f.when(sleeve && s.windows))
        f.length({"frame", "frame", "Left around each window"}, s.frame, mm(1), mm(500));
    f.one_of({"folds", "folds are"}, s.folds, {"valley", "mountain"});
    if (f.when(envelope))
        f.length({"ease", "play", "More than the card measures, each way"}, s.ease, mm(0), mm(50));
}

void of(Lettering& s, Fields& f) {
    const bool outlines = s.kind == Lettering::Kind::outlines, shaped = s.kind != Lettering::Kind::strokes,
               arc = s.path == Lettering::Path::arc, along = s.path == Lettering::Path::outline;
    f.text({"text", "text"}, s.text, TextKind::lines);
    f.text({"font", "font"}, s.font, TextKind::font);
    f.one_of({"kind", "made of"}, s.kind, {"outlines", "strokes", "centre-line"});
    if (f.when(shaped)) f.whole({"weight", "weight", "400 regular, 700 bold"}, s.weight, 100, 900);
    f.one_of({"sized-by", "sized by"}, s.sized_by, {"capitals", "width", "height"});
    f.length({"size", "size"}, s.size, mm(0.5), mm(5000));
    f.one_of({"align", "aligned"}, s.align, {"left", "centre", "right"});
    f.percent({"line-gap", "line gap %", "From baseline to baseline, in hundredths of the em"}, s.line_gap,
              20, 500);
    f.em_space({"tracking", "tracking", "Further space between letters: 5 % of the em, or -0.9 mm"},
               s.tracking, -50, 200);
    f.percent({"glyph-width", "letter width %"}, s.glyph_width, 20, 400);
    f.one_of({"path", "on a"}, s.path, {"straight", "arc", "outline"});
    if (f.when(arc)) f.length({"radius", "radius"}, s.radius, mm(2), mm(5000));
    if (f.when(along)) {
        f.part({"of", "outline of"}, s.of);
        f.percent({"start", "middle at %",
                   "Of the outline, clockwise from its right side: 25 is the foot, 75 the top"},
                  s.start, 0, 100);
        f.length({"lift", "off the outline"}, s.lift, mm(-200), mm(500));
    }
    if (f.when(arc || along))
        f.flag({"inside", along ? "inside the outline" : "inside, at the foot"}, s.inside);
    if (f.when(shaped)) f.flag({"italic", "italic"}, s.italic);
    if (f.when(outlines)) f.flag({"join", "join letters"}, s.join);
    if (f.when(outlines && s.join))
        f.length({"snug", "snug by", "Letters move together until they overlap by this; 0: as they stand"},
                 s.snug, mm(0), mm(20));
    if (f.when(shaped))
        f.text({"features", "font features", "Such as ss01 or -liga"}, s.features, TextKind::plain);
}

void of(Picture& s, Fields& f) {
    f.data({"picture", "picture"}, s.bytes);
    if (f.all()) f.text({"file-name", "file"}, s.file_name, TextKind::plain);
    f.length({"width", "width", "Of the whole picture"}, s.width, mm(1), mm(5000));
    const bool grey = s.by == Picture::By::grey;
    f.one_of({"by", "told apart by"}, s.by, {"grey", "colour"});
    if (f.when(grey))
        f.whole({"threshold", "threshold", "Darker is cut; 0: found from the picture"}, s.threshold, 0, 255);
    f.whole({"levels", grey ? "levels" : "colours", "Each a line set of its own"}, s.levels, 1, 6);
    if (f.when(s.levels > 1)) f.whole({"only", "only number", "0: all of them"}, s.only, 0, 6);
    f.whole({"speckle", "speckles under", "Areas of up to so many pixels are left out"}, s.speckle, 0,
            100000);
    f.whole({"reconnect", "reconnect", "Gaps of up to twice so many pixels are closed"}, s.reconnect, 0, 20);
    f.number({"corner", "corners", "0: all sharp; 1.34: none"}, s.corner, 0, 1.34);
    f.number({"tolerance", "smoothness", "Pixels by which curves may leave the edge"}, s.tolerance, 0, 5);
    if (f.when(grey)) f.flag({"invert", "cut what is light"}, s.invert);
    f.flag({"patient", "trace it however long it takes",
            "Also when it is so large or rough that it takes minutes"},
           s.patient);
}

} // namespace

bool Picture::operator==(const Picture& o) const {
    const auto numbers = [](const Picture& p) {
        return std::tie(p.file_name, p.width, p.threshold, p.invert, p.by, p.levels, p.only, p.speckle,
                        p.reconnect, p.corner, p.tolerance, p.patient);
    };
    if (numbers(*this) != numbers(o)) return false;
    return bytes == o.bytes || (bytes && o.bytes && *bytes == *o.bytes);
}

namespace {

const SourceKind& picture_kind() {
    static const SourceKind kind = {"picture", "Picture", "Outlines of a PNG or JPEG picture, traced.",
                                    Picture{}};
    return kind;
}

} // namespace

void fields(SourceSpec& spec, Fields& f) {
    std::visit([&](auto& s) { of(s, f); }, spec);
}

void fields(Lettering& lettering, Fields& f) {
    of(lettering, f);
}

PartId* lender_of(SourceSpec& spec) {
    if (auto* card = std::get_if<ShapeCard>(&spec)) return &card->of;
    if (auto* layer = std::get_if<Layer>(&spec)) return &layer->of;
    if (auto* pattern = std::get_if<RepeatPattern>(&spec))
        return pattern->motif == RepeatPattern::Motif::part ? &pattern->of : nullptr;
    if (auto* lettering = std::get_if<Lettering>(&spec))
        return lettering->path == Lettering::Path::outline ? &lettering->of : nullptr;
    return nullptr;
}

PartId borrows_from(const SourceSpec& spec) {
    // Nothing is changed through it.
    const PartId* of = lender_of(const_cast<SourceSpec&>(spec));
    return of ? *of : PartId{};
}

const std::vector<SourceKind>& source_kinds() {
    static const std::vector<SourceKind> all = {
        {"folded-card", "Folded card", "From the finished size: base, folds, envelopes.", FoldedCard{}},
        {"lettering", "Lettering", "Words in any font, joined or in strokes.", Lettering{}},
        {"label", "Label or tag", "Bracket, scalloped, notched, with holes and borders.", Label{}},
        {"repeat-pattern", "Repeat pattern", "A motif in rows over a sheet, counted.", RepeatPattern{}},
        {"edge-strip", "Edge strip", "Scallops, waves or zigzag along a length.", EdgeStrip{}},
        {"carton", "Box or envelope", "Boxes, sleeves, envelopes; stock allowed for.", Carton{}},
        {"badge", "Badge", "Visible and wrapped circles.", Badge{}},
        {"shape-card", "Shape card", "Another part's outline, folded at a hinge.", ShapeCard{}},
        {"layer", "Layer or mat", "On another part, with an even reveal.", Layer{}}};
    return all;
}

const SourceKind* source_kind(std::string_view key) {
    for (const SourceKind& kind : source_kinds())
        if (kind.key == key) return &kind;
    return key == picture_kind().key ? &picture_kind() : nullptr;
}

const SourceKind* kind_of(const SourceSpec& spec) {
    for (const SourceKind& kind : source_kinds())
        if (kind.fresh.index() == spec.index()) return &kind;
    return std::holds_alternative<Picture>(spec) ? &picture_kind() : nullptr;
}

} // namespace dotlane
