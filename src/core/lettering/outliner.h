// Lettering: text in an installed font, shaped (ligatures, kerning, contextual forms) and turned into
// outlines. Fonts are found by fontconfig, shaped by HarfBuzz, read by FreeType.
#pragma once

#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/files.h"
#include "core/base/result.h"
#include "core/base/units.h"
#include "core/geometry/path.h"
#include "core/lettering/stroke_font.h"

namespace dotlane {

struct FontRequest {
    std::string family = "sans-serif"; ///< one family or a comma list, as in CSS
    bool italic = false;
    int weight = 400;     ///< CSS weight, 100..900
    std::string features; ///< OpenType features: "ss01, -liga"
    bool operator==(const FontRequest&) const = default;
};

struct GlyphOutline {
    Shape shape;           ///< mm, on the baseline, already at its place in the run
    std::uint32_t cluster; ///< byte offset in the text of the character it came from
    double advance_mm = 0;
};

struct OutlinedText {
    std::vector<GlyphOutline> glyphs;
    double advance_mm = 0;  ///< of the whole run
    std::string family;     ///< the family really used
    int missing_glyphs = 0; ///< characters the font does not have
};

struct GlyphInfo {
    std::uint32_t index;
    std::string name;       ///< in the font, or "#" and its index
    std::uint32_t code = 0; ///< the character that it is typed with; 0: none
};

/// The character that types a glyph, UTF-8; empty when it has none.
std::string character_of(const GlyphInfo& glyph);
/// Whether a search word means this glyph: the character itself, "U+00E9", or a part of the name in any case.
/// A single letter finds its own variants ("Q.swash", "Q_u") and not every name with that letter in it.
bool glyph_matches(const GlyphInfo& glyph, const std::string& word);

/// A switch of the font.
struct FontFeature {
    std::string tag;  ///< OpenType: "ss01"
    std::string name; ///< the font's own, or the registered one
    bool on;          ///< unless it is switched off
};

/// Whether a list of features ("ss01, -liga") leaves this one on.
bool feature_on(const std::string& features, const std::string& tag, bool unless_said);
/// The list with this one switched; what is so anyway is not named.
std::string with_feature(const std::string& features, const std::string& tag, bool on, bool unless_said);

class FontShelf {
  public:
    FontShelf();
    ~FontShelf();
    FontShelf(const FontShelf&) = delete;
    FontShelf& operator=(const FontShelf&) = delete;

    /// Fonts that ship with the program: outline fonts in `folder`/lettering, stroke fonts in
    /// `folder`/strokes. Call before the first use. Errors: those of reading.
    Result<void> add_folder(FileSystem& files, const std::string& folder);
    /// Families with outlines, sorted; shipped ones among them. Looked up once.
    const std::vector<std::string>& families();
    /// In the order of their index.
    const std::vector<StrokeFont>& stroke_fonts() const { return strokes_; }
    const StrokeFont* stroke_font(const std::string& name) const;
    /// Height of a capital "H" in ems; 0.7 when the font has none.
    double capital_height(const FontRequest& font);

    /// Outlines of one run of text, baseline at y = 0, starting at x = 0.
    /// `em` is the font size. Errors: "font.none" when no font at all is installed.
    Result<OutlinedText> outline(const FontRequest& font, Length em, std::string_view utf8);

    // glyphs.cpp: of the face that `font` is drawn with. All are empty when no font is installed.
    /// Every glyph, those with a character first and in the order of characters.
    std::vector<GlyphInfo> glyphs(const FontRequest& font);
    std::vector<FontFeature> features(const FontRequest& font);
    /// Glyphs that may stand for this one.
    std::vector<std::uint32_t> alternates(const FontRequest& font, std::uint32_t glyph);
    /// On the baseline at x = 0. Errors: "font.glyph".
    Result<GlyphOutline> glyph(const FontRequest& font, Length em, std::uint32_t index);
    /// By its name, or by "#" and its index.
    std::optional<std::uint32_t> glyph_named(const FontRequest& font, const std::string& name);

  private:
    struct Faces;
    std::unique_ptr<Faces> faces_;
    std::vector<StrokeFont> strokes_;
    std::vector<std::string> families_;
};

} // namespace dotlane
