// From an element's shape and style to a drawn line: styles are computed, paints resolved, clips applied.
#include <algorithm>
#include <cmath>

#include "core/base/text.h"
#include "core/formats/svg/walker.h"

namespace dotlane::svg {
namespace {

/// What is not drawn has no properties either: two drawings that look alike are equal.
void forget_stroke(Drawn& drawn) {
    Drawn plain;
    plain.fill = drawn.fill;
    plain.fill_opacity = drawn.fill_opacity;
    drawn = plain;
}

void forget_fill(Drawn& drawn) {
    drawn.fill.reset();
    drawn.fill_opacity = 1;
}

} // namespace

SharedStyle Walker::style_of(const pugi::xml_node& node, const SharedStyle& parent) {
    const auto computed = [&] {
        auto style = std::make_shared<const Style>(sheet_.compute(node, *parent, outside_));
        if (sheet_.work() > 20 * options_.limits.visits) too_large(node); // selectors that try everything
        return style;
    };
    // Elements of a drawing are alike: all that the style depends on is the key.
    if (!sheet_.simple()) return computed();
    style_key_.clear();
    const auto add = [&](std::string_view part) {
        style_key_ += part;
        style_key_ += '\0';
    };
    bool plain = true;
    for (auto a = node.first_attribute(); a; a = a.next_attribute())
        if (const std::string_view name = a.name(); sheet_.matters(name)) {
            add(name), add(a.value());
            plain = false;
        }
    if (!sheet_.empty()) add(local_name(node.name())), plain = false;
    if (plain && parent->inherits_all()) return parent;
    const Style* const above = parent.get();
    style_key_.append(reinterpret_cast<const char*>(&above), sizeof above);
    const auto known = styles_.find(style_key_);
    if (known != styles_.end()) {
        outside_ += known->second.outside;
        return known->second.style;
    }
    constexpr std::size_t most = 1000;
    if (styles_.size() >= most) styles_.clear();
    const int before = outside_;
    SharedStyle style = computed();
    styles_.emplace(style_key_, KnownStyle{parent, style, outside_ - before});
    return style;
}

std::optional<Colour> Walker::average_stop(const std::string& id, double& alpha, int depth) {
    const auto node = by_id(id);
    if (!node || depth > 8) return std::nullopt;
    static const SharedStyle plain = std::make_shared<const Style>();
    double r = 0, g = 0, b = 0, a = 0;
    int n = 0;
    for (const auto& stop : node.children()) {
        if (local_name(stop.name()) != "stop") continue;
        const SharedStyle known = style_of(stop, plain);
        const Style& style = *known;
        double own = 1;
        const auto c =
            parse_colour(style.stop_colour.empty() ? "black" : style.stop_colour, own).value_or(Colour{});
        r += c.r, g += c.g, b += c.b, a += own * style.stop_opacity;
        ++n;
    }
    if (n == 0) {
        const auto href = href_of(node);
        return href.starts_with('#') ? average_stop(std::string(href.substr(1)), alpha, depth + 1)
                                     : std::nullopt;
    }
    alpha = a / n;
    return Colour{static_cast<std::uint8_t>(r / n), static_cast<std::uint8_t>(g / n),
                  static_cast<std::uint8_t>(b / n)};
}

std::optional<Colour> Walker::resolve(const Paint& paint, const Style& style, double& alpha) {
    alpha = paint.alpha;
    switch (paint.kind) {
    case Paint::Kind::none:
        return std::nullopt;
    case Paint::Kind::colour:
        return paint.colour;
    case Paint::Kind::current:
        return style.current;
    case Paint::Kind::reference:
        break;
    }
    const auto target = by_id(paint.reference);
    const auto name = local_name(target.name());
    if (name == "pattern") {
        count("patterns", target);
        return Colour{128, 128, 128};
    }
    if (target) {
        if (name.ends_with("Gradient")) count("gradients", target);
        if (const auto c = average_stop(paint.reference, alpha, 0)) return c;
    }
    return paint.fallback == Paint::Kind::colour ? std::optional(paint.fallback_colour) : std::nullopt;
}

namespace {

/// Lines under a map that is not a similarity are drawn by a nib that is no circle.
std::array<double, 4> nib_of(const Affine& to_page) {
    constexpr double even = 1e-4, too_flat = 1e3; // a nib flatter than that is a rounding error
    const double s = to_page.mean_scale();
    std::array<double, 4> nib{to_page.a / s, to_page.b / s, to_page.c / s, to_page.d / s};
    const auto [a, b, c, d] = nib;
    // For a similarity both columns are of length 1 and stand upright on each other.
    const double columns = std::max(std::abs(a * a + b * b - 1), std::abs(c * c + d * d - 1));
    if (!std::isfinite(columns) || std::max(columns, std::abs(a * c + b * d)) < even || columns > too_flat)
        return Drawn{}.nib;
    return nib;
}

} // namespace

/// How the element is drawn; false, and counted, when nothing of it shows.
bool Walker::take_style(const pugi::xml_node& node, const Scope& scope, Drawn& drawn) {
    const Style& s = *scope.style;
    const auto by_itself = [](const Paint& paint) { return paint.kind != Paint::Kind::reference; };
    if (!by_itself(s.fill) || !by_itself(s.stroke) || s.markers) return make_look(node, scope, drawn);
    const Affine& t = scope.to_page;
    const std::array<double, 6> under{t.a, t.b, t.c, t.d, scope.viewport.width, scope.viewport.height};
    if (look_.style == scope.style && look_.under == under) {
        drawn = look_.drawn;
        return true;
    }
    if (!make_look(node, scope, drawn)) return false;
    look_ = {scope.style, under, drawn};
    return true;
}

bool Walker::make_look(const pugi::xml_node& node, const Scope& scope, Drawn& drawn) {
    const Style& s = *scope.style;
    double fill_alpha = 1, stroke_alpha = 1;
    drawn.fill = resolve(s.fill, s, fill_alpha);
    drawn.stroke = resolve(s.stroke, s, stroke_alpha);
    drawn.fill_opacity = fill_alpha * s.fill_opacity * s.opacity;
    drawn.stroke_opacity = stroke_alpha * s.stroke_opacity * s.opacity;
    const double scale = scope.to_page.mean_scale();
    const auto length_mm = [&](const Measure& m) { // only for showing: what is absurd is kept within reason
        const double v = in_user(m, scope, 'd') * scale;
        return std::isfinite(v) ? std::clamp(v, -1e5, 1e5) : 0.0;
    };
    const double width = length_mm(s.stroke_width);
    if (!drawn.fill || drawn.fill_opacity <= 0) forget_fill(drawn);
    if (!drawn.stroke || drawn.stroke_opacity <= 0 || width <= 0) forget_stroke(drawn);
    if (!drawn.fill && !drawn.stroke) return count("objects without stroke or fill", node), false;
    if (!drawn.stroke) return true;
    if (s.markers) count("markers", node);
    drawn.stroke_width = mm(width);
    drawn.nib = nib_of(scope.to_page);
    drawn.cap = s.cap, drawn.join = s.join;
    drawn.mitre_limit = std::min(s.mitre_limit, 1e5);
    double dash_total = 0;
    for (const Measure& m : s.dashes) {
        drawn.dashes_mm.push_back(length_mm(m));
        dash_total += drawn.dashes_mm.back();
    }
    if (dash_total <= 1e-9) drawn.dashes_mm.clear();
    drawn.dash_offset_mm = length_mm(s.dash_offset);
    return true;
}

namespace {

Contour straight(const std::vector<Point>& points, bool closed) {
    Contour c{points.front(), {}, closed};
    for (std::size_t i = 1; i < points.size(); ++i)
        c.line_to(points[i]);
    return c;
}

bool covers(const Region& clip, const Box& box) {
    const Region whole = region_of(Shape{{rectangle(box)}, FillRule::nonzero});
    return in_square_mm(area(subtracted(whole, clip))) < 1e-6;
}

/// The line within the clip. The fill is cut as an area, the stroke as a line, so that no false edge appears
/// along the clip; a line with both becomes two.
std::vector<DrawnLine> cut_to(const DrawnLine& line, const Region& clip) {
    std::vector<DrawnLine> out;
    const auto flat = flattened(line.shape);
    const auto keep = [&](bool fill, std::vector<Contour> contours) {
        if (contours.empty()) return;
        DrawnLine piece = line;
        fill ? forget_stroke(piece.drawn) : forget_fill(piece.drawn);
        piece.shape = {std::move(contours), FillRule::nonzero};
        out.push_back(std::move(piece));
    };
    std::vector<Contour> contours;
    if (line.drawn.fill) {
        for (const Ring& ring : intersected(region_of(flat, line.shape.rule, true), clip).rings)
            contours.push_back(straight(ring, true));
        keep(true, std::exchange(contours, {}));
    }
    if (line.drawn.stroke) {
        for (const Polyline& p : clipped(flat, clip))
            contours.push_back(straight(p.points, p.closed));
        keep(false, std::move(contours));
    }
    return out;
}

/// How far from the page's corner a coordinate of it lies, handles included; no number where one is none.
double reach_of(const Shape& shape) {
    double out = 0;
    const auto add = [&](Point p) {
        const double far = std::max(std::abs(p.x), std::abs(p.y));
        if (!(far <= out)) out = far;
    };
    for (const Contour& contour : shape.contours) {
        add(contour.start);
        for (const Segment& s : contour.segments) {
            if (std::isnan(out)) return out;
            if (s.curved) add(s.c1), add(s.c2);
            add(s.to);
        }
    }
    return out;
}

} // namespace

void Walker::emit(const pugi::xml_node& node, const Scope& scope, Shape user_shape) {
    if (!scope.style->visible) return count("hidden objects", node);
    DrawnLine line;
    if (!take_style(node, scope, line.drawn)) return;
    if (const auto id = node.attribute("id")) line.name = shortened(valid_utf8(id.value()), longest_name);
    line.group = scope.group;
    line.shape = transformed(std::move(user_shape), scope.to_page);
    if (!(reach_of(line.shape) < 1e9))
        throw Stop{
            {"svg.number",
             say("A coordinate is not a number or too large. The file was not opened; nothing has changed."),
             {"", line_of(node)}}};
    if (!scope.clip) return keep(std::move(line), node);
    const Box box = bounds(line.shape);
    if (std::max({std::abs(box.x0), std::abs(box.y0), std::abs(box.x1), std::abs(box.y1)}) >
        region_limit_mm) {
        count("clips beyond 10 m, not applied", node);
        return keep(std::move(line), node);
    }
    work(segment_count(line.shape) + point_count(*scope.clip), node);
    if (covers(*scope.clip, box.grown(in_mm(line.drawn.stroke_width) / 2)))
        return keep(std::move(line), node);
    auto pieces = cut_to(line, *scope.clip);
    if (pieces.empty()) return count("objects wholly clipped away", node);
    for (DrawnLine& piece : pieces)
        keep(std::move(piece), node);
}

void Walker::too_large(const pugi::xml_node& node) const {
    throw Stop{{"svg.large",
                say("The file holds %1, or refers to itself more often than that. %2 Nothing has changed.",
                    words(options_.limits), what_to_do_when_large()),
                {"", line_of(node)}}};
}

void Walker::work(std::size_t segments, const pugi::xml_node& node) {
    segments_worked_ += segments;
    if (segments_worked_ > 2 * options_.limits.segments) too_large(node);
    if (progress_.cancelled()) throw Stop{{"cancelled", say("Opening was cancelled."), {}}};
}

void Walker::keep(DrawnLine line, const pugi::xml_node& node) {
    // Contours of one point have no segments, but are kept all the same.
    segments_ += segment_count(line.shape) + line.shape.contours.size();
    if (out_.drawing.lines.size() >= options_.limits.lines || segments_ > options_.limits.segments)
        too_large(node);
    out_.drawing.lines.push_back(std::move(line));
}

} // namespace dotlane::svg
