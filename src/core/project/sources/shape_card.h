// A card in the outline of another part: what lies beyond the fold is mirrored, so that both halves are one
// piece where they meet. Both halves together are twice the outline, less the overlap.
#pragma once

#include "core/project/sources/folded_card.h"
#include "core/project/sources/kind.h"

namespace dotlane {

struct ShapeCard {
    enum class Fold { left, right, top, bottom };
    PartId of;
    Fold fold = Fold::left;
    Length overlap = mm(8); ///< of the two halves: the fold lies half of it inside each outline, 0..1000 mm
    FoldedCard::Line line = FoldedCard::Line::score;
    Length setback = mm(1); ///< the fold line stops this far before the ends of the hinge, 0..50 mm
    bool operator==(const ShapeCard&) const = default;

    PartId* lender() { return &of; }
    std::vector<std::string> roles() const {
        if (line == FoldedCard::Line::none) return {role::outline};
        return {role::outline, line == FoldedCard::Line::score ? role::fold : role::perforation};
    }
    static ShapeCard sample() {
        ShapeCard out;
        out.overlap = mm(12);
        return out;
    }

    static constexpr SourceRow row{.key = "shape-card",
                                   .name = "Shape card",
                                   .about = "Another part's outline, folded at a hinge.",
                                   .wanted = SourceRow::Wanted::shapes};
    friend void fields(ShapeCard& s, Fields& f) {
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
    friend Result<SourceLines> make(const ShapeCard& spec, const MakeInput& in);
};

} // namespace dotlane
