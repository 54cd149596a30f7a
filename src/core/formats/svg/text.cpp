// Text elements to outlines: chunks begin where x or y is given; each chunk is anchored as a whole.
#include <cmath>
#include <numbers>

#include "core/base/text.h"
#include "core/formats/svg/walker.h"

namespace dotlane::svg {
namespace {

/// Where text begins along its path: so many user units and this share of the path's length, either may be
/// negative.
struct PathStart {
    double units = 0, share = 0;
};

/// A stretch of characters with one style, and where it must stand.
struct Span {
    std::string text;
    Scope scope;
    pugi::xml_node node;
    std::optional<double> x, y;
    double dx = 0, dy = 0, rotate = 0;
    pugi::xml_node path; ///< textPath target
    PathStart start;
};

std::vector<std::string> characters(const std::string& utf8) {
    std::vector<std::string> out;
    for (const char c : utf8) {
        if ((c & 0xC0) == 0x80 && !out.empty())
            out.back() += c;
        else
            out.emplace_back(1, c);
    }
    return out;
}

std::string collapsed(std::string_view text, bool keep, bool& ends_in_space) {
    std::string out;
    for (char c : text) {
        if (c == '\n' || c == '\r') {
            if (!keep) continue;
            c = ' ';
        }
        if (c == '\t') c = ' ';
        if (!keep && c == ' ' && ends_in_space) continue;
        ends_in_space = c == ' ';
        out += c;
    }
    return out;
}

struct PathFrame {
    Polyline line;
    std::vector<double> at; // running length at each point

    explicit PathFrame(Polyline l)
        : line(std::move(l)) {
        double total = 0;
        for (std::size_t i = 0; i < line.points.size(); ++i) {
            if (i > 0) total += distance(line.points[i - 1], line.points[i]);
            at.push_back(total);
        }
    }
    double total() const { return at.empty() ? 0 : at.back(); }
    std::optional<Affine> frame(double s) const {
        if (line.points.size() < 2 || s < 0 || s > total()) return std::nullopt;
        const auto it = std::upper_bound(at.begin() + 1, at.end() - 1, s);
        const auto i = static_cast<std::size_t>(it - at.begin());
        const Point a = line.points[i - 1], b = line.points[i];
        const double span = at[i] - at[i - 1];
        const Point p = mix(a, b, span > 0 ? (s - at[i - 1]) / span : 0);
        return Affine::translation(p) * Affine::rotation(std::atan2(b.y - a.y, b.x - a.x));
    }
};

} // namespace

void Walker::text(const pugi::xml_node& root, const Scope& root_scope) {
    if (!options_.fonts) return count("texts", root);
    std::vector<Span> spans;
    bool ends_in_space = true;
    const auto numbers = [&](const pugi::xml_node& n, const char* name, const Scope& s, char axis) {
        std::vector<double> out;
        for (const auto piece : split(n.attribute(name).value(), ", \t\r\n"))
            if (const auto m = parse_measure(piece)) out.push_back(in_user(*m, s, axis));
        return out;
    };
    // Collect spans in document order; positions given per character split them.
    const auto collect = [&](const auto& self, const pugi::xml_node& node, const Scope& scope,
                             pugi::xml_node path, PathStart start) -> void {
        const auto xs = numbers(node, "x", scope, 'x'), ys = numbers(node, "y", scope, 'y');
        const auto dxs = numbers(node, "dx", scope, 'x'), dys = numbers(node, "dy", scope, 'y');
        const auto turns = parse_numbers(node.attribute("rotate").value());
        std::size_t index = 0;
        const std::size_t listed =
            std::max({xs.size(), ys.size(), dxs.size(), dys.size(), turns.size() > 1 ? turns.size() : 0});
        for (const auto& child : node.children()) {
            step(child);
            if (child.type() == pugi::node_pcdata || child.type() == pugi::node_cdata) {
                std::string content = collapsed(child.value(), scope.style->keep_space, ends_in_space);
                if (content.empty()) continue;
                auto glyphs = characters(content);
                std::size_t i = 0;
                while (i < glyphs.size()) {
                    Span span{{}, scope, node, {}, {}, 0, 0, 0, path, start};
                    if (index < xs.size()) span.x = xs[index];
                    if (index < ys.size()) span.y = ys[index];
                    if (index < dxs.size()) span.dx = dxs[index];
                    if (index < dys.size()) span.dy = dys[index];
                    if (!turns.empty()) span.rotate = turns[std::min(index, turns.size() - 1)];
                    const bool single = index + 1 < listed || (!turns.empty() && turns[0] != 0);
                    do
                        span.text += glyphs[i++], ++index;
                    while (i < glyphs.size() && !single);
                    spans.push_back(std::move(span));
                }
                continue;
            }
            if (child.type() != pugi::node_element) continue;
            const auto name = local_name(child.name());
            if (name != "tspan" && name != "textPath" && name != "a" && name != "tref") continue;
            Scope inner = scope;
            inner.style = style_of(child, scope.style);
            if (!inner.style->displayed) continue;
            pugi::xml_node inner_path = path;
            PathStart inner_start = start;
            if (name == "textPath") {
                const auto href = href_of(child);
                if (!href.starts_with('#')) {
                    outside_ += !href.empty();
                    continue;
                }
                inner_path = by_id(href.substr(1));
                const auto given = parse_measure(child.attribute("startOffset").value());
                inner_start = !given                         ? PathStart{}
                              : given->unit == Unit::percent ? PathStart{0, given->value / 100}
                                                             : PathStart{in_user(*given, scope, 'd'), 0};
                if (!inner_path) continue;
            }
            self(self, child, inner, inner_path, inner_start);
        }
    };
    collect(collect, root, root_scope, {}, {});
    while (!spans.empty() && !spans.back().scope.style->keep_space && spans.back().text.ends_with(' ')) {
        spans.back().text.pop_back();
        if (!spans.back().text.empty()) break;
        spans.pop_back();
    }

    double x = 0, y = 0;
    std::size_t begin = 0;
    while (begin < spans.size()) {
        std::size_t end = begin + 1;
        while (end < spans.size() && !spans[end].x && !spans[end].y && spans[end].path == spans[begin].path)
            ++end;
        if (spans[begin].x) x = *spans[begin].x;
        if (spans[begin].y) y = *spans[begin].y;
        std::vector<OutlinedText> runs;
        double total = 0;
        for (std::size_t i = begin; i < end; ++i) {
            const Style& s = *spans[i].scope.style;
            auto run =
                options_.fonts->outline({s.font_family, s.italic, s.weight}, mm(s.font_size), spans[i].text);
            if (!run) {
                count("texts", root);
                return;
            }
            total +=
                spans[i].dx + run->advance_mm + s.letter_spacing * static_cast<double>(run->glyphs.size());
            runs.push_back(std::move(*run));
        }
        const auto anchor = spans[begin].scope.style->anchor;
        double pen = -(anchor == Style::Anchor::middle ? total / 2
                       : anchor == Style::Anchor::end  ? total
                                                       : 0);
        double rise = 0;
        std::optional<PathFrame> frame;
        if (spans[begin].path) {
            auto on_path = shape_of(spans[begin].path, "path", spans[begin].scope);
            if (on_path) {
                const auto t = parse_transform(spans[begin].path.attribute("transform").value());
                frame.emplace(
                    flattened(transformed(on_path->contours.front(), t.value_or(Affine{})), mm(0.05)));
                pen += spans[begin].start.units + spans[begin].start.share * frame->total();
            }
        }
        for (std::size_t i = begin; i < end; ++i) {
            const Span& span = spans[i];
            pen += span.dx;
            rise += span.dy;
            Shape all{{}, FillRule::nonzero};
            double origin = 0;
            for (GlyphOutline& glyph : runs[i - begin].glyphs) {
                Affine place = Affine::translation({x + pen - origin, y + rise});
                if (frame) {
                    const auto on = frame->frame(pen + glyph.advance_mm / 2);
                    place = on ? *on * Affine::translation({-glyph.advance_mm / 2 - origin, rise})
                               : Affine{0, 0, 0, 0, 0, 0};
                } else if (span.rotate != 0) {
                    place = Affine::translation({x + pen, y + rise}) *
                            Affine::rotation(span.rotate * std::numbers::pi / 180) *
                            Affine::translation({-origin, 0});
                }
                if (place.a != 0 || place.b != 0)
                    for (const Contour& c : glyph.shape.contours)
                        all.contours.push_back(transformed(c, place));
                origin += glyph.advance_mm;
                pen += glyph.advance_mm + span.scope.style->letter_spacing;
            }
            if (!all.contours.empty()) {
                counted_["texts turned to outlines"].times += 1;
                if (counted_["texts turned to outlines"].first_line == 0)
                    counted_["texts turned to outlines"].first_line = line_of(root);
                emit(root, span.scope, std::move(all));
            }
            if (runs[i - begin].missing_glyphs > 0)
                counted_["characters without a glyph"].times += runs[i - begin].missing_glyphs;
        }
        x += pen;
        y += rise;
        begin = end;
    }
}

} // namespace dotlane::svg
