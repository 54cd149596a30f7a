#include "core/base/text.h"

#include <clocale>
#include <cwctype>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <cstdint>

namespace dotlane {

std::string number(double value, int decimals) {
    char buffer[400];
    const auto end =
        std::to_chars(buffer, buffer + sizeof buffer, value, std::chars_format::fixed, decimals).ptr;
    std::string text(buffer, end);
    if (text.find('.') != std::string::npos) {
        text.erase(text.find_last_not_of('0') + 1);
        if (text.back() == '.') text.pop_back();
    }
    return text == "-0" ? "0" : text;
}

std::optional<double> plain_number(std::string_view text) {
    if (text.starts_with('+')) text.remove_prefix(1);
    double value = 0;
    const auto [end, bad] = std::from_chars(text.data(), text.data() + text.size(), value);
    if (bad != std::errc() || end != text.data() + text.size() || !std::isfinite(value)) return std::nullopt;
    return value;
}

std::string spoken_seconds(double seconds) {
    const auto total = static_cast<long>(std::llround(seconds));
    const long h = total / 3600, m = total / 60 % 60, s = total % 60;
    if (h > 0) return std::to_string(h) + " h " + std::to_string(m) + " min";
    if (m >= 10) return std::to_string((total + 30) / 60) + " min";
    if (m > 0) return std::to_string(m) + " min" + (s ? " " + std::to_string(s) + " s" : "");
    return std::to_string(s) + " s";
}

std::string with_thousands(std::size_t n) {
    const std::string digits = std::to_string(n);
    std::string out;
    for (std::size_t i = 0; i < digits.size(); ++i) {
        if (i > 0 && (digits.size() - i) % 3 == 0) out += ',';
        out += digits[i];
    }
    return out;
}

std::string_view trimmed(std::string_view text) {
    const auto* space = " \t\r\n\f";
    const auto first = text.find_first_not_of(space);
    if (first == std::string_view::npos) return {};
    return text.substr(first, text.find_last_not_of(space) - first + 1);
}

std::string lower_case(std::string_view ascii) {
    std::string out(ascii);
    for (char& c : out)
        if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
    return out;
}

namespace {
constexpr std::string_view base64_letters =
    "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
}

std::string base64(std::string_view bytes) {
    std::string out;
    out.reserve((bytes.size() + 2) / 3 * 4);
    for (std::size_t i = 0; i < bytes.size(); i += 3) {
        std::uint32_t v = 0;
        for (std::size_t k = 0; k < 3; ++k)
            v = v << 8 | (i + k < bytes.size() ? static_cast<unsigned char>(bytes[i + k]) : 0U);
        for (std::size_t k = 0; k < 4; ++k)
            out.push_back(i + k > bytes.size() ? '=' : base64_letters[v >> (18 - 6 * k) & 63]);
    }
    return out;
}

std::optional<std::string> from_base64(std::string_view text) {
    if (text.size() % 4 != 0) return std::nullopt;
    std::string out;
    out.reserve(text.size() / 4 * 3);
    for (std::size_t i = 0; i < text.size(); i += 4) {
        std::uint32_t v = 0;
        int pads = 0;
        for (std::size_t k = 0; k < 4; ++k) {
            const auto at = base64_letters.find(text[i + k]);
            if (text[i + k] == '=' && i + 4 == text.size() && k >= 2)
                ++pads, v <<= 6;
            else if (at == std::string_view::npos || pads > 0)
                return std::nullopt;
            else
                v = v << 6 | static_cast<std::uint32_t>(at);
        }
        for (int k = 0; k < 3 - pads; ++k)
            out.push_back(static_cast<char>(v >> (16 - 8 * k) & 255));
    }
    return out;
}

std::vector<std::string_view> split(std::string_view text, std::string_view separators) {
    std::vector<std::string_view> parts;
    std::size_t at = 0;
    while (at < text.size()) {
        const auto start = text.find_first_not_of(separators, at);
        if (start == std::string_view::npos) break;
        const auto end = std::min(text.find_first_of(separators, start), text.size());
        parts.push_back(text.substr(start, end - start));
        at = end;
    }
    return parts;
}

int line_of_offset(std::string_view text, std::size_t offset) {
    offset = std::min(offset, text.size());
    return 1 + static_cast<int>(
                   std::count(text.begin(), text.begin() + static_cast<std::ptrdiff_t>(offset), '\n'));
}

std::string code_word(std::string_view text) {
    std::string out;
    for (const char c : lower_case(text)) {
        const bool keep = (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9');
        if (keep)
            out += c;
        else if (!out.empty() && out.back() != '-')
            out += '-';
    }
    while (!out.empty() && out.back() == '-')
        out.pop_back();
    return out.empty() ? "unnamed" : out;
}

namespace {

/// The character at `i` and how many bytes it has; none where the bytes are no valid UTF-8 (RFC 3629).
std::optional<std::pair<std::uint32_t, std::size_t>> character_at(std::string_view text, std::size_t i) {
    const auto c = static_cast<unsigned char>(text[i]);
    const std::size_t more = c < 0x80                ? 0
                             : c >= 0xC2 && c < 0xE0 ? 1
                             : c >= 0xE0 && c < 0xF0 ? 2
                             : c >= 0xF0 && c < 0xF5 ? 3
                                                     : 9;
    if (more == 9 || i + more >= text.size()) return std::nullopt;
    std::uint32_t code = more == 0 ? c : c & (0x3FU >> more);
    for (std::size_t k = 1; k <= more; ++k) {
        const auto next = static_cast<unsigned char>(text[i + k]);
        if ((next & 0xC0) != 0x80) return std::nullopt;
        code = code << 6 | (next & 0x3FU);
    }
    // Overlong forms, surrogates and what lies beyond Unicode.
    if (more == 2 && (code < 0x800 || (code >= 0xD800 && code <= 0xDFFF))) return std::nullopt;
    if (more == 3 && (code < 0x10000 || code > 0x10FFFF)) return std::nullopt;
    return std::pair(code, more + 1);
}

/// With every broken byte as '?' and every character that `unwanted` names as `instead`.
template<class Unwanted>
std::string replaced(std::string_view text, char instead, Unwanted unwanted) {
    std::string out;
    out.reserve(text.size());
    for (std::size_t i = 0; i < text.size();) {
        const auto character = character_at(text, i);
        if (!character)
            out += '?', ++i;
        else {
            if (unwanted(character->first))
                out += instead;
            else
                out += text.substr(i, character->second);
            i += character->second;
        }
    }
    return out;
}

} // namespace

std::string valid_utf8(std::string_view text) {
    const auto plain = [](char c) { return c >= 0x20 && c < 0x7F; };
    if (std::all_of(text.begin(), text.end(), plain)) return std::string(text); // nearly all
    return replaced(text, ' ', [](std::uint32_t c) { return c < 0x20 || (c >= 0x7F && c < 0xA0); });
}

std::string printable(std::string_view text) {
    return replaced(text, '?', [](std::uint32_t c) {
        return (c < 0x20 && c != 0x0A) || (c >= 0x7F && c < 0xA0) || c == 0x200E || c == 0x200F ||
               (c >= 0x2028 && c <= 0x202E) || (c >= 0x2066 && c <= 0x2069);
    });
}

bool same_word(std::string_view a, std::string_view b) {
    // The C library knows the letters of all languages where its locale is Unicode's, whatever the maker's
    // is.
    static const locale_t unicode = ::newlocale(LC_CTYPE_MASK, "C.UTF-8", nullptr);
    const auto small = [](std::uint32_t c) -> std::uint32_t {
        if (c < 0x80) return c >= 'A' && c <= 'Z' ? c + 32 : c;
        return unicode ? static_cast<std::uint32_t>(::towlower_l(static_cast<wint_t>(c), unicode)) : c;
    };
    std::size_t i = 0, k = 0;
    while (i < a.size() && k < b.size()) {
        const auto x = character_at(a, i), y = character_at(b, k);
        if (x.has_value() != y.has_value()) return false;
        if (!x && a[i] != b[k]) return false;
        if (x && small(x->first) != small(y->first)) return false;
        i += x ? x->second : 1, k += y ? y->second : 1;
    }
    return i == a.size() && k == b.size();
}

std::string shortened(std::string text, std::size_t most_bytes) {
    if (text.size() <= most_bytes) return text;
    std::size_t end = most_bytes;
    while (end > 0 && (static_cast<unsigned char>(text[end]) & 0xC0) == 0x80)
        --end;
    text.resize(end);
    return text;
}

std::uint64_t content_hash(std::string_view bytes) {
    std::uint64_t hash = 14695981039346656037ULL;
    for (const char c : bytes)
        hash = (hash ^ static_cast<unsigned char>(c)) * 1099511628211ULL;
    return hash;
}

} // namespace dotlane
