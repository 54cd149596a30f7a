#include "core/project/drawing.h"

#include "core/geometry/polyline.h"
#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <cstdio>

namespace dotlane {

std::string to_hex(Colour c) {
    char text[8];
    std::snprintf(text, sizeof text, "#%02x%02x%02x", c.r, c.g, c.b);
    return text;
}

std::optional<Colour> colour_from_hex(std::string_view text) {
    if (text.size() != 4 && text.size() != 7) return std::nullopt;
    if (text[0] != '#') return std::nullopt;
    unsigned v = 0;
    const auto [end, ec] = std::from_chars(text.data() + 1, text.data() + text.size(), v, 16);
    if (ec != std::errc() || end != text.data() + text.size()) return std::nullopt;
    const auto byte = [](unsigned x) { return static_cast<std::uint8_t>(x & 255); };
    if (text.size() == 4)
        return Colour{byte((v >> 8 & 15) * 17), byte((v >> 4 & 15) * 17), byte((v & 15) * 17)};
    return Colour{byte(v >> 16), byte(v >> 8), byte(v)};
}

double lightness(Colour c) {
    const auto linear = [](std::uint8_t byte) {
        const double v = byte / 255.0;
        return v <= 0.04045 ? v / 12.92 : std::pow((v + 0.055) / 1.055, 2.4);
    };
    const double y = 0.2126 * linear(c.r) + 0.7152 * linear(c.g) + 0.0722 * linear(c.b);
    return y > 216.0 / 24389 ? 116 * std::cbrt(y) - 16 : y * 24389.0 / 27;
}

namespace {

constexpr struct {
    const char* word;
    Colour colour;
} words[] = {{"black", {0, 0, 0}},        {"ink", {34, 40, 44}},      {"grey", {128, 128, 128}},
             {"silver", {192, 192, 192}}, {"white", {255, 255, 255}}, {"red", {220, 30, 30}},
             {"rust", {168, 70, 45}},     {"orange", {235, 130, 30}}, {"gold", {180, 140, 45}},
             {"yellow", {240, 220, 50}},  {"olive", {110, 110, 40}},  {"green", {40, 150, 60}},
             {"teal", {40, 120, 120}},    {"cyan", {60, 200, 220}},   {"blue", {40, 80, 210}},
             {"slate", {90, 105, 150}},   {"navy", {20, 30, 100}},    {"violet", {130, 60, 170}},
             {"magenta", {220, 40, 200}}, {"pink", {245, 160, 180}},  {"brown", {110, 70, 40}},
             {"cream", {245, 235, 210}}};

} // namespace

std::string colour_word(Colour c) {
    const char* best = "black";
    double least = 1e9;
    for (const auto& w : words) {
        // "redmean" weighting: close enough to the eye for choosing a word.
        const double mean = (c.r + w.colour.r) / 2.0, dr = c.r - w.colour.r, dg = c.g - w.colour.g,
                     db = c.b - w.colour.b;
        const double d = (2 + mean / 256) * dr * dr + 4 * dg * dg + (2 + (255 - mean) / 256) * db * db;
        if (d < least) least = d, best = w.word;
    }
    return best;
}

Phrase word(Colour colour) {
    return as_word("Colour", colour_word(colour));
}

std::vector<const char*> colour_words() {
    std::vector<const char*> out;
    for (const auto& w : words)
        out.push_back(w.word);
    return out;
}

namespace {

bool sound(double v) {
    return std::abs(v) <= drawing_limit_mm; // false for what is not a number
}
bool sound(Point p) {
    return sound(p.x) && sound(p.y);
}

} // namespace

bool sound(const DrawnLine& line) {
    for (const Contour& c : line.shape.contours) {
        if (!sound(c.start)) return false;
        for (const Segment& s : c.segments)
            if (!sound(s.to) || (s.curved && (!sound(s.c1) || !sound(s.c2)))) return false;
    }
    const Drawn& d = line.drawn;
    return sound(d.stroke_opacity) && sound(d.fill_opacity) && sound(in_mm(d.stroke_width)) &&
           sound(d.mitre_limit) && sound(d.dash_offset_mm) &&
           std::all_of(d.nib.begin(), d.nib.end(), [](double v) { return sound(v); }) &&
           std::all_of(d.dashes_mm.begin(), d.dashes_mm.end(), [](double v) { return sound(v); });
}

Result<void> check_numbers(const Drawing& drawing) {
    std::size_t wrong = 0;
    for (const DrawnLine& line : drawing.lines)
        wrong += sound(line) ? 0 : 1;
    if (wrong == 0 && sound(in_mm(drawing.page_width)) && sound(in_mm(drawing.page_height))) return {};
    return fail("drawing.number", wrong == 0
                                      ? say("The page is larger than a kilometre.")
                                      : say_n(wrong, "%n [line has|lines have] a coordinate that is not a "
                                                     "number or lies more than a kilometre away."));
}

bool closes(const Contour& c) {
    return c.closed || (c.segments.size() > 1 && distance(c.start, c.end()) < 0.01);
}

bool fillable(const DrawnLine& line) {
    return line.drawn.fill.has_value() ||
           std::any_of(line.shape.contours.begin(), line.shape.contours.end(), closes);
}

std::array<double, 4> nib_under(const Affine& by, const std::array<double, 4>& nib) {
    const double s = by.mean_scale();
    if (nib == Drawn{}.nib || s <= 0) return nib;
    const auto [a, b, c, d] = nib;
    return {(by.a * a + by.c * b) / s, (by.b * a + by.d * b) / s, (by.a * c + by.c * d) / s,
            (by.b * c + by.d * d) / s};
}

std::size_t points_of(const Drawing& drawing) {
    std::size_t out = 0;
    for (const DrawnLine& line : drawing.lines)
        out += flattened_size(line.shape);
    return out;
}

Box bounds(const Drawing& drawing) {
    Box box;
    for (const DrawnLine& line : drawing.lines)
        box.add(bounds(line.shape));
    return box;
}

Drawing transformed(const Drawing& drawing, const Affine& by) {
    Drawing out = drawing;
    const double scale = by.mean_scale();
    for (DrawnLine& line : out.lines) {
        line.shape = transformed(line.shape, by);
        line.drawn.stroke_width = line.drawn.stroke_width * scale;
        line.drawn.nib = nib_under(by, line.drawn.nib);
        line.drawn.dash_offset_mm *= scale;
        for (double& d : line.drawn.dashes_mm)
            d *= scale;
    }
    return out;
}

} // namespace dotlane
