// A label, tag or plain mat with an edge of its own.
#pragma once

#include "core/project/sources/kind.h"

namespace dotlane {

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

    static Label sample() {
        Label out;
        out.border = mm(4);
        return out;
    }

    static constexpr SourceRow row{.key = "label",
                                   .name = "Label or tag",
                                   .about = "Bracket, scalloped, notched, with holes and borders.",
                                   .wanted = SourceRow::Wanted::shapes};
    friend void fields(Label& s, Fields& f) {
        f.one_of({"edge", "edge"}, s.edge,
                 {"plain", "rounded", "bracket", "scalloped", "notched", "oval", "circles"});
        f.length({"width", "width"}, s.width, mm(3), mm(2000));
        f.length({"height", "height"}, s.height, mm(3), mm(2000));
        const bool cornered = s.edge == Label::Edge::rounded || s.edge == Label::Edge::bracket ||
                              s.edge == Label::Edge::notched;
        if (f.when(cornered)) f.length({"corner", "corner"}, s.corner, mm(0), mm(500));
        if (f.when(s.edge == Label::Edge::scalloped))
            f.length({"scallop", "scallop", "Wished width; the nearest that makes every one whole is taken"},
                     s.scallop, mm(1), mm(200));
        if (f.when(s.edge == Label::Edge::circles))
            f.length({"circle",
                      "circles",
                      "Diameter: cut out of the corners, added to the short sides",
                      {6, "25"}},
                     s.circle, mm(1), mm(500));
        f.length({"border", "border inset", "A line inside the edge; 0 for none"}, s.border, mm(0), mm(200));
        f.one_of({"hole", "hole"}, s.hole, {"none", "round", "slot"});
        if (f.when(s.hole != Label::Hole::none)) {
            f.length({"hole-size", "hole size"}, s.hole_size, mm(0.5), mm(100));
            f.length({"hole-inset", "below the edge"}, s.hole_inset, mm(0), mm(500));
        }
        if (f.when(s.hole == Label::Hole::slot))
            f.length({"slot-width", "slot width"}, s.slot_width, mm(1), mm(300));
        f.text({"also",
                "further sizes",
                "Such as 60x40, 2in x 1in: laid in a row behind the first",
                {4, R"("")"}},
               s.also, TextKind::plain);
    }
    friend Result<SourceLines> make(const Label& spec, const MakeInput& in);
};

} // namespace dotlane
