#include "core/sources/make.h"

#include "core/sources/parts.h"

namespace dotlane {

Result<SourceLines> make_lines(const SourceSpec& spec, FontShelf& fonts, const Borrowed* borrowed,
                               Progress& progress) {
    RangeCheck ranges;
    SourceSpec checked = spec;
    fields(checked, ranges);
    if (const auto ok = ranges.result(); !ok) return tl::make_unexpected(ok.error());
    return std::visit([&](const auto& s) { return make(s, MakeInput{fonts, borrowed, progress}); }, spec);
}

Result<SourceLines> make_lines(const StepWhat& what, FontShelf& fonts, const Borrowed* borrowed,
                               Progress& progress) {
    const MakeInput in{fonts, borrowed, progress};
    return std::visit(
        [&](const auto& step) -> Result<SourceLines> {
            if constexpr (requires { make(step, in); }) return make(step, in);
            return fail("source.brings", say("This step brings no lines of its own."));
        },
        what);
}

Result<SourceLines> make(const FromFile&, const MakeInput&) {
    return fail("source.file", say("The lines of a file are not computed."));
}

namespace sources {

Result<void> needs(const Borrowed* borrowed, const char* for_what) {
    if (!borrowed)
        return fail("source.part", say("Choose the part whose %1 it takes.", as_word(core_words, for_what)));
    if (borrowed->outline.empty())
        return fail("source.part",
                    say("The part has no closed lines, so no %1 to take.", as_word(core_words, for_what)));
    return {};
}

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
