#include "core/formats/svg/walker.h"

#include <algorithm>
#include <cmath>

#include "core/base/finding_kind.h"
#include "core/base/text.h"
#include "core/formats/svg/path_data.h"

namespace dotlane::svg {
namespace {

constexpr FindingKind<Count> outside_references{
    "svg.outside",
    Grade::caution,
    to_say("%n [reference|references] out of the file [was|were] not followed."),
    {"count"}};

constexpr double mm_per_px = mm_per_inch / 96;
constexpr int max_use_depth = 24;

/// SVG 1.1, 5.8: what an element asks for before it is drawn. Features are those of the static language.
bool conditions_met(const pugi::xml_node& node) {
    bool asks = false;
    for (auto a = node.first_attribute(); a && !asks; a = a.next_attribute()) {
        const char* const name = a.name();
        if (*name != 'r' && *name != 's') continue; // nearly all
        asks = std::string_view(name).starts_with("required") || std::string_view(name) == "systemLanguage";
    }
    if (!asks) return true;
    if (const auto extensions = node.attribute("requiredExtensions"); extensions)
        return false; // none are known
    if (const auto features = node.attribute("requiredFeatures")) {
        const auto asked = split(features.value(), " \t\r\n");
        if (asked.empty()) return false;
        for (const auto feature : asked) {
            static constexpr std::string_view prefix = "http://www.w3.org/TR/SVG11/feature#";
            static constexpr std::string_view known[] = {"SVG",
                                                         "SVG-static",
                                                         "CoreAttribute",
                                                         "Structure",
                                                         "BasicStructure",
                                                         "Style",
                                                         "Shape",
                                                         "Text",
                                                         "BasicText",
                                                         "PaintAttribute",
                                                         "Clip",
                                                         "BasicClip",
                                                         "BasicPaintAttribute",
                                                         "ContainerAttribute",
                                                         "ViewportAttribute",
                                                         "ConditionalProcessing",
                                                         "Gradient",
                                                         "Pattern",
                                                         "OpacityAttribute",
                                                         "GraphicsAttribute",
                                                         "BasicGraphicsAttribute",
                                                         "XlinkAttribute",
                                                         "Hyperlinking"};
            if (!feature.starts_with(prefix)) return false;
            if (std::find(std::begin(known), std::end(known), feature.substr(prefix.size())) ==
                std::end(known))
                return false;
        }
    }
    if (const auto language = node.attribute("systemLanguage")) {
        for (const auto tag : split(language.value(), ", "))
            if (tag == "en" || tag.starts_with("en-")) return true;
        return false;
    }
    return true;
}

bool any_of(std::string_view name, std::initializer_list<std::string_view> list) {
    return std::find(list.begin(), list.end(), name) != list.end();
}

/// In the order of the file.
template<class Each>
void each_element(const pugi::xml_node& root, Each each) {
    for (auto node = root; node;) {
        if (node.type() == pugi::node_element) each(node);
        if (node.first_child()) {
            node = node.first_child();
            continue;
        }
        while (node != root && !node.next_sibling())
            node = node.parent();
        if (node == root) return;
        node = node.next_sibling();
    }
}

} // namespace

Walker::Walker(const LineNumbers& lines, const SvgOptions& options, Progress& progress)
    : lines_(lines)
    , options_(options)
    , progress_(progress) {}

void Walker::index(const pugi::xml_node& root) {
    root_ = root;
    std::size_t elements = 0;
    each_element(root, [&](const pugi::xml_node& node) {
        const std::string_view name = local_name(node.name());
        ++elements;
        if (name == "path") {
            if (const auto d = node.attribute("d")) paths_.add(d.value());
        } else if (name == "style") {
            std::string css;
            for (const auto& child : node.children())
                css += child.value();
            if (const int skipped = sheet_.add(css, outside_)) counted_["style rules"].times += skipped;
            counted_["style rules"].first_line = line_of(node);
        }
    });
    if (counted_["style rules"].times == 0) counted_.erase("style rules");
    paths_.parse(progress_);
    out_.drawing.lines.reserve(std::min(elements, options_.limits.lines));
}

SvgResult Walker::walk(const pugi::xml_node& root) {
    index(root);
    Scope scope;
    scope.style = style_of(root, std::make_shared<const Style>());
    const auto view = parse_numbers(root.attribute("viewBox").value());
    const bool has_view = view.size() == 4 && view[2] > 0 && view[3] > 0;
    const auto side = [&](const char* name, double from_view, bool& physical) {
        const auto m = parse_measure(root.attribute(name).value());
        const double per = m ? px_per(m->unit) : 0;
        physical = m && per > 0 && m->unit != Unit::px && m->unit != Unit::none;
        if (m && per > 0 && m->value > 0) return m->value * per;
        return has_view ? from_view * (m && m->unit == Unit::percent && m->value > 0 ? m->value / 100 : 1)
                        : 0.0;
    };
    bool wide_physical = false, high_physical = false;
    double width = side("width", has_view ? view[2] : 0, wide_physical);
    double height = side("height", has_view ? view[3] : 0, high_physical);
    out_.physical_size = wide_physical || high_physical;
    // One side given and a viewBox: the other follows its proportion.
    const bool has_width =
        px_per(parse_measure(root.attribute("width").value()).value_or(Measure{0, Unit::percent}).unit) > 0;
    const bool has_height =
        px_per(parse_measure(root.attribute("height").value()).value_or(Measure{0, Unit::percent}).unit) > 0;
    if (has_view && has_width && !has_height) height = width * view[3] / view[2];
    if (has_view && has_height && !has_width) width = height * view[2] / view[3];
    if (!(width < 1e8) || !(height < 1e8))
        throw Stop{{"svg.number",
                    say("The page is larger than 10 km. The file was not opened; nothing has changed."),
                    {"", line_of(root)}}};
    scope.viewport = {width, height};
    scope.to_page = Affine::scaling(mm_per_px, mm_per_px);
    if (has_view && width > 0 && height > 0)
        scope.to_page = scope.to_page * fit(root, width, height, scope.viewport);
    else if (has_view)
        scope.viewport = {view[2], view[3]};
    out_.drawing.page_width = mm(width * mm_per_px);
    out_.drawing.page_height = mm(height * mm_per_px);
    if (scope.style->displayed) children(root, scope);
    if (width <= 0 || height <= 0) { // no page: the art is its own page
        const Box box = bounds(out_.drawing);
        out_.drawing.page_width = mm(std::max(0.0, box.x1));
        out_.drawing.page_height = mm(std::max(0.0, box.y1));
    }
    out_.findings = findings();
    return std::move(out_);
}

Affine Walker::fit(const pugi::xml_node& node, double width, double height, Viewport& viewport) const {
    const auto view = parse_numbers(node.attribute("viewBox").value());
    viewport = {width, height};
    if (view.size() != 4 || view[2] <= 0 || view[3] <= 0) return {};
    viewport = {view[2], view[3]};
    double sx = width / view[2], sy = height / view[3];
    double ax = 0.5, ay = 0.5;
    const auto words = split(node.attribute("preserveAspectRatio").value(), " \t\r\n");
    const std::string_view align = words.empty()                             ? "xMidYMid"
                                   : words[0] == "defer" && words.size() > 1 ? words[1]
                                                                             : words[0];
    if (align != "none") {
        const bool slice = words.size() > 1 && words.back() == "slice";
        sx = sy = slice ? std::max(sx, sy) : std::min(sx, sy);
        if (align.starts_with("xMin")) ax = 0;
        if (align.starts_with("xMax")) ax = 1;
        if (align.ends_with("YMin")) ay = 0;
        if (align.ends_with("YMax")) ay = 1;
    }
    return Affine{sx,
                  0,
                  0,
                  sy,
                  -view[0] * sx + (width - view[2] * sx) * ax,
                  -view[1] * sy + (height - view[3] * sy) * ay};
}

void Walker::step(const pugi::xml_node& node) {
    if (++visited_ > options_.limits.visits) too_large(node);
    if (visited_ % 512 == 0 && progress_.cancelled())
        throw Stop{{"cancelled", say("Opening was cancelled."), {}}};
}

void Walker::children(const pugi::xml_node& node, const Scope& scope) {
    const bool top = scope.depth == 0;
    const auto total = top ? std::distance(node.begin(), node.end()) : 0;
    std::ptrdiff_t done = 0;
    for (auto child = node.first_child(); child; child = child.next_sibling()) {
        if (child.type() == pugi::node_element) element(child, scope);
        if (top) progress_.report(static_cast<double>(++done) / static_cast<double>(total));
    }
}

void Walker::element(const pugi::xml_node& node, const Scope& outer) {
    step(node);
    const auto name = local_name(node.name());
    if (any_of(name,
               {"defs", "symbol", "clipPath", "mask", "marker", "pattern", "linearGradient", "radialGradient",
                "style", "title", "desc", "metadata", "script", "filter", "view", "namedview", "solidcolor"}))
        return;
    if (!conditions_met(node)) return count("objects under conditions that are not met", node);
    Scope scope{.to_page = outer.to_page,
                .style = style_of(node, outer.style),
                .viewport = outer.viewport,
                .clip = outer.clip,
                .group = outer.group,
                .depth = outer.depth + 1,
                .use_depth = outer.use_depth};
    if (!scope.style->displayed) return count("hidden objects", node);
    if (const auto t = node.attribute("transform")) {
        if (const auto own = parse_transform(t.value()))
            scope.to_page = scope.to_page * *own;
        else
            count("unreadable transforms", node);
    }
    if (scope.style->filter) count("filters", node);
    if (scope.style->mask) count("masks", node);
    if (!scope.style->clip_path.empty()) apply_clip(scope, node);
    if (name == "g" || name == "a") {
        std::string_view label;
        for (const auto& a : node.attributes())
            if (local_name(a.name()) == "label") label = a.value();
        if (label.empty()) label = node.attribute("id").value();
        if (!label.empty()) (scope.group += scope.group.empty() ? "" : "/") += valid_utf8(label);
        scope.group = shortened(std::move(scope.group), longest_name);
        return children(node, scope);
    }
    if (name == "svg") return nested_svg(node, scope, std::nullopt, std::nullopt);
    if (name == "use") return use(node, scope);
    if (name == "switch") return choose(node, scope);
    if (name == "text") return text(node, scope);
    if (any_of(name, {"path", "rect", "circle", "ellipse", "line", "polyline", "polygon"}))
        return shape(node, name, scope);
    if (name == "image") {
        const auto href = href_of(node);
        if (!href.starts_with("data:") && !href.starts_with('#')) ++outside_;
        return count("pictures", node);
    }
    if (name == "foreignObject") return count("foreign objects", node);
    if (any_of(name, {"animate", "set", "animateTransform", "animateMotion", "animateColor"}))
        return count("animations", node);
}

void Walker::nested_svg(const pugi::xml_node& node, Scope scope, std::optional<double> width,
                        std::optional<double> height) {
    const double x = measure(node, "x", scope, 'x', 0), y = measure(node, "y", scope, 'y', 0);
    const double w = width ? *width : measure(node, "width", scope, 'x', scope.viewport.width);
    const double h = height ? *height : measure(node, "height", scope, 'y', scope.viewport.height);
    if (w <= 0 || h <= 0) return;
    const bool symbol = local_name(node.name()) == "symbol";
    scope.to_page = scope.to_page * Affine::translation({symbol ? 0 : x, symbol ? 0 : y});
    if (!scope.style->overflow_shown) {
        const Region window =
            region_of(Shape{{transformed(rectangle({0, 0, w, h}), scope.to_page)}, FillRule::nonzero});
        scope.clip_to(window);
    }
    scope.to_page = scope.to_page * fit(node, w, h, scope.viewport);
    children(node, scope);
}

void Walker::use(const pugi::xml_node& node, Scope scope) {
    const auto href = href_of(node);
    if (href.empty()) return;
    if (href[0] != '#') return void(++outside_);
    const auto target = by_id(href.substr(1));
    if (!target) return count("references to nothing", node);
    // A use may not lead back to itself or to something it lies in.
    for (auto up = node; up; up = up.parent())
        if (up == target) return count("circular references", node);
    if (std::find(uses_.begin(), uses_.end(), target) != uses_.end() || ++scope.use_depth > max_use_depth)
        return count("circular references", node);
    uses_.push_back(target);
    scope.to_page = scope.to_page * Affine::translation({measure(node, "x", scope, 'x', 0),
                                                         measure(node, "y", scope, 'y', 0)});
    const auto name = local_name(target.name());
    if (name == "symbol" || name == "svg") {
        const auto size = [&](const char* attribute, char axis) -> std::optional<double> {
            if (node.attribute(attribute)) return measure(node, attribute, scope, axis, 0);
            if (target.attribute(attribute)) return std::nullopt;
            return axis == 'x' ? scope.viewport.width : scope.viewport.height;
        };
        const auto w = size("width", 'x'), h = size("height", 'y');
        scope.style = style_of(target, scope.style);
        if (scope.style->displayed) nested_svg(target, scope, w, h);
    } else {
        element(target, scope);
    }
    uses_.pop_back();
}

void Walker::choose(const pugi::xml_node& node, const Scope& scope) {
    for (const auto& child : node.children()) {
        if (child.type() != pugi::node_element || !conditions_met(child)) continue;
        if (local_name(child.name()) == "foreignObject") {
            count("foreign objects", child);
            continue;
        }
        return element(child, scope);
    }
}

std::optional<Shape> Walker::shape_of(const pugi::xml_node& node, std::string_view name, const Scope& scope) {
    const auto get = [&](const char* a, char axis) { return measure(node, a, scope, axis, 0); };
    Shape out;
    out.rule = scope.style->fill_rule;
    if (name == "path") {
        auto data = paths_.take(node.attribute("d").value());
        if (!data.complete) count("broken paths", node);
        out.contours = std::move(data.contours);
    } else if (name == "rect") {
        const double w = get("width", 'x'), h = get("height", 'y');
        if (w <= 0 || h <= 0) return std::nullopt;
        double rx = measure(node, "rx", scope, 'x', -1), ry = measure(node, "ry", scope, 'y', -1);
        if (rx < 0) rx = std::max(ry, 0.0);
        if (ry < 0) ry = rx;
        const double x = get("x", 'x'), y = get("y", 'y');
        out.contours.push_back(rounded_rectangle({x, y, x + w, y + h}, rx, ry));
    } else if (name == "circle" || name == "ellipse") {
        const double r = get("r", 'd');
        double rx = name == "circle" ? r : measure(node, "rx", scope, 'x', -1);
        double ry = name == "circle" ? r : measure(node, "ry", scope, 'y', -1);
        if (rx < 0) rx = ry; // SVG 2: "auto" follows the other radius
        if (ry < 0) ry = rx;
        if (rx <= 0 || ry <= 0) return std::nullopt;
        out.contours.push_back(ellipse({get("cx", 'x'), get("cy", 'y')}, rx, ry));
    } else if (name == "line") {
        Contour c{{get("x1", 'x'), get("y1", 'y')}, {}, false};
        c.line_to({get("x2", 'x'), get("y2", 'y')});
        out.contours.push_back(std::move(c));
    } else { // polyline, polygon
        const auto v = parse_numbers(node.attribute("points").value());
        if (v.size() < 4) return std::nullopt;
        Contour c{{v[0], v[1]}, {}, name == "polygon"};
        c.segments.reserve(v.size() / 2 - 1);
        for (std::size_t i = 2; i + 1 < v.size(); i += 2)
            c.line_to({v[i], v[i + 1]});
        out.contours.push_back(std::move(c));
    }
    if (out.contours.empty()) return std::nullopt;
    return out;
}

void Walker::shape(const pugi::xml_node& node, std::string_view name, const Scope& scope) {
    if (auto s = shape_of(node, name, scope)) emit(node, scope, std::move(*s));
}

double Walker::in_user(const Measure& m, const Scope& scope, char axis) const {
    switch (m.unit) {
    case Unit::percent:
        return m.value / 100 *
               (axis == 'x'   ? scope.viewport.width
                : axis == 'y' ? scope.viewport.height
                              : scope.viewport.diagonal());
    case Unit::em:
        return m.value * scope.style->font_size;
    case Unit::ex:
        return m.value * scope.style->font_size / 2;
    default:
        return m.value * px_per(m.unit);
    }
}

double Walker::measure(const pugi::xml_node& node, const char* attribute, const Scope& scope, char axis,
                       double otherwise) const {
    const auto m = parse_measure(node.attribute(attribute).value());
    return m && m->unit != Unit::unknown ? in_user(*m, scope, axis) : otherwise;
}

pugi::xml_node Walker::by_id(std::string_view id) {
    if (!ids_known_) // most drawings refer to nothing
        each_element(root_, [&](const pugi::xml_node& node) {
            if (const auto own = node.attribute("id")) ids_.try_emplace(own.value(), node);
        });
    ids_known_ = true;
    const auto it = ids_.find(id);
    return it == ids_.end() ? pugi::xml_node() : it->second;
}

int Walker::line_of(const pugi::xml_node& node) const {
    const auto offset = node.offset_debug();
    return offset < 0 ? 0 : lines_.at(offset);
}

void Walker::count(const std::string& what, const pugi::xml_node& node) {
    Counted& c = counted_[what];
    if (c.times++ == 0) c.first_line = line_of(node);
}

namespace {

struct Told {
    const char* what;
    const char* words; ///< without its full stop
    bool quiet = false;
};

constexpr Told told[] = {
    {"animations", to_say("%n [animation|animations]: left out"), true},
    {"broken paths",
     to_say("%n [broken path: it|broken paths: each] is kept up to the place where it breaks")},
    {"characters without a glyph", to_say("%n [character|characters] without a glyph: left out")},
    {"circular references", to_say("%n circular [reference|references]: left out")},
    {"clips beyond 10 m, not applied", to_say("%n [clip|clips] beyond 10 m, not applied: left out")},
    {"filters", to_say("%n [filter|filters]: left out")},
    {"foreign objects", to_say("%n foreign [object|objects]: left out")},
    {"gradients",
     to_say("%n [gradient: the average of its|gradients: the average of their] colours stands for "
            "[it|them]")},
    {"hidden objects", to_say("%n hidden [object|objects]: left out"), true},
    {"markers", to_say("%n [marker|markers]: left out")},
    {"masks", to_say("%n [mask|masks]: left out")},
    {"objects under conditions that are not met",
     to_say("%n [object|objects] under conditions that are not met: left out"), true},
    {"objects wholly clipped away", to_say("%n [object|objects] wholly clipped away: left out")},
    {"objects without stroke or fill", to_say("%n [object|objects] without stroke or fill: left out"), true},
    {"patterns", to_say("%n [pattern: grey stands for it|patterns: grey stands for them]")},
    {"pictures", to_say("%n [picture|pictures]: left out")},
    {"references to nothing", to_say("%n [reference|references] to nothing: left out")},
    {"style rules", to_say("%n style [rule|rules]: left out")},
    {"texts", to_say("%n [text|texts]: left out")},
    {"texts turned to outlines", to_say("%n [text|texts] turned to outlines with the fonts installed here"),
     true},
    {"unreadable transforms", to_say("%n unreadable [transform|transforms]: left out")},
};

const Told& row_of(const std::string& what) {
    const auto* it =
        std::find_if(std::begin(told), std::end(told), [&](const Told& t) { return what == t.what; });
    DOTLANE_CHECK(it != std::end(told));
    return *it;
}

} // namespace

Findings Walker::findings() const {
    Findings out;
    for (const auto& [what, c] : counted_) {
        const Told& row = row_of(what);
        const Phrase message{row.words, core_words, static_cast<std::size_t>(c.times), {}};
        out.push_back(
            {"svg." + code_word(what),
             row.quiet ? Grade::hint : Grade::caution,
             c.first_line > 0 ? say("%1 (first in line %2).", message, c.first_line) : say("%1.", message),
             {{"count", std::to_string(c.times)}, {"what", what}, {"line", std::to_string(c.first_line)}}});
    }
    if (outside_ > 0) out.push_back(outside_references({}, Count{outside_}));
    return out;
}

} // namespace dotlane::svg
