#include "core/lettering/stroke_font.h"

#include <charconv>

#include "core/base/text.h"

namespace dotlane {

const StrokeGlyph* StrokeFont::glyph(char32_t character) const {
    return character >= 32 && character - 32 < glyphs.size() ? &glyphs[character - 32] : nullptr;
}

double StrokeFont::capital_height() const {
    const StrokeGlyph* h = glyph(U'H');
    return h ? bounds(h->strokes).height() : 21;
}

Result<StrokeFont> read_stroke_font(const std::string& bytes, std::string name) {
    constexpr double baseline = 9;
    StrokeFont font{std::move(name), {}};
    std::size_t at = 0;
    int line = 1;
    const auto broken = [&] {
        return fail("font.strokes", say("The stroke font \"%1\" cannot be read.", font.name), {"", line});
    };
    // A glyph with many pairs runs on over several lines: breaks inside it count for nothing.
    const auto take = [&](std::size_t n, std::string& out) {
        out.clear();
        while (out.size() < n && at < bytes.size()) {
            if (bytes[at] == '\n')
                ++line;
            else if (bytes[at] != '\r')
                out.push_back(bytes[at]);
            ++at;
        }
        return out.size() == n;
    };
    std::string head, pairs;
    while (at < bytes.size()) {
        if (bytes[at] == '\n' || bytes[at] == '\r') {
            line += bytes[at++] == '\n';
            continue;
        }
        if (!take(8, head)) return broken();
        int count = 0;
        const auto digits = std::string(trimmed(head.substr(5)));
        const auto [end, bad] = std::from_chars(digits.data(), digits.data() + digits.size(), count);
        if (bad != std::errc() || end != digits.data() + digits.size() || count < 1) return broken();
        // Blanks at the end of a line may have been stripped from the last pair of a glyph.
        if (!take(2 * static_cast<std::size_t>(count), pairs)) return broken();
        StrokeGlyph glyph{static_cast<double>(pairs[0] - 'R'), static_cast<double>(pairs[1] - 'R'), {}};
        bool down = false;
        for (std::size_t i = 2; i + 1 < pairs.size(); i += 2) {
            if (pairs[i] == ' ' && pairs[i + 1] == 'R') {
                down = false;
                continue;
            }
            if (!down) glyph.strokes.push_back({});
            down = true;
            glyph.strokes.back().points.push_back({static_cast<double>(pairs[i] - 'R') - glyph.left,
                                                   static_cast<double>(pairs[i + 1] - 'R') - baseline});
        }
        font.glyphs.push_back(std::move(glyph));
    }
    if (font.glyphs.empty()) return broken();
    return font;
}

} // namespace dotlane
