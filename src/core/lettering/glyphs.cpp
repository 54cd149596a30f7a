// What a font holds beside what is typed: its glyphs, alternates and switches.
#include <algorithm>
#include <hb-ot.h>
#include <set>

#include "core/base/text.h"
#include "core/lettering/faces.h"

namespace dotlane {
namespace {

/// Switches a maker might want; names after the OpenType layout tag registry. Others serve shaping itself.
const std::vector<std::pair<std::string_view, std::string_view>>& known_features() {
    static const std::vector<std::pair<std::string_view, std::string_view>> list = {
        {"liga", "Ligatures"},
        {"clig", "Contextual ligatures"},
        {"dlig", "Discretionary ligatures"},
        {"hlig", "Historical ligatures"},
        {"calt", "Contextual alternates"},
        {"salt", "Stylistic alternates"},
        {"swsh", "Swashes"},
        {"cswh", "Contextual swashes"},
        {"titl", "Titling"},
        {"hist", "Historical forms"},
        {"smcp", "Small capitals"},
        {"c2sc", "Small capitals from capitals"},
        {"case", "Forms for capitals"},
        {"lnum", "Lining figures"},
        {"onum", "Old-style figures"},
        {"pnum", "Proportional figures"},
        {"tnum", "Figures of one width"},
        {"frac", "Fractions"},
        {"ordn", "Ordinals"},
        {"sups", "Superscript"},
        {"zero", "Slashed zero"},
        {"ornm", "Ornaments"},
        {"kern", "Kerning"},
    };
    return list;
}

std::string text_of(hb_tag_t tag) {
    char out[4];
    hb_tag_to_string(tag, out);
    return {out, 4};
}

/// The font's own name of a stylistic set or character variant.
std::string own_name(hb_face_t* face, hb_tag_t tag) {
    unsigned count = 1, index = 0;
    const unsigned features = hb_ot_layout_table_get_feature_tags(face, HB_OT_TAG_GSUB, 0, nullptr, nullptr);
    std::vector<hb_tag_t> tags(features);
    count = features;
    hb_ot_layout_table_get_feature_tags(face, HB_OT_TAG_GSUB, 0, &count, tags.data());
    const auto at = std::find(tags.begin(), tags.end(), tag);
    if (at == tags.end()) return {};
    index = static_cast<unsigned>(at - tags.begin());
    hb_ot_name_id_t label = HB_OT_NAME_ID_INVALID;
    if (!hb_ot_layout_feature_get_name_ids(face, HB_OT_TAG_GSUB, index, &label, nullptr, nullptr, nullptr,
                                           nullptr) ||
        label == HB_OT_NAME_ID_INVALID)
        return {};
    char text[128];
    unsigned size = sizeof text;
    hb_ot_name_get_utf8(face, label, HB_LANGUAGE_INVALID, &size, text);
    return {text, size};
}

/// "-liga" -> liga, off. A value may follow: "ss01=2".
std::pair<std::string, bool> said(std::string_view word) {
    const bool off = word.starts_with('-');
    if (off || word.starts_with('+')) word.remove_prefix(1);
    const auto equals = word.find('=');
    return {std::string(word.substr(0, equals)),
            !off && (equals == word.npos || word.substr(equals) != "=0")};
}

} // namespace

std::string character_of(const GlyphInfo& glyph) {
    const std::uint32_t c = glyph.code;
    std::string out;
    const auto byte = [&](std::uint32_t b) { out.push_back(static_cast<char>(b)); };
    if (c == 0) return out;
    if (c < 0x80) {
        byte(c);
    } else if (c < 0x800) {
        byte(0xc0 | c >> 6), byte(0x80 | (c & 0x3f));
    } else if (c < 0x10000) {
        byte(0xe0 | c >> 12), byte(0x80 | (c >> 6 & 0x3f)), byte(0x80 | (c & 0x3f));
    } else {
        byte(0xf0 | c >> 18), byte(0x80 | (c >> 12 & 0x3f)), byte(0x80 | (c >> 6 & 0x3f)),
            byte(0x80 | (c & 0x3f));
    }
    return out;
}

bool glyph_matches(const GlyphInfo& glyph, const std::string& word) {
    if (!word.empty() && word == character_of(glyph)) return true;
    if (word.size() > 2 && word.size() < 9 && lower_case(word.substr(0, 2)) == "u+" &&
        word.find_first_not_of("0123456789abcdefABCDEF", 2) == word.npos)
        return glyph.code != 0 && std::stoul(word.substr(2), nullptr, 16) == glyph.code;
    if (word.size() > 1) return lower_case(glyph.name).find(lower_case(word)) != std::string::npos;
    for (const auto part : split(std::string_view(glyph.name).substr(0, glyph.name.find('.')), "_"))
        if (part == word) return true;
    return false;
}

bool feature_on(const std::string& features, const std::string& tag, bool unless_said) {
    bool on = unless_said;
    for (const auto word : split(features, ", "))
        if (const auto [name, is_on] = said(word); name == tag) on = is_on;
    return on;
}

std::string with_feature(const std::string& features, const std::string& tag, bool on, bool unless_said) {
    std::string out;
    const auto add = [&](std::string_view word) {
        if (!out.empty()) out += ", ";
        out += word;
    };
    for (const auto word : split(features, ", "))
        if (said(word).first != tag) add(word);
    if (on != unless_said) add((on ? "" : "-") + tag);
    return out;
}

std::vector<GlyphInfo> FontShelf::glyphs(const FontRequest& font) {
    const std::lock_guard lock(faces_->guard);
    std::vector<GlyphInfo> out;
    FontFace* face = faces_->find(font);
    if (!face) return out;
    const auto count = static_cast<std::uint32_t>(face->ft->num_glyphs);
    out.reserve(count);
    const bool named = FT_HAS_GLYPH_NAMES(face->ft);
    for (std::uint32_t i = 0; i < count; ++i) {
        char name[64] = "";
        if (named) FT_Get_Glyph_Name(face->ft, i, name, sizeof name);
        out.push_back({i, name[0] ? name : "#" + std::to_string(i), 0});
    }
    FT_UInt glyph = 0;
    for (FT_ULong code = FT_Get_First_Char(face->ft, &glyph); glyph != 0;
         code = FT_Get_Next_Char(face->ft, code, &glyph))
        if (glyph < count && out[glyph].code == 0) out[glyph].code = static_cast<std::uint32_t>(code);
    std::stable_sort(out.begin(), out.end(), [](const GlyphInfo& a, const GlyphInfo& b) {
        return std::tuple(a.code == 0, a.code) < std::tuple(b.code == 0, b.code);
    });
    std::erase_if(out, [](const GlyphInfo& g) { return g.index == 0; }); // what stands for what is lacking
    return out;
}

std::vector<FontFeature> FontShelf::features(const FontRequest& font) {
    const std::lock_guard lock(faces_->guard);
    std::vector<FontFeature> out;
    FontFace* face = faces_->find(font);
    if (!face) return out;
    hb_face_t* hb = hb_font_get_face(face->hb);
    std::set<std::string> present;
    for (const hb_tag_t table : {HB_OT_TAG_GSUB, HB_OT_TAG_GPOS}) {
        unsigned count = hb_ot_layout_table_get_feature_tags(hb, table, 0, nullptr, nullptr);
        std::vector<hb_tag_t> tags(count);
        hb_ot_layout_table_get_feature_tags(hb, table, 0, &count, tags.data());
        for (const hb_tag_t tag : tags)
            present.insert(text_of(tag));
    }
    static const std::set<std::string_view> always = {"liga", "clig", "calt", "kern"};
    for (const auto& [tag, name] : known_features())
        if (present.contains(std::string(tag)))
            out.push_back({std::string(tag), std::string(name), always.contains(tag)});
    for (const std::string& tag : present) {
        const bool set = tag.starts_with("ss"), variant = tag.starts_with("cv");
        if ((!set && !variant) || tag.find_first_not_of("0123456789", 2) != std::string::npos) continue;
        std::string name = own_name(hb, hb_tag_from_string(tag.data(), 4));
        if (name.empty())
            name = (set ? "Stylistic set " : "Character variant ") + std::to_string(std::stoi(tag.substr(2)));
        out.push_back({tag, std::move(name), false});
    }
    return out;
}

std::vector<std::uint32_t> FontShelf::alternates(const FontRequest& font, std::uint32_t glyph) {
    const std::lock_guard lock(faces_->guard);
    std::vector<std::uint32_t> out;
    FontFace* face = faces_->find(font);
    if (!face) return out;
    hb_face_t* hb = hb_font_get_face(face->hb);
    hb_set_t* lookups = hb_set_create();
    // Features that put one glyph for another: not those that depend on the place in a word or script.
    std::vector<hb_tag_t> wanted;
    for (const char* tag : {"aalt", "salt", "swsh", "titl", "hist", "smcp", "c2sc", "case", "onum", "lnum"})
        wanted.push_back(hb_tag_from_string(tag, 4));
    for (int n = 1; n <= 20; ++n) {
        const std::string tag = (n < 10 ? "ss0" : "ss") + std::to_string(n);
        wanted.push_back(hb_tag_from_string(tag.data(), 4));
    }
    wanted.push_back(HB_TAG_NONE);
    hb_ot_layout_collect_lookups(hb, HB_OT_TAG_GSUB, nullptr, nullptr, wanted.data(), lookups);
    hb_codepoint_t lookup = HB_SET_VALUE_INVALID;
    while (hb_set_next(lookups, &lookup)) {
        const hb_codepoint_t alone = glyph;
        if (!hb_ot_layout_lookup_would_substitute(hb, lookup, &alone, 1, true)) continue;
        hb_set_t* reached = hb_set_create();
        hb_set_add(reached, glyph);
        hb_ot_layout_lookup_substitute_closure(hb, lookup, reached);
        hb_codepoint_t one = HB_SET_VALUE_INVALID;
        while (hb_set_next(reached, &one))
            if (one != glyph && std::find(out.begin(), out.end(), one) == out.end()) out.push_back(one);
        hb_set_destroy(reached);
    }
    hb_set_destroy(lookups);
    return out;
}

Result<GlyphOutline> FontShelf::glyph(const FontRequest& font, Length em, std::uint32_t index) {
    const std::lock_guard lock(faces_->guard);
    FontFace* face = faces_->find(font);
    if (!face || index >= static_cast<std::uint32_t>(face->ft->num_glyphs))
        return fail("font.glyph", say("The font \"%1\" has no such glyph.", font.family));
    const double scale = in_mm(em) / (face->units * 64);
    GlyphOutline out{shape_of(*face, index, scale, {}), 0, 0};
    out.advance_mm = hb_font_get_glyph_h_advance(face->hb, index) * scale;
    return out;
}

std::optional<std::uint32_t> FontShelf::glyph_named(const FontRequest& font, const std::string& name) {
    const std::lock_guard lock(faces_->guard);
    FontFace* face = faces_->find(font);
    if (!face || name.empty()) return std::nullopt;
    if (name.front() == '#' && name.find_first_not_of("0123456789", 1) == std::string::npos &&
        name.size() > 1 && name.size() < 8) {
        const auto index = static_cast<std::uint32_t>(std::stoul(name.substr(1)));
        return index < static_cast<std::uint32_t>(face->ft->num_glyphs) ? std::optional(index) : std::nullopt;
    }
    const FT_UInt index = FT_Get_Name_Index(face->ft, name.c_str());
    return index != 0 ? std::optional<std::uint32_t>(index) : std::nullopt;
}

} // namespace dotlane
