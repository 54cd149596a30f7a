// What an opened file brought: its lines as curves in millimetres, with the colours they were drawn in.
// A drawing is a source: it is stored as it came and never changed; lanes and steps refer to its lines by id.
#pragma once

#include <array>
#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/base/figure.h"
#include "core/base/finding.h"
#include "core/base/id.h"
#include "core/base/result.h"
#include "core/base/units.h"
#include "core/geometry/path.h"

namespace dotlane {

/// sRGB, 0..255 each.
struct Colour {
    std::uint8_t r = 0, g = 0, b = 0;
    auto operator<=>(const Colour&) const = default;
};
/// "#d9822b"
std::string to_hex(Colour colour);
std::optional<Colour> colour_from_hex(std::string_view text);
/// CIE L* (0 black .. 100 white) of an sRGB colour; decides which pen is the lighter one.
/// Source: IEC 61966-2-1 transfer curve and CIE 15 lightness.
double lightness(Colour colour);
/// A plain colour word ("rust", "gold", "blue", "black") for names of lanes; the nearest of a small set.
std::string colour_word(Colour colour);
/// The same, to be said.
Phrase word(Colour colour);
/// All that colour_word can give.
std::vector<const char*> colour_words();

enum class LineCap { butt, round, square };
enum class LineJoin { mitre, round, bevel };

/// How the file drew a line; only for showing it as it came and for guessing its lane.
struct Drawn {
    std::optional<Colour> stroke, fill;
    double stroke_opacity = 1, fill_opacity = 1; ///< 0..1
    Length stroke_width;
    LineCap cap = LineCap::butt;
    LineJoin join = LineJoin::mitre;
    double mitre_limit = 4;
    std::vector<double> dashes_mm; ///< alternating on and off; empty: unbroken
    double dash_offset_mm = 0;
    /// What skewing and uneven scaling made of the round nib that the stroke is drawn with: the linear map a,
    /// b, c, d of Affine, of determinant 1 or -1. Only the look follows it; the line that is run stays its
    /// middle.
    std::array<double, 4> nib{1, 0, 0, 1};
    bool operator==(const Drawn&) const = default;
};

inline constexpr std::size_t longest_name = 200; ///< bytes, of a line and of the groups it lay in

struct DrawnLine {
    LineId id;
    std::string name;  ///< the file's own name or id for it, may be empty
    std::string group; ///< names of the groups it lay in, outermost first, joined by '/'
    Shape shape;       ///< mm, origin at the page's top-left
    Drawn drawn;
    bool operator==(const DrawnLine&) const = default;
};

struct Drawing {
    std::vector<DrawnLine> lines;
    Length page_width, page_height;
    bool operator==(const Drawing&) const = default;
};

/// What a source gave: the drawing of a file, or computed lines whose `group` is their role.
struct SourceLines {
    std::shared_ptr<const Drawing> drawing;
    Findings findings;
    std::vector<Figure> figures;
    /// What is seen of the finished thing, where that is not its outline: the front of a folded card.
    std::optional<Shape> face = {};
};

/// No number of a drawing is greater: a kilometre. What lies beyond was never meant, and is told from the
/// numbers that computing with them needs.
inline constexpr double drawing_limit_mm = 1e6;
/// Whether all numbers of the line are finite and within the limit: its points and handles, widths, dashes.
bool sound(const DrawnLine& line);
/// The same of all lines and the page. Error "drawing.number".
Result<void> check_numbers(const Drawing& drawing);

/// Whether a contour is closed in the maker's eyes: closed in the file, or its ends meet within 0.01 mm.
bool closes(const Contour& contour);
/// Whether the line bounds an area: a contour of it closes, or the file fills it.
bool fillable(const DrawnLine& line);
/// The nib of a line that is turned, mirrored or evenly scaled by the map; a round one stays round.
std::array<double, 4> nib_under(const Affine& by, const std::array<double, 4>& nib);
/// Points of all lines when they are followed: what much that is done with them costs grows with these.
std::size_t points_of(const Drawing& drawing);
Box bounds(const Drawing& drawing);
Drawing transformed(const Drawing& drawing, const Affine& by);

} // namespace dotlane
