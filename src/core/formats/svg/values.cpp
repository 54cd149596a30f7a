#include "core/formats/svg/values.h"

#include <algorithm>
#include <bit>
#include <charconv>
#include <cmath>
#include <cstring>
#include <limits>
#include <numbers>

#include "core/base/text.h"
#include "core/formats/svg/colour_names.h"

namespace dotlane::svg {

namespace {

bool is_digit(char c) {
    return c >= '0' && c <= '9';
}

// Powers of ten that a double holds exactly.
constexpr double tens[] = {1e0,  1e1,  1e2,  1e3,  1e4,  1e5,  1e6,  1e7,  1e8,  1e9,  1e10, 1e11,
                           1e12, 1e13, 1e14, 1e15, 1e16, 1e17, 1e18, 1e19, 1e20, 1e21, 1e22};

constexpr double signs[] = {1, -1}; // looked up: half of all numbers are negative, and no guess is right
constexpr std::uint64_t whole_tens[] = {1, 10, 100, 1000, 10000, 100000, 1000000, 10000000, 100000000};
static_assert(std::endian::native == std::endian::little, "take_digits reads bytes from the lowest on");

/// Where a byte from which '0' was taken is no digit, some of its bits.
[[gnu::always_inline]] inline std::uint64_t others_than_digits(std::uint64_t bytes) {
    return (bytes | (bytes + 0x0606060606060606)) & 0xf0f0f0f0f0f0f0f0;
}

/// Of the lowest `n` bytes, 1 to 8, which are digits less '0', the first one lowest.
[[gnu::always_inline]] inline std::uint64_t number_of(std::uint64_t bytes, int n) {
    bytes <<= 64 - 8 * n; // zeros before the first digit
    bytes = bytes * 10 + (bytes >> 8);
    return ((bytes & 0x000000ff000000ff) * 0x000f424000000064 +
            (bytes >> 16 & 0x000000ff000000ff) * 0x0000271000000001) >>
           32;
}

/// Takes digits from `p` on: eight at a time, whose bytes are told apart and added up at once, as long as
/// eight bytes are left to be read; numbers of a drawing are short, and a look at each byte costs a wrong
/// guess at its end.
struct Digits {
    const char* end;
    std::uint64_t value;
};
[[gnu::always_inline]] inline Digits take_digits(const char* p, const char* end, std::uint64_t value) {
    while (end - p >= 8) {
        std::uint64_t bytes = 0;
        std::memcpy(&bytes, p, 8);
        bytes ^= 0x3030303030303030;
        const std::uint64_t others = others_than_digits(bytes);
        const int n = others == 0 ? 8 : std::countr_zero(others) / 8;
        if (n == 0) return {p, value};
        value = value * whole_tens[n] + number_of(bytes, n);
        p += n;
        if (n < 8) return {p, value};
    }
    while (p != end && is_digit(*p))
        value = value * 10 + static_cast<std::uint64_t>(*p++ - '0');
    return {p, value};
}

/// Up to seven digits with a point among or before them, as most numbers of a drawing are: all in one look.
/// `digits` 0: it is no such number.
struct Short {
    std::uint64_t value;
    int digits, fraction;
};
[[gnu::always_inline]] inline Short take_short(const char* p, const char* end) {
    constexpr Short none{0, 0, 0};
    if (end - p < 8) return none;
    std::uint64_t bytes = 0;
    std::memcpy(&bytes, p, 8);
    bytes ^= 0x3030303030303030;
    std::uint64_t others = others_than_digits(bytes);
    if (others == 0) return none;
    const int point = std::countr_zero(others) / 8;
    if (p[point] != '.') return none;
    const std::uint64_t before = (std::uint64_t{1} << 8 * point) - 1;
    others &= ~(before | std::uint64_t{0xff} << 8 * point);
    const int stop = others == 0 ? 8 : std::countr_zero(others) / 8, digits = stop - 1;
    if (digits == 0) return none;
    bytes = (bytes & before) | (bytes >> 8 & ~before);
    return {number_of(bytes, digits), digits, digits - point};
}

/// The nearest number to what stands from `from` to `to`; infinite or 0 beyond what a double holds.
double general_number(const char* from, const char* to) {
    if (*from == '+') ++from;
    double value = 0;
    const auto [end, error] = std::from_chars(from, to, value);
    // Out of range: a huge magnitude becomes infinity (and is refused by the reader), a tiny one 0.
    if (error == std::errc::result_out_of_range) {
        const char* e = std::find_if(from, to, [](char c) { return c == 'e' || c == 'E'; });
        const char* first = std::find_if(from, e, [](char c) { return (c >= '1' && c <= '9') || c == '.'; });
        const bool tiny = e != to ? e[1] == '-' : first != to && *first == '.';
        value = tiny ? 0 : std::numeric_limits<double>::infinity();
        if (*from == '-') value = -value;
    }
    return value;
}

} // namespace

/// A decimal of up to 15 digits is a whole number that a double holds exactly, divided by a power of ten that
/// it holds exactly: one division rounds once, so the result is the nearest number (Clinger 1990), as
/// from_chars gives it for all others, at a fifth of its time.
std::optional<double> Scanner::number() {
    skip_space();
    const char* const begin = text_.data() + at_;
    const char* const end = text_.data() + text_.size();
    const char* p = begin;
    const bool minus = p != end && *p == '-';
    p += minus || (p != end && *p == '+');
    const char* const mantissa = p;
    Digits digits;
    std::ptrdiff_t count, fraction = 0;
    if (const Short whole = take_short(p, end); whole.digits > 0) {
        digits = {p + whole.digits + 1, whole.value};
        count = whole.digits, fraction = whole.fraction;
        if (digits.end - p == 8) { // it may go on
            const char* const more = digits.end;
            digits = take_digits(more, end, digits.value);
            count += digits.end - more, fraction += digits.end - more;
        }
        p = digits.end;
    } else {
        digits = take_digits(p, end, 0);
        p = digits.end;
        count = p - mantissa;
        if (p != end && *p == '.') {
            const char* const point = ++p;
            digits = take_digits(p, end, digits.value);
            p = digits.end;
            fraction = p - point;
            count += fraction;
        }
    }
    if (count == 0) return std::nullopt;
    bool exponent = false;
    if (p != end && (*p == 'e' || *p == 'E')) {
        const char* e = p + 1;
        if (e != end && (*e == '+' || *e == '-')) ++e;
        if (e != end && is_digit(*e)) { // "1em" is a length, not an exponent
            while (e != end && is_digit(*e))
                ++e;
            p = e;
            exponent = true;
        }
    }
    at_ += static_cast<std::size_t>(p - begin);
    if (exponent || count > 15) return general_number(begin, p);
    const double value = static_cast<double>(digits.value) / tens[fraction];
    return value * signs[minus];
}

std::optional<bool> Scanner::flag() {
    skip_space();
    if (peek() != '0' && peek() != '1') return std::nullopt;
    return text_[at_++] == '1';
}

std::optional<Measure> parse_measure(std::string_view text) {
    text = trimmed(text);
    Scanner in(text);
    const auto value = in.number();
    if (!value) return std::nullopt;
    if (in.done()) return Measure{*value, Unit::none};
    const std::string unit = lower_case(trimmed(text.substr(text.size() - in.left())));
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
    constexpr std::size_t usual = 6; // bytes of text to a number
    out.reserve(text.size() / usual + 1);
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
