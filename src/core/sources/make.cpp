#include "core/sources/make.h"

#include "core/sources/parts.h"

namespace dotlane {

Result<SourceLines> make_lines(const SourceSpec& spec, FontShelf& fonts, const Borrowed* borrowed,
                               Progress& progress) {
    RangeCheck ranges;
    SourceSpec checked = spec;
    fields(checked, ranges);
    if (const auto ok = ranges.result(); !ok) return tl::make_unexpected(ok.error());
    return std::visit(
        [&](const auto& s) -> Result<SourceLines> {
            using Spec = std::decay_t<decltype(s)>;
            if constexpr (std::is_same_v<Spec, FromFile>)
                return fail("source.file", "The lines of a file are not computed.");
            else if constexpr (std::is_same_v<Spec, Lettering>)
                return sources::make(s, fonts, borrowed);
            else if constexpr (std::is_same_v<Spec, Picture>)
                return sources::make(s, progress);
            else if constexpr (std::is_same_v<Spec, RepeatPattern> || std::is_same_v<Spec, ShapeCard> ||
                               std::is_same_v<Spec, Layer>)
                return sources::make(s, borrowed);
            else
                return sources::make(s);
        },
        spec);
}

Result<SourceLines> make_lines(const PartStep& step, const Borrowed* borrowed) {
    const bool some = borrowed && step.take == PartStep::Take::lines && !borrowed->open.empty();
    if (const auto ok = sources::needs(borrowed, "lines"); !ok && !some)
        return tl::make_unexpected(ok.error());
    sources::Lines lines;
    const Affine size = Affine::scaling(step.percent / 100, step.percent / 100);
    if (step.take == PartStep::Take::outline)
        for (const Region& piece : pieces(borrowed->outline))
            lines.add(role::outline, sources::shape_of(transformed(piece, size)));
    else {
        for (const Region& area : borrowed->areas)
            lines.add(role::outline, sources::shape_of(transformed(area, size)));
        for (const Polyline& line : transformed(borrowed->open, size)) {
            Contour c{line.points.front(), {}, false};
            for (std::size_t i = 1; i < line.points.size(); ++i)
                c.line_to(line.points[i]);
            lines.add(role::outline, Shape{{c}});
        }
    }
    return lines.take();
}

std::vector<std::string> known_roles(const SourceSpec& spec) {
    if (const auto* picture = std::get_if<Picture>(&spec)) {
        if (picture->levels == 1) return {role::traced};
        std::vector<std::string> out;
        for (int i = 1; i <= picture->levels; ++i)
            if (picture->only == 0 || picture->only == i)
                out.push_back(std::string(role::traced) + " " + std::to_string(i));
        return out;
    }
    if (const auto* card = std::get_if<ShapeCard>(&spec)) {
        if (card->line == FoldedCard::Line::none) return {role::outline};
        return {role::outline, card->line == FoldedCard::Line::score ? role::fold : role::perforation};
    }
    if (std::holds_alternative<Layer>(spec)) return {role::outline};
    if (const auto* pattern = std::get_if<RepeatPattern>(&spec))
        if (pattern->motif == RepeatPattern::Motif::part)
            return pattern->frame ? std::vector<std::string>{role::outline, role::motif}
                                  : std::vector<std::string>{role::motif};
    if (const auto* lettering = std::get_if<Lettering>(&spec))
        if (lettering->path == Lettering::Path::outline)
            return {lettering->kind == Lettering::Kind::outlines ? role::letters : role::strokes};
    return {};
}

namespace sources {

Result<void> needs(const Borrowed* borrowed, const char* for_what) {
    if (!borrowed)
        return fail("source.part", std::string("Choose the part whose ") + for_what + " it takes.");
    if (borrowed->outline.empty())
        return fail("source.part",
                    std::string("The part has no closed lines, so no ") + for_what + " to take.");
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
