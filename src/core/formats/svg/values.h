// The small grammars of SVG: numbers, lengths, colours, transforms. Internal to formats/svg.
#pragma once

#include <optional>
#include <string_view>
#include <vector>

#include "core/geometry/point.h"
#include "core/project/drawing.h"

namespace dotlane::svg {

/// A cursor over attribute text with SVG's rules for separators.
class Scanner {
  public:
    explicit Scanner(std::string_view text)
        : text_(text) {}
    bool done() const { return at_ >= text_.size(); }
    std::size_t left() const { return text_.size() - at_; } ///< bytes
    char peek() const { return done() ? '\0' : text_[at_]; }
    void advance() { ++at_; }
    void skip_space() {
        while (!done() && is_space(text_[at_]))
            ++at_;
    }
    /// White space with at most one comma among it.
    void skip_separator() {
        skip_space();
        if (!done() && text_[at_] == ',') {
            ++at_;
            skip_space();
        }
    }
    /// SVG number grammar: "-.5", "1e3", "0.6.5" reads as two. Empty on syntax error.
    std::optional<double> number();
    /// A single '0' or '1', which may stand without a separator.
    std::optional<bool> flag();

  private:
    static bool is_space(char c) { return c == ' ' || c == '\t' || c == '\n' || c == '\r' || c == '\f'; }
    std::string_view text_;
    std::size_t at_ = 0;
};

enum class Unit { none, px, pt, pc, mm, cm, in, quarter_mm, em, ex, percent, unknown };
struct Measure {
    double value = 0;
    Unit unit = Unit::none;
};
std::optional<Measure> parse_measure(std::string_view text);
/// User units (px) of an absolute unit; 0 for relative and unknown ones.
double px_per(Unit unit);
std::vector<double> parse_numbers(std::string_view text);

/// SVG 2 transform list; empty on syntax error.
std::optional<Affine> parse_transform(std::string_view text);

/// Colour keywords, #rgb, #rrggbb, rgb(), rgba(), hsl(). `alpha` receives the opacity.
std::optional<Colour> parse_colour(std::string_view text, double& alpha);

/// The id in "url(#id)" or "#id"; empty when it refers outside the file (`external` becomes true).
std::string_view parse_reference(std::string_view text, bool& external);

} // namespace dotlane::svg
