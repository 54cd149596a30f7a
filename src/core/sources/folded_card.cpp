#include "core/sources/parts.h"

namespace dotlane {

std::vector<Length> panels_of(const FoldedCard& card) {
    const Length side = card.opens == FoldedCard::Opens::side ? card.width : card.height;
    switch (card.fold) {
    case FoldedCard::Fold::single:
        return {side, side};
    // The two wings meet in the middle of the front, less the tuck that keeps them from pushing on each
    // other.
    case FoldedCard::Fold::gate:
        return {side / 2 - card.tuck / 2, side, side / 2 - card.tuck / 2};
    // The first panel lies inside the folded card.
    case FoldedCard::Fold::three:
        return {side - card.tuck, side, side};
    case FoldedCard::Fold::zigzag:
        return {side, side, side};
    }
    return {};
}

namespace sources {

Result<SourceLines> make(const FoldedCard& card) {
    const bool side = card.opens == FoldedCard::Opens::side;
    const std::vector<Length> panels = panels_of(card);
    Length base;
    for (const Length panel : panels) {
        if (in_mm(panel) <= 0)
            return fail("source.card", "The tuck is wider than the panel it is taken from.");
        base += panel;
    }
    const Length across = side ? card.height : card.width;
    if (card.setback * 2 >= across)
        return fail("source.card",
                    "The setback leaves nothing of the fold line: it is half the card or more.");
    const double w = in_mm(side ? base : card.width), h = in_mm(side ? card.height : base);
    Lines lines;
    lines.add(role::outline, rounded_rectangle({0, 0, w, h}, in_mm(card.corner), in_mm(card.corner)));
    lines.figure("base_width", "mm", w);
    lines.figure("base_height", "mm", h);
    double at = 0;
    for (std::size_t i = 0; i + 1 < panels.size(); ++i) {
        at += in_mm(panels[i]);
        lines.figure("fold_at", "mm", at);
        if (card.line == FoldedCard::Line::none) continue;
        const bool back = card.fold == FoldedCard::Fold::zigzag && i % 2 == 1;
        const char* fold = card.line == FoldedCard::Line::perforate ? role::perforation
                           : back                                   ? role::mountain
                                                                    : role::fold;
        const double a = in_mm(card.setback), b = in_mm(across - card.setback);
        if (side)
            lines.straight(fold, {at, a}, {at, b});
        else
            lines.straight(fold, {a, at}, {b, at});
    }
    return lines.take();
}

} // namespace sources
} // namespace dotlane
