// Simple style sheets: selectors by type, class, id, attribute, descendant and child, with specificity and
// !important; and the computed style of an element. Internal to formats/svg.
#pragma once

#include <memory>
#include <pugixml.hpp>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "core/formats/svg/values.h"

namespace dotlane::svg {

/// Name without its namespace prefix.
std::string_view local_name(const char* name);
/// href or xlink:href.
std::string_view href_of(const pugi::xml_node& node);

struct Paint {
    enum class Kind { none, colour, reference, current } kind = Kind::none;
    Colour colour;
    double alpha = 1;
    std::string reference;      ///< id of a gradient or pattern
    Kind fallback = Kind::none; ///< when the reference leads nowhere
    Colour fallback_colour;
};

/// Computed style. The second group is not inherited.
struct Style {
    Colour current;
    Paint fill{Paint::Kind::colour, {}, 1, {}, Paint::Kind::none, {}};
    Paint stroke;
    double fill_opacity = 1, stroke_opacity = 1;
    Measure stroke_width{1, Unit::none};
    LineCap cap = LineCap::butt;
    LineJoin join = LineJoin::mitre;
    double mitre_limit = 4;
    std::vector<Measure> dashes;
    Measure dash_offset;
    FillRule fill_rule = FillRule::nonzero, clip_rule = FillRule::nonzero;
    bool visible = true;
    std::string font_family = "sans-serif";
    double font_size = 16; ///< px
    bool italic = false;
    int weight = 400;
    enum class Anchor { start, middle, end } anchor = Anchor::start;
    bool keep_space = false;
    bool markers = false;
    double letter_spacing = 0;

    double opacity = 1; ///< product over the ancestors: near enough for flat art
    bool displayed = true, overflow_shown = false;
    std::string clip_path, stop_colour;
    double stop_opacity = 1;
    bool filter = false, mask = false;
    /// Whether a child that says nothing has the same style.
    bool inherits_all() const {
        return displayed && !overflow_shown && clip_path.empty() && stop_colour.empty() &&
               stop_opacity == 1 && !filter && !mask;
    }
};
using SharedStyle = std::shared_ptr<const Style>;

class StyleSheet {
  public:
    /// Adds the rules of a <style> element; returns how many were not understood. `outside` counts sheets to
    /// be imported, which are never followed.
    int add(std::string_view css, int& outside);
    /// How many elements selectors have been held against.
    std::size_t work() const { return work_; }
    bool empty() const { return rules_.empty(); }
    /// Whether rules ask for an element's type and classes only, not for its place or other attributes.
    bool simple() const { return simple_; }
    /// Whether the style of an element may depend on an attribute, if the sheet is simple.
    bool matters(std::string_view attribute) const;
    /// The style of `node` below `parent`; `outside` counts references out of the file.
    Style compute(const pugi::xml_node& node, const Style& parent, int& outside) const;

  private:
    struct Compound {
        std::string type, id;
        std::vector<std::string> classes;
        struct Attribute {
            std::string name, value;
            char op = 0; // 0: exists, '=', '~', '|', '^', '$', '*'
        };
        std::vector<Attribute> attributes;
        bool first_child = false;
        bool child = false; ///< joined to the one on its left by '>' rather than a space
    };
    struct Declaration {
        std::string name, value;
        bool important;
    };
    struct Rule {
        std::vector<Compound> selector; // left to right
        int specificity;
        std::shared_ptr<const std::vector<Declaration>> declarations;
    };
    static bool parse_selector(std::string_view text, Rule& rule);
    static bool parse_compound(std::string_view text, Compound& out, int& specificity);
    static std::vector<Declaration> parse_declarations(std::string_view text);
    static bool matches(const Compound& compound, const pugi::xml_node& node);
    bool matches(const Rule& rule, std::size_t last, const pugi::xml_node& node, std::size_t allowed) const;
    void index();
    std::vector<Rule> rules_; // in order of rising specificity
    /// Rules by what an element must have to be their subject; those that ask for nothing.
    std::unordered_map<std::string, std::vector<std::uint32_t>> by_id_, by_class_, by_type_;
    std::vector<std::uint32_t> others_;
    bool simple_ = true;
    mutable std::size_t work_ = 0;
};

} // namespace dotlane::svg
