// Parts that take another part's outline: a card folded at a hinge, a layer with an even reveal.
#include "core/base/finding_kind.h"
#include "core/base/text.h"
#include "core/sources/parts.h"

namespace dotlane::sources {
namespace {

constexpr FindingKind<Mm<1, 2>, WholePercent> short_hinge{
    "card.hinge",
    Grade::caution,
    to_say("The hinge is %1 mm, %2 % of the side: under 30 mm or 40 % a card tears where it is opened. More "
           "overlap makes it longer."),
    {"hinge_mm", "percent"}};

/// As if the fold were at the left: back to where it was asked for.
Affine turned_to(ShapeCard::Fold fold) {
    switch (fold) {
    case ShapeCard::Fold::left:
        return {};
    case ShapeCard::Fold::right:
        return Affine::scaling(-1, 1);
    case ShapeCard::Fold::top: // left becomes top: (x, y) -> (y, x)
        return Affine{0, 1, 1, 0, 0, 0};
    case ShapeCard::Fold::bottom:
        return Affine{0, -1, 1, 0, 0, 0};
    }
    return {};
}

constexpr double least_hinge = 30;   ///< mm: a shorter one tears where it is opened (common practice)
constexpr double least_share = 0.40; ///< of the side that is folded

} // namespace

} // namespace dotlane::sources

namespace dotlane {

Result<SourceLines> make(const ShapeCard& card, const MakeInput& in) {
    using namespace sources;
    const Borrowed* of = in.borrowed;
    if (const auto ok = needs(of, to_say("outline")); !ok) return tl::make_unexpected(ok.error());
    const Affine back = turned_to(card.fold);
    const Region shape = transformed(of->outline, back.inverse());
    const Box box = bounds(shape);
    const double fold = box.x0 + in_mm(card.overlap) / 2; // half of the overlap comes off each half
    if (fold >= box.x1)
        return fail("source.card", say("The overlap is as wide as the outline: nothing is left of it."));
    const Region half =
        intersected(shape, region_of(Shape{{rectangle({fold, box.y0 - 1, box.x1 + 1, box.y1 + 1})}}));
    // A hair of both halves lies on the other side, so that they become one.
    const double hair = 0.002;
    const Region wide = offset(half, mm(hair), {Corner::mitre, 2, mm(0.005)});
    const Affine over = Affine::translation({2 * fold, 0}) * Affine::scaling(-1, 1);
    Region whole = united({half, transformed(half, over), intersected(wide, transformed(wide, over))});
    const Polyline line{{{fold + hair, box.y0 - 1}, {fold + hair, box.y1 + 1}}, false};
    Polylines hinges = clipped({line}, shape);
    const double hinge = in_mm(length(hinges)), side = box.height();
    const auto parts = pieces(whole);
    Lines lines;
    for (const Region& piece : parts)
        lines.add(role::outline, shape_of(transformed(piece, back)));
    if (card.line != FoldedCard::Line::none)
        for (const Polyline& h : hinges) {
            double a = h.points.front().y, b = h.points.back().y;
            if (a > b) std::swap(a, b);
            a += in_mm(card.setback), b -= in_mm(card.setback);
            if (b - a < 0.5) continue;
            lines.straight(card.line == FoldedCard::Line::score ? role::fold : role::perforation,
                           back({fold, a}), back({fold, b}));
        }
    const bool across = card.fold == ShapeCard::Fold::left || card.fold == ShapeCard::Fold::right;
    const double closed = box.x1 - fold;
    lines.figure("finished_width", "mm", across ? closed : side);
    lines.figure("finished_height", "mm", across ? side : closed);
    lines.figure("hinge", "mm", hinge);
    lines.figure("hinge_percent", "", 100 * hinge / side);
    if (parts.size() > 1 || hinge < std::max(1.0, 0.02 * side))
        return fail("source.card", say("The two halves do not hold together at this fold. More overlap moves "
                                       "the fold into the shape."));
    if (hinge < least_hinge || hinge < least_share * side)
        lines.tell(short_hinge({}, {hinge}, {100 * hinge / side}));
    return lines.take();
}

} // namespace dotlane
