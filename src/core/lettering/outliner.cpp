#include "core/lettering/outliner.h"

#include <fontconfig/fontconfig.h>
#include <ft2build.h>
#include <hb-ft.h>
#include <hb.h>
#include <map>
#include <mutex>
#include <set>

#include "core/base/text.h"
#include FT_FREETYPE_H
#include FT_OUTLINE_H

namespace dotlane {
namespace {

struct Face {
    FT_Face ft = nullptr;
    hb_font_t* hb = nullptr;
    std::string family;
    double units = 1000;
};

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

/// Words that name no feature are passed over.
std::vector<hb_feature_t> features_of(const std::string& text) {
    std::vector<hb_feature_t> out;
    for (const auto word : split(text, ", ")) {
        hb_feature_t feature;
        if (hb_feature_from_string(word.data(), static_cast<int>(word.size()), &feature))
            out.push_back(feature);
    }
    return out;
}

int fontconfig_weight(int css) {
    return FcWeightFromOpenType(css);
}

} // namespace

struct FontShelf::Faces {
    FT_Library library = nullptr;
    FcConfig* loaded = nullptr;
    std::vector<std::string> folders;                 // taken in when the configuration is loaded
    std::map<std::pair<std::string, int>, Face> open; // by file and index in it
    std::mutex guard;

    /// Looking through the installed fonts takes a tenth of what the window takes to come up: the first
    /// lettering pays for it.
    FcConfig* config() {
        if (loaded) return loaded;
        loaded = FcInitLoadConfigAndFonts();
        for (const std::string& folder : folders)
            FcConfigAppFontAddDir(loaded, reinterpret_cast<const FcChar8*>(folder.c_str()));
        return loaded;
    }

    Face* find(const FontRequest& request) {
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
        Face* face = file ? load(reinterpret_cast<const char*>(file), index) : nullptr;
        if (face && family) face->family = reinterpret_cast<const char*>(family);
        FcPatternDestroy(match);
        return face;
    }

    Face* load(const std::string& file, int index) {
        const auto [it, fresh] = open.try_emplace({file, index});
        Face& face = it->second;
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
};

FontShelf::FontShelf()
    : faces_(std::make_unique<Faces>()) {
    FT_Init_FreeType(&faces_->library);
}

FontShelf::~FontShelf() {
    for (auto& [key, face] : faces_->open) {
        hb_font_destroy(face.hb);
        FT_Done_Face(face.ft);
    }
    FT_Done_FreeType(faces_->library);
    if (faces_->loaded) FcConfigDestroy(faces_->loaded);
}

Result<void> FontShelf::add_folder(FileSystem& files, const std::string& folder) {
    faces_->folders.push_back(folder + "/lettering");
    const auto index = files.read(folder + "/strokes/index.txt", 1 << 16);
    if (!index) return tl::make_unexpected(index.error());
    for (const auto row : split(*index, "\n")) {
        const auto tab = row.find('\t');
        if (tab == std::string_view::npos) continue;
        const auto bytes = files.read(folder + "/strokes/" + std::string(row.substr(0, tab)), 1 << 24);
        if (!bytes) return tl::make_unexpected(bytes.error());
        auto font = read_stroke_font(*bytes, std::string(row.substr(tab + 1)));
        if (!font) return tl::make_unexpected(font.error());
        strokes_.push_back(std::move(*font));
    }
    return {};
}

const std::vector<std::string>& FontShelf::families() {
    const std::lock_guard lock(faces_->guard);
    if (!families_.empty()) return families_;
    std::set<std::string> names;
    FcPattern* all = FcPatternCreate();
    FcPatternAddBool(all, FC_OUTLINE, FcTrue);
    FcObjectSet* wanted = FcObjectSetBuild(FC_FAMILY, static_cast<char*>(nullptr));
    FcFontSet* found = FcFontList(faces_->config(), all, wanted);
    for (int i = 0; found && i < found->nfont; ++i)
        if (FcChar8* family = nullptr;
            FcPatternGetString(found->fonts[i], FC_FAMILY, 0, &family) == FcResultMatch)
            names.insert(reinterpret_cast<const char*>(family));
    if (found) FcFontSetDestroy(found);
    FcObjectSetDestroy(wanted);
    FcPatternDestroy(all);
    families_.assign(names.begin(), names.end());
    return families_;
}

const StrokeFont* FontShelf::stroke_font(const std::string& name) const {
    for (const StrokeFont& font : strokes_)
        if (lower_case(font.name) == lower_case(name)) return &font;
    return nullptr;
}

double FontShelf::capital_height(const FontRequest& font) {
    const auto h = outline(font, mm(100), "H");
    if (!h || h->glyphs.empty() || h->missing_glyphs > 0) return 0.7;
    const double height = bounds(h->glyphs.front().shape).height() / 100;
    return height > 0.01 ? height : 0.7;
}

Result<OutlinedText> FontShelf::outline(const FontRequest& request, Length em, std::string_view utf8) {
    const std::lock_guard lock(faces_->guard);
    Face* face = faces_->find(request);
    if (!face)
        return fail("font.none", "No font is installed that could draw \"" + std::string(utf8) + "\".");
    OutlinedText out;
    out.family = face->family;
    hb_buffer_t* buffer = hb_buffer_create();
    hb_buffer_add_utf8(buffer, utf8.data(), static_cast<int>(utf8.size()), 0, static_cast<int>(utf8.size()));
    hb_buffer_guess_segment_properties(buffer);
    const auto features = features_of(request.features);
    hb_shape(face->hb, buffer, features.data(), static_cast<unsigned>(features.size()));
    unsigned count = 0;
    const hb_glyph_info_t* infos = hb_buffer_get_glyph_infos(buffer, &count);
    const hb_glyph_position_t* positions = hb_buffer_get_glyph_positions(buffer, &count);
    // HarfBuzz positions and FreeType outlines are both in 26.6 pixels at units_per_EM pixels per em.
    const double scale = in_mm(em) / (face->units * 64);
    static const FT_Outline_Funcs funcs = {move_to, line_to, quad_to, cubic_to, 0, 0};
    double x = 0, y = 0;
    for (unsigned i = 0; i < count; ++i) {
        GlyphOutline glyph;
        glyph.cluster = infos[i].cluster;
        glyph.advance_mm = positions[i].x_advance * scale;
        if (infos[i].codepoint == 0) ++out.missing_glyphs;
        if (FT_Load_Glyph(face->ft, infos[i].codepoint, FT_LOAD_NO_HINTING | FT_LOAD_NO_BITMAP) == 0 &&
            face->ft->glyph->format == FT_GLYPH_FORMAT_OUTLINE) {
            Collector collector{
                {}, scale, {x + positions[i].x_offset * scale, y - positions[i].y_offset * scale}};
            FT_Outline_Decompose(&face->ft->glyph->outline, &funcs, &collector);
            glyph.shape = std::move(collector.shape);
        }
        x += glyph.advance_mm;
        y -= positions[i].y_advance * scale;
        out.glyphs.push_back(std::move(glyph));
    }
    out.advance_mm = x;
    hb_buffer_destroy(buffer);
    return out;
}

} // namespace dotlane
