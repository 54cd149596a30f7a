// Open font files, and the way from a glyph to its outline. For the sources of this folder only.
#pragma once

#include <fontconfig/fontconfig.h>
#include <ft2build.h>
#include <hb-ft.h>
#include <hb.h>
#include <map>
#include <mutex>

#include "core/lettering/outliner.h"
#include FT_FREETYPE_H

namespace dotlane {

struct FontFace {
    FT_Face ft = nullptr;
    hb_font_t* hb = nullptr;
    std::string family;
    double units = 1000;
};

struct FontShelf::Faces {
    FT_Library library = nullptr;
    FcConfig* loaded = nullptr;
    std::vector<std::string> folders;                     ///< taken in when the configuration is loaded
    std::map<std::pair<std::string, int>, FontFace> open; ///< by file and index in it
    std::mutex guard;

    FcConfig* config();
    /// Null when no font at all is installed.
    FontFace* find(const FontRequest& request);
    FontFace* load(const std::string& file, int index);
};

/// A glyph at `at`, mm; `scale` is mm for each 26.6 unit of the face. Empty for what has no outline.
Shape shape_of(const FontFace& face, std::uint32_t glyph, double scale, Point at);

} // namespace dotlane
