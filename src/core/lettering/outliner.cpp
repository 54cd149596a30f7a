#include "core/lettering/outliner.h"

#include <set>

#include "core/base/text.h"
#include "core/lettering/faces.h"

namespace dotlane {
namespace {

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

} // namespace

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
    FontFace* face = faces_->find(request);
    if (!face) return fail("font.none", say("No font is installed that could draw \"%1\".", utf8));
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
    double x = 0, y = 0;
    for (unsigned i = 0; i < count; ++i) {
        GlyphOutline glyph;
        glyph.cluster = infos[i].cluster;
        glyph.advance_mm = positions[i].x_advance * scale;
        if (infos[i].codepoint == 0) ++out.missing_glyphs;
        glyph.shape = shape_of(*face, infos[i].codepoint, scale,
                               {x + positions[i].x_offset * scale, y - positions[i].y_offset * scale});
        x += glyph.advance_mm;
        y -= positions[i].y_advance * scale;
        out.glyphs.push_back(std::move(glyph));
    }
    out.advance_mm = x;
    hb_buffer_destroy(buffer);
    return out;
}

} // namespace dotlane
