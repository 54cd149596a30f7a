#include "core/lettering/faces.h"

#include "core/base/text.h"
#include FT_OUTLINE_H

namespace dotlane {
namespace {

struct Collector {
    Shape shape;
    double scale;
    Point at;
    Point place(const FT_Vector* v) const {
        return {at.x + static_cast<double>(v->x) * scale, at.y - static_cast<double>(v->y) * scale};
    }
};

int move_to(const FT_Vector* to, void* user) {
    auto& c = *static_cast<Collector*>(user);
    c.shape.contours.push_back({c.place(to), {}, true});
    return 0;
}
int line_to(const FT_Vector* to, void* user) {
    auto& c = *static_cast<Collector*>(user);
    c.shape.contours.back().line_to(c.place(to));
    return 0;
}
int quad_to(const FT_Vector* control, const FT_Vector* to, void* user) {
    auto& c = *static_cast<Collector*>(user);
    c.shape.contours.back().quad_to(c.place(control), c.place(to));
    return 0;
}
int cubic_to(const FT_Vector* c1, const FT_Vector* c2, const FT_Vector* to, void* user) {
    auto& c = *static_cast<Collector*>(user);
    c.shape.contours.back().cubic_to(c.place(c1), c.place(c2), c.place(to));
    return 0;
}

int fontconfig_weight(int css) {
    return FcWeightFromOpenType(css);
}

} // namespace

/// Looking through the installed fonts takes a tenth of what the window takes to come up: the first
/// lettering pays for it.
FcConfig* FontShelf::Faces::config() {
    if (loaded) return loaded;
    loaded = FcInitLoadConfigAndFonts();
    for (const std::string& folder : folders)
        FcConfigAppFontAddDir(loaded, reinterpret_cast<const FcChar8*>(folder.c_str()));
    return loaded;
}

FontFace* FontShelf::Faces::find(const FontRequest& request) {
    FcPattern* pattern = FcPatternCreate();
    for (const auto family : split(request.family, ",")) {
        std::string name(trimmed(family));
        if (name.size() > 1 && (name.front() == '\'' || name.front() == '"'))
            name = name.substr(1, name.size() - 2);
        FcPatternAddString(pattern, FC_FAMILY, reinterpret_cast<const FcChar8*>(name.c_str()));
    }
    FcPatternAddInteger(pattern, FC_SLANT, request.italic ? FC_SLANT_ITALIC : FC_SLANT_ROMAN);
    FcPatternAddInteger(pattern, FC_WEIGHT, fontconfig_weight(request.weight));
    FcPatternAddBool(pattern, FC_OUTLINE, FcTrue);
    FcConfigSubstitute(config(), pattern, FcMatchPattern);
    FcDefaultSubstitute(pattern);
    FcResult result;
    FcPattern* match = FcFontMatch(config(), pattern, &result);
    FcPatternDestroy(pattern);
    if (!match) return nullptr;
    FcChar8 *file = nullptr, *family = nullptr;
    int index = 0;
    FcPatternGetString(match, FC_FILE, 0, &file);
    FcPatternGetString(match, FC_FAMILY, 0, &family);
    FcPatternGetInteger(match, FC_INDEX, 0, &index);
    FontFace* face = file ? load(reinterpret_cast<const char*>(file), index) : nullptr;
    if (face && family) face->family = reinterpret_cast<const char*>(family);
    FcPatternDestroy(match);
    return face;
}

FontFace* FontShelf::Faces::load(const std::string& file, int index) {
    const auto [it, fresh] = open.try_emplace({file, index});
    FontFace& face = it->second;
    if (fresh) {
        if (FT_New_Face(library, file.c_str(), index, &face.ft) != 0 || !FT_IS_SCALABLE(face.ft)) {
            open.erase(it);
            return nullptr;
        }
        face.units = face.ft->units_per_EM;
        FT_Set_Char_Size(face.ft, face.ft->units_per_EM * 64L, 0, 72, 72);
        face.hb = hb_ft_font_create_referenced(face.ft);
        hb_ft_font_set_load_flags(face.hb, FT_LOAD_NO_HINTING);
    }
    return &face;
}

Shape shape_of(const FontFace& face, std::uint32_t glyph, double scale, Point at) {
    if (FT_Load_Glyph(face.ft, glyph, FT_LOAD_NO_HINTING | FT_LOAD_NO_BITMAP) != 0 ||
        face.ft->glyph->format != FT_GLYPH_FORMAT_OUTLINE)
        return {};
    static const FT_Outline_Funcs funcs = {move_to, line_to, quad_to, cubic_to, 0, 0};
    Collector collector{{}, scale, at};
    FT_Outline_Decompose(&face.ft->glyph->outline, &funcs, &collector);
    return std::move(collector.shape);
}

} // namespace dotlane
