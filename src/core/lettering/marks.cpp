#include "core/lettering/marks.h"

#include <cmath>
#include <optional>

#include "core/base/text.h"

namespace dotlane {
namespace {

struct Mark {
    std::size_t from, to; ///< with its braces
    std::optional<double> kern;
};

/// The mark that begins at or after `from`.
std::optional<Mark> next_mark(const std::string& text, std::size_t from) {
    for (auto open = text.find('{', from); open != text.npos; open = text.find('{', open + 1)) {
        const auto close = text.find('}', open);
        if (close == text.npos) return std::nullopt;
        const std::string inside = text.substr(open + 1, close - open - 1);
        if (inside.size() < 2) continue;
        if (inside[0] == '/') return Mark{open, close + 1, std::nullopt};
        if ((inside[0] != '+' && inside[0] != '-') || inside.size() > 7 ||
            inside.find_first_not_of("0123456789.", 1) != inside.npos)
            continue;
        if (const auto kern = plain_number(inside)) return Mark{open, close + 1, *kern};
    }
    return std::nullopt;
}

} // namespace

std::string glyph_mark(const std::string& name) {
    return "{/" + name + "}";
}

std::vector<TextStretch> stretches_of(const std::string& line) {
    std::vector<TextStretch> out;
    TextStretch now;
    const auto flush = [&] {
        if (!now.text.empty() || !now.kerns.empty()) out.push_back(std::move(now));
        now = {};
    };
    std::size_t done = 0;
    while (const auto mark = next_mark(line, done)) {
        now.text += line.substr(done, mark->from - done);
        done = mark->to;
        if (mark->kern) {
            now.kerns.push_back({now.text.size(), *mark->kern});
        } else {
            flush();
            out.push_back({line.substr(mark->from + 2, mark->to - mark->from - 3), true, {}});
        }
    }
    now.text += line.substr(done);
    flush();
    return out;
}

Kerned kerned(const std::string& text, std::size_t caret, double by) {
    double value = by;
    std::size_t from = std::min(caret, text.size()), to = from;
    std::size_t done = 0;
    while (const auto mark = next_mark(text, done)) {
        done = mark->to;
        if (!mark->kern || caret < mark->from || caret > mark->to) continue;
        from = mark->from, to = mark->to;
        value += *mark->kern;
        break;
    }
    std::string mark;
    if (std::abs(value) > 1e-6) mark = (value > 0 ? "{+" : "{-") + number(std::abs(value), 2) + "}";
    return {text.substr(0, from) + mark + text.substr(to), from + mark.size()};
}

} // namespace dotlane
