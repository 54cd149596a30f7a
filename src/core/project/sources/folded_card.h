// A card that is folded; sizes are those of the folded card.
#pragma once

#include "core/project/sources/kind.h"

namespace dotlane {

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

    static constexpr SourceRow row{.key = "folded-card",
                                   .name = "Folded card",
                                   .about = "From the finished size: base, folds, envelopes.",
                                   .wanted = SourceRow::Wanted::folded};
    friend void fields(FoldedCard& s, Fields& f) {
        f.length({"width", "finished width"}, s.width, mm(5), mm(2000));
        f.length({"height", "finished height"}, s.height, mm(5), mm(2000));
        f.one_of({"fold", "fold"}, s.fold, {"single", "gate", "three", "zigzag"});
        f.one_of({"opens", "opens at the"}, s.opens, {"side", "top"});
        f.one_of({"line", "fold line"}, s.line, {"score", "perforate", "none"});
        if (f.when(s.line != FoldedCard::Line::none))
            f.length({"setback", "setback", "The fold line stops this far before the edges"}, s.setback,
                     mm(0), mm(50));
        if (f.when(s.fold == FoldedCard::Fold::gate || s.fold == FoldedCard::Fold::three))
            f.length({"tuck", "tuck", "Panels that fold inwards are narrower by this"}, s.tuck, mm(0),
                     mm(20));
        f.length({"corner", "corner radius"}, s.corner, mm(0), mm(200));
        f.length({"hinge",
                  "glued hinge",
                  "0: of one sheet; otherwise panels, joined by strips this wide",
                  {6, "0"}},
                 s.hinge, mm(0), mm(50));
    }
    friend Result<SourceLines> make(const FoldedCard& spec, const MakeInput& in);
};

} // namespace dotlane
