// What stands in a lettering's text beside its characters: "{/Q.swash}" is the glyph of that name in the
// font, and
// "{-3}" or "{+2.5}" moves what follows in the line by so many hundredths of the em, to kern a single pair.
#pragma once

#include <string>
#include <vector>

namespace dotlane {

struct KernMark {
    std::size_t at; ///< before the character at this byte
    double percent; ///< of the em
};

struct TextStretch {
    std::string text; ///< without marks; or the name of a glyph
    bool glyph = false;
    std::vector<KernMark> kerns; ///< ascending; shaping does not see them, so letters join as they did
};
/// "{/Q.swash}"
std::string glyph_mark(const std::string& name);
std::vector<TextStretch> stretches_of(const std::string& line);

struct Kerned {
    std::string text;
    std::size_t caret; ///< byte
};
/// The text with the pair at the caret moved by so many hundredths of the em: a mark that touches the caret
/// is changed, or taken away when it comes to nothing; else one is put in.
Kerned kerned(const std::string& text, std::size_t caret, double by);

} // namespace dotlane
