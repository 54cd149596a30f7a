#include "core/formats/svg/values.h"

#include <charconv>
#include <cmath>
#include <numbers>

#include "core/base/text.h"
#include "core/formats/svg/colour_names.h"

namespace dotlane::svg {

void Scanner::skip_space() {
    while (!done() && (peek() == ' ' || peek() == '\t' || peek() == '\n' || peek() == '\r' || peek() == '\f'))
        ++at_;
}

void Scanner::skip_separator() {
    skip_space();
    if (peek() == ',') {
        ++at_;
        skip_space();
    }
}

std::optional<double> Scanner::number() {
    skip_space();
    const std::size_t start = at_;
    std::size_t i = at_;
    const auto digit = [&](std::size_t k) { return k < text_.size() && text_[k] >= '0' && text_[k] <= '9'; };
    if (i < text_.size() && (text_[i] == '+' || text_[i] == '-')) ++i;
    const std::size_t mantissa = i;
    while (digit(i))
        ++i;
    bool any = i > mantissa;
    if (i < text_.size() && text_[i] == '.') {
        const std::size_t point = i++;
        while (digit(i))
            ++i;
        any |= i > point + 1;
    }
    if (!any) return std::nullopt;
    if (i < text_.size() && (text_[i] == 'e' || text_[i] == 'E')) {
        std::size_t e = i + 1;
        if (e < text_.size() && (text_[e] == '+' || text_[e] == '-')) ++e;
        if (digit(e)) { // "1em" is a length, not an exponent
            while (digit(e))
                ++e;
            i = e;
        }
    }
    at_ = i;
    const std::size_t from = text_[start] == '+' ? start + 1 : start;
    double value = 0;
    const auto result = std::from_chars(text_.data() + from, text_.data() + i, value);
    // Out of range: a huge magnitude is reported as infinity (and refused by the reader), a tiny one is 0.
    if (result.ec == std::errc::result_out_of_range) {
        const std::string_view exponent = text_.substr(from, i - from);
        return exponent.find("e-") != std::string_view::npos || exponent.find("E-") != std::string_view::npos
                   ? 0.0
                   : HUGE_VAL;
    }
    return value;
}

std::optional<bool> Scanner::flag() {
    skip_space();
    if (peek() != '0' && peek() != '1') return std::nullopt;
    return text_[at_++] == '1';
}

std::optional<Measure> parse_measure(std::string_view text) {
    Scanner in(trimmed(text));
    const auto value = in.number();
    if (!value) return std::nullopt;
    std::string unit;
    while (!in.done()) {
        unit += in.peek();
        in.advance();
    }
    unit = lower_case(trimmed(unit));
    static constexpr struct {
        const char* name;
        Unit unit;
    } known[] = {{"", Unit::none}, {"px", Unit::px}, {"pt", Unit::pt},    {"pc", Unit::pc},
                 {"mm", Unit::mm}, {"cm", Unit::cm}, {"in", Unit::in},    {"q", Unit::quarter_mm},
                 {"em", Unit::em}, {"ex", Unit::ex}, {"%", Unit::percent}};
    for (const auto& k : known)
        if (unit == k.name) return Measure{*value, k.unit};
    return Measure{*value, Unit::unknown};
}

double px_per(Unit unit) {
    switch (unit) {
    case Unit::none:
    case Unit::px:
        return 1;
    case Unit::pt:
        return 96.0 / 72;
    case Unit::pc:
        return 16;
    case Unit::in:
        return 96;
    case Unit::mm:
        return 96 / 25.4;
    case Unit::cm:
        return 960 / 25.4;
    case Unit::quarter_mm:
        return 24 / 25.4;
    default:
        return 0;
    }
}

std::vector<double> parse_numbers(std::string_view text) {
    std::vector<double> out;
    Scanner in(text);
    while (const auto n = in.number()) {
        out.push_back(*n);
        in.skip_separator();
    }
    return out;
}

std::optional<Affine> parse_transform(std::string_view text) {
    Affine total;
    std::size_t at = 0;
    while (true) {
        at = text.find_first_not_of(" \t\r\n,", at);
        if (at == std::string_view::npos) return total;
        const auto open = text.find('(', at), close = text.find(')', at);
        if (open == std::string_view::npos || close == std::string_view::npos || close < open)
            return std::nullopt;
        const std::string name(trimmed(text.substr(at, open - at)));
        const auto v = parse_numbers(text.substr(open + 1, close - open - 1));
        const std::size_t n = v.size();
        const double degree = std::numbers::pi / 180;
        Affine one;
        if (name == "matrix" && n == 6)
            one = {v[0], v[1], v[2], v[3], v[4], v[5]};
        else if (name == "translate" && (n == 1 || n == 2))
            one = Affine::translation({v[0], n > 1 ? v[1] : 0});
        else if (name == "scale" && (n == 1 || n == 2))
            one = Affine::scaling(v[0], n > 1 ? v[1] : v[0]);
        else if (name == "rotate" && n == 1)
            one = Affine::rotation(v[0] * degree);
        else if (name == "rotate" && n == 3)
            one = Affine::translation({v[1], v[2]}) * Affine::rotation(v[0] * degree) *
                  Affine::translation({-v[1], -v[2]});
        else if (name == "skewX" && n == 1)
            one = {1, 0, std::tan(v[0] * degree), 1, 0, 0};
        else if (name == "skewY" && n == 1)
            one = {1, std::tan(v[0] * degree), 0, 1, 0, 0};
        else
            return std::nullopt;
        total = total * one;
        at = close + 1;
    }
}

namespace {

std::optional<Colour> from_function(std::string_view name, std::string_view arguments, double& alpha) {
    std::vector<double> v;
    std::vector<bool> percent;
    for (const auto piece : split(arguments, " ,/\t\r\n")) {
        Scanner in(piece);
        const auto n = in.number();
        if (!n) return std::nullopt;
        v.push_back(*n);
        percent.push_back(in.peek() == '%');
    }
    if (v.size() < 3 || v.size() > 4) return std::nullopt;
    if (v.size() == 4) alpha = std::clamp(percent[3] ? v[3] / 100 : v[3], 0.0, 1.0);
    const auto byte = [](double x) {
        return static_cast<std::uint8_t>(std::lround(std::clamp(x, 0.0, 255.0)));
    };
    if (name == "rgb" || name == "rgba") {
        const auto c = [&](int i) { return byte(percent[i] ? v[i] * 2.55 : v[i]); };
        return Colour{c(0), c(1), c(2)};
    }
    if (name != "hsl" && name != "hsla") return std::nullopt;
    // CSS Color 3, section 4.2.4.
    const double h = std::fmod(std::fmod(v[0], 360) + 360, 360) / 30, s = std::clamp(v[1] / 100, 0.0, 1.0),
                 l = std::clamp(v[2] / 100, 0.0, 1.0);
    const auto channel = [&](double n) {
        const double k = std::fmod(n + h, 12), a = s * std::min(l, 1 - l);
        return byte(255 * (l - a * std::max(-1.0, std::min({k - 3, 9 - k, 1.0}))));
    };
    return Colour{channel(0), channel(8), channel(4)};
}

} // namespace

std::optional<Colour> parse_colour(std::string_view raw, double& alpha) {
    alpha = 1;
    const std::string text = lower_case(trimmed(raw));
    if (text.empty()) return std::nullopt;
    if (text[0] == '#') {
        if (text.size() == 9 || text.size() == 5) {
            const bool wide = text.size() == 9;
            unsigned a = 0;
            std::from_chars(text.data() + (wide ? 7 : 4), text.data() + text.size(), a, 16);
            alpha = a / (wide ? 255.0 : 15.0);
            return colour_from_hex(std::string_view(text).substr(0, wide ? 7 : 4));
        }
        return colour_from_hex(text);
    }
    if (const auto open = text.find('('); open != std::string::npos && text.back() == ')')
        return from_function(std::string_view(text).substr(0, open),
                             std::string_view(text).substr(open + 1, text.size() - open - 2), alpha);
    if (text == "transparent") return alpha = 0, Colour{};
    for (const auto& named : colour_names)
        if (text == named.name) {
            const auto v = named.rgb;
            return Colour{static_cast<std::uint8_t>(v >> 16), static_cast<std::uint8_t>(v >> 8),
                          static_cast<std::uint8_t>(v)};
        }
    return std::nullopt;
}

std::string_view parse_reference(std::string_view text, bool& external) {
    external = false;
    text = trimmed(text);
    if (text.starts_with("url(")) {
        const auto close = text.find(')');
        text = trimmed(text.substr(4, close == std::string_view::npos ? close : close - 4));
        if (text.size() >= 2 && (text.front() == '"' || text.front() == '\''))
            text = text.substr(1, text.size() - 2);
    }
    if (text.starts_with('#')) return text.substr(1);
    external = !text.empty();
    return {};
}

} // namespace dotlane::svg
