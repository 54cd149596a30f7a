#include "core/formats/svg/style.h"

#include <algorithm>
#include <cstring>
#include <forward_list>

#include "core/base/text.h"

namespace dotlane::svg {

std::string_view local_name(const char* name) {
    const char* colon = std::strrchr(name, ':');
    return colon ? colon + 1 : name;
}

std::string_view href_of(const pugi::xml_node& node) {
    if (const auto plain = node.attribute("href")) return plain.value();
    for (const auto& a : node.attributes())
        if (local_name(a.name()) == "href") return a.value();
    return {};
}

namespace {

/// Not so most attributes of most elements.
bool may_be_property(std::string_view name) {
    // By the first letter: clip-, color, display, fill, filter, font-, letter-, marker, mask, opacity,
    // overflow, stop-, stroke, text-anchor, visibility, xml:space.
    constexpr std::string_view first = "cdflmostvx";
    return name.size() >= 4 && first.find(name.front()) != std::string_view::npos && name != "style" &&
           name != "class" && name != "transform";
}

/// Each declaration of a style attribute or a rule: `take(name, value, important)`, the name as it stands.
template<class Take>
void each_declaration(std::string_view text, Take take) {
    while (!text.empty()) {
        const auto end = std::min(text.find(';'), text.size());
        const std::string_view piece = text.substr(0, end);
        text.remove_prefix(std::min(end + 1, text.size()));
        const auto colon = piece.find(':');
        if (colon == std::string_view::npos) continue;
        std::string_view value = trimmed(piece.substr(colon + 1));
        const auto bang = value.find('!');
        const bool important = bang != std::string_view::npos;
        if (important) value = trimmed(value.substr(0, bang));
        take(trimmed(piece.substr(0, colon)), value, important);
    }
}

bool is_capital(char c) {
    return c >= 'A' && c <= 'Z';
}

} // namespace

std::vector<StyleSheet::Declaration> StyleSheet::parse_declarations(std::string_view text) {
    std::vector<Declaration> out;
    each_declaration(text, [&](std::string_view name, std::string_view value, bool important) {
        out.push_back({lower_case(name), std::string(value), important});
    });
    return out;
}

bool StyleSheet::parse_compound(std::string_view s, Compound& out, int& specificity) {
    const auto name_end = [&](std::size_t i) { return std::min(s.find_first_of(".#[:", i), s.size()); };
    std::size_t i = 0;
    if (s.empty()) return false;
    if (s[0] == '*')
        i = 1;
    else if (s[0] != '.' && s[0] != '#' && s[0] != '[' && s[0] != ':') {
        i = name_end(0);
        out.type = std::string(s.substr(0, i));
        if (const auto bar = out.type.rfind('|'); bar != std::string::npos) out.type.erase(0, bar + 1);
        specificity += 1;
    }
    while (i < s.size()) {
        const std::size_t end = s[i] == '[' ? s.find(']', i) : name_end(i + 1);
        if (end == std::string_view::npos) return false;
        const auto word = s.substr(i + 1, end - i - 1);
        if (s[i] == '.')
            out.classes.emplace_back(word), specificity += 100;
        else if (s[i] == '#')
            out.id = word, specificity += 10000;
        else if (s[i] == ':') {
            if (word != "first-child") return false;
            out.first_child = true, specificity += 100;
        } else {
            Compound::Attribute a;
            const auto eq = word.find('=');
            if (eq == std::string_view::npos)
                a.name = trimmed(word);
            else {
                const bool operated = eq > 0 && std::strchr("~|^$*", word[eq - 1]);
                a.op = operated ? word[eq - 1] : '=';
                a.name = trimmed(word.substr(0, operated ? eq - 1 : eq));
                std::string_view value = trimmed(word.substr(eq + 1));
                if (value.size() >= 2 && (value[0] == '"' || value[0] == '\''))
                    value = value.substr(1, value.size() - 2);
                a.value = value;
            }
            out.attributes.push_back(std::move(a));
            specificity += 100;
        }
        i = s[i] == '[' ? end + 1 : end;
    }
    return true;
}

bool StyleSheet::parse_selector(std::string_view text, Rule& rule) {
    rule.specificity = 0;
    bool child = false;
    std::size_t i = 0;
    while (i < text.size()) {
        i = text.find_first_not_of(" \t\r\n", i);
        if (i == std::string_view::npos) break;
        if (text[i] == '>') {
            child = true;
            ++i;
            continue;
        }
        if (text[i] == '+' || text[i] == '~') return false;
        std::size_t end = i;
        bool bracket = false;
        while (end < text.size() && (bracket || !std::strchr(" \t\r\n>+~", text[end]))) {
            bracket = text[end] == '[' || (bracket && text[end] != ']');
            ++end;
        }
        Compound compound;
        if (!parse_compound(text.substr(i, end - i), compound, rule.specificity)) return false;
        compound.child = child;
        child = false;
        rule.selector.push_back(std::move(compound));
        i = end;
    }
    return !rule.selector.empty();
}

namespace {

std::string without_comments(std::string_view css) {
    std::string out;
    for (std::size_t at = 0; at < css.size();) {
        const auto open = std::min(css.find("/*", at), css.size());
        out += css.substr(at, open - at);
        const auto close = css.find("*/", std::min(open + 2, css.size()));
        at = close == std::string_view::npos ? css.size() : close + 2;
    }
    return out;
}

} // namespace

int StyleSheet::add(std::string_view source, int& outside) {
    const std::string css = without_comments(source);
    int skipped = 0;
    std::size_t at = 0;
    while (true) {
        // "@import ...;", "@charset ...;", "@namespace ...;" before a selector: never followed.
        while (true) {
            const auto first = css.find_first_not_of(" \t\r\n", at);
            if (first == std::string::npos || css[first] != '@') break;
            const auto end = css.find_first_of(";{", first);
            if (end != std::string::npos && css[end] == '{') break; // a block
            if (css.compare(first, 7, "@import") == 0)
                ++outside;
            else if (css.compare(first, 8, "@charset") != 0 && css.compare(first, 10, "@namespace") != 0)
                ++skipped;
            at = end == std::string::npos ? css.size() : end + 1;
        }
        const auto open = css.find('{', at);
        if (open == std::string::npos) break;
        const auto head = std::string_view(css).substr(at, open - at);
        auto close = css.find('}', open);
        if (close == std::string::npos) close = css.size();
        if (trimmed(head).starts_with('@')) { // a block such as @media: left out whole
            int depth = 1;
            for (close = open + 1; close < css.size() && depth > 0; ++close)
                depth += css[close] == '{' ? 1 : css[close] == '}' ? -1 : 0;
            at = close;
            ++skipped;
            continue;
        }
        const auto declarations = std::make_shared<const std::vector<Declaration>>(
            parse_declarations(std::string_view(css).substr(open + 1, close - open - 1)));
        for (const auto selector : split(head, ",")) {
            Rule rule;
            rule.declarations = declarations;
            if (parse_selector(trimmed(selector), rule))
                rules_.push_back(std::move(rule));
            else if (!trimmed(selector).empty())
                ++skipped;
        }
        at = std::min(close + 1, css.size());
    }
    std::stable_sort(rules_.begin(), rules_.end(),
                     [](const Rule& a, const Rule& b) { return a.specificity < b.specificity; });
    index();
    return skipped;
}

void StyleSheet::index() {
    by_id_.clear(), by_class_.clear(), by_type_.clear(), others_.clear();
    simple_ = true;
    for (std::uint32_t i = 0; i < rules_.size(); ++i) {
        const Compound& subject = rules_[i].selector.back();
        simple_ = simple_ && rules_[i].selector.size() == 1 && subject.id.empty() &&
                  subject.attributes.empty() && !subject.first_child;
        if (!subject.id.empty())
            by_id_[subject.id].push_back(i);
        else if (!subject.classes.empty())
            by_class_[subject.classes.front()].push_back(i);
        else if (!subject.type.empty())
            by_type_[subject.type].push_back(i);
        else
            others_.push_back(i);
    }
}

bool StyleSheet::matters(std::string_view attribute) const {
    return attribute == "style" || may_be_property(attribute) || (!rules_.empty() && attribute == "class");
}

bool StyleSheet::matches(const Compound& c, const pugi::xml_node& node) {
    if (!c.type.empty() && local_name(node.name()) != c.type) return false;
    if (!c.id.empty() && c.id != node.attribute("id").value()) return false;
    if (!c.classes.empty()) {
        const auto mine = split(node.attribute("class").value(), " \t\r\n");
        for (const auto& wanted : c.classes)
            if (std::find(mine.begin(), mine.end(), wanted) == mine.end()) return false;
    }
    for (const auto& a : c.attributes) {
        const auto attribute = node.attribute(a.name.c_str());
        if (!attribute) return false;
        const std::string_view v = attribute.value(), w = a.value;
        const auto words = split(v, " \t\r\n");
        const bool ok = a.op == 0     ? true
                        : a.op == '=' ? v == w
                        : a.op == '~' ? std::find(words.begin(), words.end(), w) != words.end()
                        : a.op == '|' ? v == w || (v.starts_with(w) && v.substr(w.size()).starts_with('-'))
                        : a.op == '^' ? !w.empty() && v.starts_with(w)
                        : a.op == '$' ? !w.empty() && v.ends_with(w)
                                      : !w.empty() && v.find(w) != std::string_view::npos;
        if (!ok) return false;
    }
    if (c.first_child) {
        for (auto p = node.previous_sibling(); p; p = p.previous_sibling())
            if (p.type() == pugi::node_element) return false;
    }
    return true;
}

bool StyleSheet::matches(const Rule& rule, std::size_t last, const pugi::xml_node& node,
                         std::size_t allowed) const {
    if (++work_ > allowed) return false; // the walker stops when it sees how much work it was
    const Compound& compound = rule.selector[last];
    if (!matches(compound, node)) return false;
    if (last == 0) return true;
    for (auto up = node.parent(); up && up.type() == pugi::node_element; up = up.parent()) {
        if (matches(rule, last - 1, up, allowed)) return true;
        if (compound.child || work_ > allowed) return false;
    }
    return false;
}

namespace {

void apply_paint(Paint& paint, std::string_view value, const Style& style, int& outside) {
    if (value.starts_with("url(")) {
        bool external = false;
        paint.reference = parse_reference(value, external);
        outside += external;
        paint.kind = Paint::Kind::reference;
        paint.alpha = 1;
        const auto rest = trimmed(value.substr(std::min(value.find(')') + 1, value.size())));
        double alpha = 1;
        const auto colour = rest == "currentColor" ? std::optional(style.current) : parse_colour(rest, alpha);
        paint.fallback = colour ? Paint::Kind::colour : Paint::Kind::none;
        if (colour) paint.fallback_colour = *colour;
        return;
    }
    if (value == "none" || value.starts_with("context-")) {
        paint.kind = Paint::Kind::none;
        return;
    }
    if (lower_case(value) == "currentcolor") {
        paint.kind = Paint::Kind::current;
        paint.alpha = 1;
        return;
    }
    double alpha = 1;
    if (const auto colour = parse_colour(value, alpha)) {
        paint.kind = Paint::Kind::colour;
        paint.colour = *colour;
        paint.alpha = alpha;
    }
}

double parse_opacity(std::string_view value, double otherwise) {
    const auto m = parse_measure(value);
    if (!m) return otherwise;
    return std::clamp(m->unit == Unit::percent ? m->value / 100 : m->value, 0.0, 1.0);
}

double font_px(const Measure& m, double parent) {
    switch (m.unit) {
    case Unit::em:
        return m.value * parent;
    case Unit::ex:
        return m.value * parent / 2;
    case Unit::percent:
        return m.value / 100 * parent;
    default:
        return px_per(m.unit) > 0 ? m.value * px_per(m.unit) : parent;
    }
}

double named_font_size(std::string_view value, double parent) {
    if (value == "smaller") return parent / 1.2;
    if (value == "larger") return parent * 1.2;
    static constexpr struct {
        const char* name;
        double px;
    } sizes[] = {{"xx-small", 9.6}, {"x-small", 10.7}, {"small", 13.3}, {"medium", 16},
                 {"large", 19.2},   {"x-large", 24},   {"xx-large", 32}};
    for (const auto& size : sizes)
        if (value == size.name) return size.px;
    return parent;
}

int font_weight(std::string_view value, int parent) {
    if (value == "bold") return 700;
    if (value == "normal") return 400;
    if (value == "bolder") return parent < 400 ? 400 : parent < 600 ? 700 : 900;
    if (value == "lighter") return parent < 600 ? 100 : parent < 800 ? 400 : 700;
    const auto m = parse_measure(value);
    return m ? static_cast<int>(std::clamp(m->value, 1.0, 1000.0)) : parent;
}

bool apply_stroke_property(Style& s, std::string_view name, std::string_view v) {
    if (name == "stroke-width") {
        if (const auto m = parse_measure(v)) s.stroke_width = *m;
    } else if (name == "stroke-linecap") {
        s.cap = v == "round" ? LineCap::round : v == "square" ? LineCap::square : LineCap::butt;
    } else if (name == "stroke-linejoin") {
        s.join = v == "round" ? LineJoin::round : v == "bevel" ? LineJoin::bevel : LineJoin::mitre;
    } else if (name == "stroke-miterlimit") {
        if (const auto m = parse_measure(v); m && m->value >= 1) s.mitre_limit = m->value;
    } else if (name == "stroke-dasharray") {
        s.dashes.clear();
        if (v == "none") return true;
        for (const auto piece : split(v, ", \t\r\n"))
            if (const auto m = parse_measure(piece); m && m->value >= 0) s.dashes.push_back(*m);
    } else if (name == "stroke-dashoffset") {
        if (const auto m = parse_measure(v)) s.dash_offset = *m;
    } else {
        return false;
    }
    return true;
}

bool apply_text_property(Style& s, std::string_view name, std::string_view v, double parent_size) {
    if (name == "font-family")
        s.font_family = v;
    else if (name == "font-size") {
        const auto m = parse_measure(v);
        s.font_size = m ? font_px(*m, parent_size) : named_font_size(v, parent_size);
    } else if (name == "font-style")
        s.italic = v == "italic" || v == "oblique";
    else if (name == "font-weight")
        s.weight = font_weight(v, s.weight);
    else if (name == "text-anchor")
        s.anchor = v == "middle" ? Style::Anchor::middle
                   : v == "end"  ? Style::Anchor::end
                                 : Style::Anchor::start;
    else if (name == "letter-spacing") {
        const auto m = parse_measure(v);
        s.letter_spacing =
            m ? (m->unit == Unit::em ? m->value * s.font_size : m->value * px_per(m->unit)) : 0;
    } else if (name == "xml:space")
        s.keep_space = v == "preserve";
    else
        return false;
    return true;
}

void apply(Style& s, std::string_view name, std::string_view v, const Style& parent, int& outside) {
    if (v == "inherit") {
        // Inherited properties already hold the parent's value; of the others only these matter here.
        if (name == "clip-path") s.clip_path = parent.clip_path;
        return;
    }
    if (name == "color") {
        double alpha = 1;
        if (const auto c = parse_colour(v, alpha)) s.current = *c;
    } else if (name == "fill")
        apply_paint(s.fill, v, s, outside);
    else if (name == "stroke")
        apply_paint(s.stroke, v, s, outside);
    else if (name == "fill-opacity")
        s.fill_opacity = parse_opacity(v, s.fill_opacity);
    else if (name == "stroke-opacity")
        s.stroke_opacity = parse_opacity(v, s.stroke_opacity);
    else if (name == "opacity")
        s.opacity = parent.opacity * parse_opacity(v, 1);
    else if (name == "fill-rule")
        s.fill_rule = v == "evenodd" ? FillRule::evenodd : FillRule::nonzero;
    else if (name == "clip-rule")
        s.clip_rule = v == "evenodd" ? FillRule::evenodd : FillRule::nonzero;
    else if (name == "display")
        s.displayed = v != "none";
    else if (name == "visibility")
        s.visible = v == "visible";
    else if (name == "overflow")
        s.overflow_shown = v == "visible" || v == "auto";
    else if (name == "clip-path")
        s.clip_path = v == "none" ? "" : std::string(v);
    else if (name == "filter")
        s.filter = v != "none";
    else if (name == "mask")
        s.mask = v != "none";
    else if (name == "stop-color")
        s.stop_colour = v;
    else if (name == "stop-opacity")
        s.stop_opacity = parse_opacity(v, 1);
    else if (name.starts_with("marker"))
        s.markers = v != "none";
    else if (name.starts_with("stroke-"))
        apply_stroke_property(s, name, v);
    else
        apply_text_property(s, name, v, parent.font_size);
}

} // namespace

Style StyleSheet::compute(const pugi::xml_node& node, const Style& parent, int& outside) const {
    Style s = parent;
    s.opacity = parent.opacity;
    s.displayed = true;
    s.overflow_shown = false;
    s.clip_path.clear();
    s.stop_colour.clear();
    s.stop_opacity = 1;
    s.filter = s.mask = false;
    // "color" first: other presentation attributes may say currentColor.
    if (const auto c = node.attribute("color")) apply(s, "color", c.value(), parent, outside);
    for (const auto& a : node.attributes()) {
        const std::string_view name = a.name();
        if (may_be_property(name) && name != "color") apply(s, name, trimmed(a.value()), parent, outside);
    }
    std::vector<std::pair<std::string_view, std::string_view>> important;
    const auto use = [&](std::string_view property, std::string_view value, bool last) {
        if (last)
            important.emplace_back(property, value);
        else
            apply(s, property, value, parent, outside);
    };
    std::vector<std::uint32_t> candidates = others_;
    const auto offer = [&](const auto& table, std::string_view key) {
        const auto it = table.find(std::string(key));
        if (it != table.end()) candidates.insert(candidates.end(), it->second.begin(), it->second.end());
    };
    if (!rules_.empty()) {
        offer(by_type_, local_name(node.name()));
        if (const auto id = node.attribute("id")) offer(by_id_, id.value());
        for (const auto word : split(node.attribute("class").value(), " \t\r\n"))
            offer(by_class_, word);
        std::sort(candidates.begin(), candidates.end()); // by specificity, as the rules are
        candidates.erase(std::unique(candidates.begin(), candidates.end()), candidates.end());
    }
    for (const std::uint32_t i : candidates)
        if (matches(rules_[i], rules_[i].selector.size() - 1, node, work_ + 1'000'000))
            for (const auto& d : *rules_[i].declarations)
                use(d.name, d.value, d.important);
    std::forward_list<std::string> lowered; // names in capitals, which hardly any file has
    each_declaration(node.attribute("style").value(),
                     [&](std::string_view property, std::string_view value, bool last) {
                         if (std::any_of(property.begin(), property.end(), is_capital))
                             property = lowered.emplace_front(lower_case(property));
                         use(property, value, last);
                     });
    for (const auto& [property, value] : important)
        apply(s, property, value, parent, outside);
    return s;
}

} // namespace dotlane::svg
