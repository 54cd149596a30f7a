#include "core/sources/make.h"

#include "core/sources/parts.h"

namespace dotlane {

Result<SourceLines> make_lines(const SourceSpec& spec, FontShelf& fonts) {
    RangeCheck ranges;
    SourceSpec checked = spec;
    fields(checked, ranges);
    if (const auto ok = ranges.result(); !ok) return tl::make_unexpected(ok.error());
    if (const auto* lettering = std::get_if<Lettering>(&spec)) return sources::make(*lettering, fonts);
    return std::visit(
        [](const auto& s) -> Result<SourceLines> {
            using Spec = std::decay_t<decltype(s)>;
            if constexpr (std::is_same_v<Spec, FromFile> || std::is_same_v<Spec, Lettering>)
                return fail("source.file", "The lines of a file are not computed.");
            else
                return sources::make(s);
        },
        spec);
}

namespace sources {

void Lines::add(const char* role, Shape shape, std::string name) {
    DrawnLine line;
    line.id = LineId{static_cast<std::uint32_t>(drawing_.lines.size() + 1)};
    line.group = role;
    line.name = std::move(name);
    line.shape = std::move(shape);
    drawing_.lines.push_back(std::move(line));
}

void Lines::straight(const char* role, Point a, Point b) {
    Contour c{a, {}, false};
    c.line_to(b);
    add(role, std::move(c));
}

SourceLines Lines::take() {
    const Box box = bounds(drawing_);
    drawing_.page_width = mm(box.width());
    drawing_.page_height = mm(box.height());
    return {std::make_shared<const Drawing>(std::move(drawing_)), std::move(findings_), std::move(figures_)};
}

Contour polygon(const std::vector<Point>& points) {
    Contour c{points.front(), {}, true};
    for (std::size_t i = 1; i < points.size(); ++i)
        c.line_to(points[i]);
    return c;
}

Shape shape_of(const Region& region) {
    Shape shape;
    for (const Ring& ring : region.rings)
        shape.contours.push_back(polygon(ring));
    return shape;
}

} // namespace sources
} // namespace dotlane
