// Boxes, sleeves and envelopes, laid flat. Allowances for the stock: a panel that wraps around others is
// longer by the stock's thickness for each fold, half of it on either side (common practice).
#include "core/sources/parts.h"

namespace dotlane::sources {
namespace {

struct Panels {
    std::vector<double> x; ///< of the folds, 0 first, the far edge of the last panel last
};

const char* fold_of(const Carton& c) {
    return c.folds == Fold::mountain ? role::mountain : role::fold;
}

/// Four panels side by side.
Panels four(const Carton& c) {
    const double t = in_mm(c.thickness), w = in_mm(c.width) + t, d = in_mm(c.depth) + t;
    return {{0, w, w + d, 2 * w + d, 2 * (w + d)}};
}

constexpr double tab_taper = 0.6; ///< of the tab's width, taken off both of its ends so that it slips in

Result<SourceLines> sleeve(const Carton& c) {
    const Panels p = four(c);
    const double h = in_mm(c.height), tab = in_mm(c.tab), end = p.x.back();
    const double slant = std::min(tab * tab_taper, h / 3);
    Lines lines;
    lines.add(role::outline,
              polygon({{0, 0}, {end, 0}, {end + tab, slant}, {end + tab, h - slant}, {end, h}, {0, h}}));
    for (std::size_t i = 1; i < p.x.size(); ++i)
        lines.straight(fold_of(c), {p.x[i], 0}, {p.x[i], h});
    if (c.windows)
        for (std::size_t i = 0; i + 1 < p.x.size(); ++i) {
            const Box hole{p.x[i] + in_mm(c.frame), in_mm(c.frame), p.x[i + 1] - in_mm(c.frame),
                           h - in_mm(c.frame)};
            if (hole.x1 - hole.x0 < 1 || hole.y1 - hole.y0 < 1)
                return fail("source.carton", say("The frame leaves no room for a window."));
            lines.add(role::window, rectangle(hole));
        }
    lines.figure("flat_width", "mm", end + tab);
    lines.figure("flat_height", "mm", h);
    return lines.take();
}

/// Straight tuck: lid and floor hang on the same panel, the third; dust flaps on the second and fourth.
Result<SourceLines> tuck_box(const Carton& c) {
    const Panels p = four(c);
    const double t = in_mm(c.thickness), d = in_mm(c.depth), tab = in_mm(c.tab), end = p.x.back();
    const double lid = d, tuck = std::min(d * 0.75, 18.0), flap = std::min(d * 0.5, in_mm(c.width) * 0.5);
    const double top = lid + tuck, h = in_mm(c.height) + t, foot = top + h;
    const double slant = std::min(tab * tab_taper, h / 3), ease = std::max(0.5, t);
    const auto corner = std::min(tuck * 0.6, in_mm(c.width) / 4);
    Contour o{{0, top}, {}, true};
    o.line_to({p.x[1], top});
    const auto dust = [&](double a, double b, double y, double up) { // a flap from a to b that rises from y
        o.line_to({a + ease, y + up * ease});
        o.line_to({a + (b - a) * 0.15, y + up * flap});
        o.line_to({b - (b - a) * 0.15, y + up * flap});
        o.line_to({b - (b > a ? ease : -ease), y + up * ease});
        o.line_to({b, y});
    };
    dust(p.x[1], p.x[2], top, -1);
    o.line_to({p.x[2], tuck});
    o.line_to({p.x[2], corner});
    o.arc_to(corner, corner, 0, false, true, {p.x[2] + corner, 0});
    o.line_to({p.x[3] - corner, 0});
    o.arc_to(corner, corner, 0, false, true, {p.x[3], corner});
    o.line_to({p.x[3], top});
    dust(p.x[3], p.x[4], top, -1);
    o.line_to({end + tab, top + slant});
    o.line_to({end + tab, foot - slant});
    o.line_to({end, foot});
    const double far = foot + lid + tuck;
    // Back along the foot, from right to left.
    o.line_to({p.x[4] - ease, foot + ease});
    o.line_to({p.x[4] - d * 0.15, foot + flap});
    o.line_to({p.x[3] + d * 0.15, foot + flap});
    o.line_to({p.x[3] + ease, foot + ease});
    o.line_to({p.x[3], foot});
    o.line_to({p.x[3], far - corner});
    o.arc_to(corner, corner, 0, false, true, {p.x[3] - corner, far});
    o.line_to({p.x[2] + corner, far});
    o.arc_to(corner, corner, 0, false, true, {p.x[2], far - corner});
    o.line_to({p.x[2], foot});
    o.line_to({p.x[2] - ease, foot + ease});
    o.line_to({p.x[2] - d * 0.15, foot + flap});
    o.line_to({p.x[1] + d * 0.15, foot + flap});
    o.line_to({p.x[1] + ease, foot + ease});
    o.line_to({p.x[1], foot});
    o.line_to({0, foot});
    Lines lines;
    lines.add(role::outline, o);
    for (std::size_t i = 1; i < p.x.size(); ++i)
        lines.straight(fold_of(c), {p.x[i], top}, {p.x[i], foot});
    for (const double y : {top, foot}) {
        for (const std::size_t i : {1U, 2U, 3U}) // dust flaps and lid hang on these
            lines.straight(fold_of(c), {p.x[i], y}, {p.x[i + 1], y});
    }
    lines.straight(fold_of(c), {p.x[2], tuck}, {p.x[3], tuck});
    lines.straight(fold_of(c), {p.x[2], far - tuck}, {p.x[3], far - tuck});
    lines.figure("flat_width", "mm", end + tab);
    lines.figure("flat_height", "mm", far);
    return lines.take();
}

/// Side flaps are glued under the bottom flap; the top flap closes.
Result<SourceLines> envelope(const Carton& c) {
    const double w = in_mm(c.width) + 2 * in_mm(c.ease), h = in_mm(c.height) + 2 * in_mm(c.ease),
                 tab = in_mm(c.tab);
    const double bottom = h * 0.8, lid = h * 0.45, slant = tab * tab_taper, x0 = tab, y0 = lid;
    if (tab > w / 2) return fail("source.carton", say("The side flaps are wider than half the envelope."));
    const double r = std::min({lid * 0.3, w * 0.2, bottom * 0.3});
    Contour o{{x0, y0}, {}, true};
    o.line_to({x0 + slant, r * 0.6});
    o.cubic_to({x0 + slant + 1, r * 0.1}, {x0 + slant + r * 0.4, 0}, {x0 + slant + r, 0});
    o.line_to({x0 + w - slant - r, 0});
    o.cubic_to({x0 + w - slant - r * 0.4, 0}, {x0 + w - slant - 1, r * 0.1}, {x0 + w - slant, r * 0.6});
    o.line_to({x0 + w, y0});
    o.line_to({x0 + w + tab, y0 + slant});
    o.line_to({x0 + w + tab, y0 + h - slant});
    o.line_to({x0 + w, y0 + h});
    o.line_to({x0 + w - slant / 2, y0 + h + bottom});
    o.line_to({x0 + slant / 2, y0 + h + bottom});
    o.line_to({x0, y0 + h});
    o.line_to({x0 - tab, y0 + h - slant});
    o.line_to({x0 - tab, y0 + slant});
    Lines lines;
    lines.add(role::outline, o);
    lines.straight(fold_of(c), {x0, y0}, {x0 + w, y0});
    lines.straight(fold_of(c), {x0, y0 + h}, {x0 + w, y0 + h});
    lines.straight(fold_of(c), {x0, y0}, {x0, y0 + h});
    lines.straight(fold_of(c), {x0 + w, y0}, {x0 + w, y0 + h});
    lines.figure("inside_width", "mm", w);
    lines.figure("inside_height", "mm", h);
    lines.figure("flat_width", "mm", w + 2 * tab);
    lines.figure("flat_height", "mm", y0 + h + bottom);
    return lines.take();
}

} // namespace

} // namespace dotlane::sources

namespace dotlane {

Result<SourceLines> make(const Carton& carton, const MakeInput&) {
    using namespace sources;
    switch (carton.kind) {
    case Carton::Kind::sleeve:
        return sleeve(carton);
    case Carton::Kind::tuck_box:
        return tuck_box(carton);
    case Carton::Kind::envelope:
        return envelope(carton);
    }
    return fail("source.carton", say("There is no such carton."));
}

} // namespace dotlane
