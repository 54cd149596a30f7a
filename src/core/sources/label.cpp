// Labels, tags and badges. All curves are arcs that meet at true tangents.
#include "core/base/measure.h"
#include "core/base/text.h"
#include "core/sources/parts.h"

namespace dotlane::sources {
namespace {

/// Corners cut by quarter circles whose centres are the corners themselves.
Contour notched(double w, double h, double r) {
    Contour c{{r, 0}, {}, true};
    c.line_to({w - r, 0});
    c.arc_to(r, r, 0, false, false, {w, r});
    c.line_to({w, h - r});
    c.arc_to(r, r, 0, false, false, {w - r, h});
    c.line_to({r, h});
    c.arc_to(r, r, 0, false, false, {0, h - r});
    c.line_to({0, r});
    c.arc_to(r, r, 0, false, false, {r, 0});
    return c;
}

/// Both ends are curly brackets: each half of an end is two quarter circles of one radius, the first turning
/// down from the long edge, the second out to the tip, so that all joints but the tip are tangent.
Contour bracket(double w, double h, double depth) {
    const double r = std::min({depth / 2, h / 4, w / 4});
    const double x0 = 2 * r, x1 = w - 2 * r, m = h / 2;
    Contour c{{x0, 0}, {}, true};
    c.line_to({x1, 0});
    c.arc_to(r, r, 0, false, true, {x1 + r, r});
    c.line_to({x1 + r, m - r});
    c.arc_to(r, r, 0, false, false, {w, m});
    c.arc_to(r, r, 0, false, false, {x1 + r, m + r});
    c.line_to({x1 + r, h - r});
    c.arc_to(r, r, 0, false, true, {x1, h});
    c.line_to({x0, h});
    c.arc_to(r, r, 0, false, true, {x0 - r, h - r});
    c.line_to({x0 - r, m + r});
    c.arc_to(r, r, 0, false, false, {0, m});
    c.arc_to(r, r, 0, false, false, {x0 - r, m - r});
    c.line_to({x0 - r, r});
    c.arc_to(r, r, 0, false, true, {x0, 0});
    return c;
}

/// Circles of one radius: a quarter is cut out of each true corner, a half is added to the middle of each
/// short side. What is cut out and what is added are the same, so the area is that of the rectangle.
Contour circled(double w, double h, double r) {
    Contour c{{2 * r, 0}, {}, true};
    c.line_to({w, 0});
    c.arc_to(r, r, 0, false, false, {w + r, r});
    c.line_to({w + r, h / 2 - r});
    c.arc_to(r, r, 0, false, true, {w + r, h / 2 + r});
    c.line_to({w + r, h - r});
    c.arc_to(r, r, 0, false, false, {w, h});
    c.line_to({2 * r, h});
    c.arc_to(r, r, 0, false, false, {r, h - r});
    c.line_to({r, h / 2 + r});
    c.arc_to(r, r, 0, false, true, {r, h / 2 - r});
    c.line_to({r, r});
    c.arc_to(r, r, 0, false, false, {2 * r, 0});
    return c;
}

/// The label with all that its edge adds to the finished width.
double overall_width(const Label& label) {
    return in_mm(label.width) + (label.edge == Label::Edge::circles ? in_mm(label.circle) : 0);
}

constexpr double scallop_depth = 0.3; ///< of its width: between flat and a half circle

/// Whole scallops on all four sides. Their widths follow from the finished size, of which the bulges are a
/// part: nx cx + 2 k cy = w and ny cy + 2 k cx = h, with k the depth of a scallop per width.
Contour scalloped(double w, double h, double wished, double& cx, double& cy) {
    const double nx = std::max(1.0, std::round((w - 2 * scallop_depth * wished) / wished)),
                 ny = std::max(1.0, std::round((h - 2 * scallop_depth * wished) / wished));
    const double k = 2 * scallop_depth, det = nx * ny - k * k;
    cx = (w * ny - k * h) / det;
    cy = (h * nx - k * w) / det;
    const auto radius = [](double chord) {
        const double s = chord * scallop_depth;
        return (chord * chord / 4 + s * s) / (2 * s);
    };
    const double left = scallop_depth * cy, top = scallop_depth * cx;
    Contour c{{left, top}, {}, true};
    Point at = c.start;
    const auto side = [&](double count, Point step, double chord) {
        for (int i = 0; i < static_cast<int>(count); ++i) {
            at = at + step;
            c.arc_to(radius(chord), radius(chord), 0, false, true, at);
        }
    };
    side(nx, {cx, 0}, cx);
    side(ny, {0, cy}, cy);
    side(nx, {-cx, 0}, cx);
    side(ny, {0, -cy}, cy);
    return c;
}

/// Far inside a scalloped edge only its cusps count, and they are as good as a straight line: a circle of
/// radius d around each of them leaves bumps of c^2 / 8d between them, below a thirty-second of a scallop's
/// width at d = 4 c.
Region inset(const Region& area, double by, double cx, double cy) {
    if (cx == 0 || by < 4 * std::max(cx, cy)) return offset(area, mm(-by), {Corner::round, 10, mm(0.01)});
    const Box box = bounds(area);
    const double left = scallop_depth * cy + by, top = scallop_depth * cx + by;
    const Box inner{box.x0 + left, box.y0 + top, box.x1 - left, box.y1 - top};
    return inner.x1 > inner.x0 && inner.y1 > inner.y0 ? region_of(Shape{{rectangle(inner)}}) : Region{};
}

} // namespace

namespace {

/// Adds a label with its top-left corner at (left, 0).
Result<void> add_label(Lines& lines, const Label& label, double left, bool tell) {
    const double w = in_mm(label.width), h = in_mm(label.height), corner = in_mm(label.corner);
    const double r = std::min({corner, w / 2, h / 2});
    const Affine there = Affine::translation({left, 0});
    Contour edge;
    double cx = 0, cy = 0;
    switch (label.edge) {
    case Label::Edge::plain:
        edge = rectangle({0, 0, w, h});
        break;
    case Label::Edge::rounded:
        edge = rounded_rectangle({0, 0, w, h}, r, r);
        break;
    case Label::Edge::bracket:
        edge = bracket(w, h, corner);
        break;
    case Label::Edge::scalloped:
        edge = scalloped(w, h, in_mm(label.scallop), cx, cy);
        if (cx <= 0 || cy <= 0) return fail("source.label", say("The scallops are too wide for this label."));
        if ((w + h) / std::min(cx, cy) > 1000)
            return fail("source.label", say("So many scallops are too fine to be cut."));
        if (tell) lines.figure("scallop_across", "mm", cx);
        if (tell) lines.figure("scallop_down", "mm", cy);
        break;
    case Label::Edge::notched:
        edge = notched(w, h, std::min(r, std::min(w, h) / 2 * 0.98));
        break;
    case Label::Edge::oval:
        edge = ellipse({w / 2, h / 2}, w / 2, h / 2);
        break;
    case Label::Edge::circles: {
        const double d = in_mm(label.circle);
        if (h < 2 * d || w < d)
            return fail("source.label", say("Circles of %1 mm need a label of at least %2 x %3 mm.",
                                            number(d, 2), number(d, 2), number(2 * d, 2)));
        edge = circled(w, h, d / 2);
        if (tell) lines.figure("overall_width", "mm", overall_width(label));
        break;
    }
    }
    const Shape outline{{edge}};
    const Region area = region_of(outline, mm(0.005));
    lines.add(role::outline, transformed(outline, there));
    if (in_mm(label.border) > 0) {
        const Region inner = inset(area, in_mm(label.border), cx, cy);
        if (inner.empty()) return fail("source.label", say("The border's inset leaves no room for it."));
        lines.add(role::border, transformed(shape_of(inner), there));
    }
    if (label.hole != Label::Hole::none) {
        const double d = in_mm(label.hole_size), top = in_mm(label.hole_inset);
        const double wide = label.hole == Label::Hole::slot ? std::max(in_mm(label.slot_width), d) : d;
        const double middle = overall_width(label) / 2;
        const Box box{middle - wide / 2, top, middle + wide / 2, top + d};
        const Contour hole = rounded_rectangle(box, d / 2, d / 2);
        const Region outside = subtracted(region_of(Shape{{hole}}), area);
        if (!outside.empty()) return fail("source.label", say("The hole does not lie inside the label."));
        lines.add(role::hole, transformed(hole, there));
    }
    return {};
}

/// "60x40, 2in x 1in"; bare numbers are millimetres.
Result<std::vector<std::pair<Length, Length>>> sizes_of(const std::string& text) {
    std::vector<std::pair<Length, Length>> out;
    for (const std::string_view one : split(text, ",;")) {
        if (trimmed(one).empty()) continue;
        const std::size_t x = one.find_first_of("xX*");
        const auto width = parse_length(std::string(one.substr(0, x)), LengthUnit::mm),
                   height = x == std::string_view::npos
                                ? width
                                : parse_length(std::string(one.substr(x + 1)), LengthUnit::mm);
        if (!width || !height || x == std::string_view::npos || in_mm(*width) < 3 || in_mm(*height) < 3 ||
            in_mm(*width) > 2000 || in_mm(*height) > 2000 || out.size() >= 50)
            return fail("source.label", say("\"%1\" is no size of a label. Write 60x40 or 2in x 1in, from 3 "
                                            "to 2000 mm, at most 50 of them.",
                                            trimmed(one)));
        out.emplace_back(*width, *height);
    }
    return out;
}

constexpr double set_gap = 4; ///< mm between the labels of a set

} // namespace

} // namespace dotlane::sources

namespace dotlane {

Result<SourceLines> make(const Label& label, const MakeInput&) {
    using namespace sources;
    const auto sizes = sizes_of(label.also);
    if (!sizes) return tl::make_unexpected(sizes.error());
    Lines lines;
    if (const auto ok = add_label(lines, label, 0, true); !ok) return tl::make_unexpected(ok.error());
    double left = overall_width(label) + set_gap;
    for (const auto& [width, height] : *sizes) {
        Label other = label;
        other.width = width, other.height = height;
        if (const auto ok = add_label(lines, other, left, false); !ok) return tl::make_unexpected(ok.error());
        left += overall_width(other) + set_gap;
    }
    if (!sizes->empty()) lines.figure("labels", "", static_cast<double>(sizes->size() + 1));
    return lines.take();
}

} // namespace dotlane
