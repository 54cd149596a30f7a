#include <algorithm>

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
namespace {

constexpr double between = 4;       ///< mm; from panel to panel, for showing: they are laid apart
constexpr double hinge_taper = 0.5; ///< of the hinge's width, taken off both of its ends so that it hides

/// A panel lying in [0, width] x [0, height], with a strip beyond its right edge unless it is the last; outer
/// corners of the whole card are rounded.
Contour panel_with_hinge(double width, double height, double hinge, double corner, bool first, bool last) {
    const double r = std::min({corner, width / 2, height / 2}), left = first ? r : 0, right = last ? r : 0;
    Contour c{{left, 0}, {}, true};
    c.line_to({width - right, 0});
    if (right > 0) c.arc_to(r, r, 0, false, true, {width, r});
    if (!last) {
        const double slant = std::min(hinge * hinge_taper, height / 4);
        c.line_to({width + hinge, slant});
        c.line_to({width + hinge, height - slant});
    }
    c.line_to({width, height - right});
    if (right > 0) c.arc_to(r, r, 0, false, true, {width - r, height});
    c.line_to({left, height});
    if (left > 0) {
        c.arc_to(r, r, 0, false, true, {0, height - r});
        c.line_to({0, r});
        c.arc_to(r, r, 0, false, true, {r, 0});
    }
    return c;
}

/// Each panel for itself, in a row.
/// What is seen of a card is its front, as large as the folded card.
Result<SourceLines> with_face(Result<SourceLines> made, const FoldedCard& card) {
    const double r = in_mm(card.corner);
    if (made) made->face = Shape{{rounded_rectangle({0, 0, in_mm(card.width), in_mm(card.height)}, r, r)}};
    return made;
}

Result<SourceLines> in_panels(const FoldedCard& card, const std::vector<Length>& panels) {
    const bool side = card.opens == FoldedCard::Opens::side;
    const double across = in_mm(side ? card.height : card.width), hinge = in_mm(card.hinge);
    // A card that opens at its top is one that opens at its side, with x and y exchanged.
    const Affine lie = side ? Affine{} : Affine{0, 1, 1, 0, 0, 0};
    Lines lines;
    double at = 0, longest = 0;
    for (std::size_t i = 0; i < panels.size(); ++i) {
        const double panel = in_mm(panels[i]);
        const bool first = i == 0, last = i + 1 == panels.size();
        const Affine put = lie * Affine::translation({at, 0});
        lines.add(role::outline,
                  transformed(panel_with_hinge(panel, across, hinge, in_mm(card.corner), first, last), put));
        const bool back = card.fold == FoldedCard::Fold::zigzag && i % 2 == 1;
        if (!last && card.line != FoldedCard::Line::none) {
            const double a = in_mm(card.setback);
            lines.straight(card.line == FoldedCard::Line::perforate ? role::perforation
                           : back                                   ? role::mountain
                                                                    : role::fold,
                           put(Point{panel, a}), put(Point{panel, across - a}));
        }
        longest = std::max(longest, panel + (last ? 0 : hinge));
        at += panel + (last ? 0 : hinge) + between;
    }
    lines.figure("panels", "", static_cast<double>(panels.size()));
    lines.figure("panel_width", "mm", side ? longest : across);
    lines.figure("panel_height", "mm", side ? across : longest);
    return lines.take();
}

} // namespace

} // namespace sources

Result<SourceLines> make(const FoldedCard& card, const MakeInput&) {
    using namespace sources;
    const bool side = card.opens == FoldedCard::Opens::side;
    const std::vector<Length> panels = panels_of(card);
    Length base;
    for (const Length panel : panels) {
        if (in_mm(panel) <= 0)
            return fail("source.card", say("The tuck is wider than the panel it is taken from."));
        base += panel;
    }
    const Length across = side ? card.height : card.width;
    if (card.setback * 2 >= across)
        return fail("source.card",
                    say("The setback leaves nothing of the fold line: it is half the card or more."));
    const double w = in_mm(side ? base : card.width), h = in_mm(side ? card.height : base);
    Lines lines;
    if (in_mm(card.hinge) > 0) return with_face(in_panels(card, panels), card);
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
    return with_face(lines.take(), card);
}

} // namespace dotlane
