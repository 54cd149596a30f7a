#include "cli/verb.h"
#include "core/base/text.h"
#include "core/lettering/marks.h"

namespace dotlane::cli {
namespace {

class GlyphsVerb final : public Verb {
    void declare(CLI::App& app) override {
        app.add_option("font", font_.family, "Family of the font")->required();
        app.add_flag("--italic", font_.italic, "Its italic");
        app.add_option("--weight", font_.weight, "100 to 900")->check(CLI::Range(100, 900));
        app.add_option("--find", find_, "A character, U+00E9 or a part of a name");
    }

    int run(Context& c) override {
        FontShelf& fonts = c.workshop.fonts();
        const auto all = fonts.glyphs(font_);
        const auto shaped = fonts.outline(font_, mm(10), "H");
        if (!shaped) return c.error(shaped.error());
        if (lower_case(shaped->family) != lower_case(font_.family))
            return c.error({"font.none", say("The font \"%1\" is not installed.", font_.family), {}});
        nlohmann::json list = nlohmann::json::array(), switches = nlohmann::json::array();
        std::map<std::uint32_t, std::string> names;
        for (const GlyphInfo& glyph : all)
            names[glyph.index] = glyph.name;
        for (const GlyphInfo& glyph : all) {
            if (!find_.empty() && !glyph_matches(glyph, find_)) continue;
            std::vector<std::string> others;
            if (!find_.empty())
                for (const std::uint32_t other : fonts.alternates(font_, glyph.index))
                    others.push_back(names[other]);
            list.push_back({{"name", glyph.name},
                            {"character", character_of(glyph)},
                            {"code", glyph.code},
                            {"in_text", glyph_mark(glyph.name)},
                            {"alternates", others}});
        }
        for (const FontFeature& feature : fonts.features(font_))
            switches.push_back({{"tag", feature.tag}, {"name", feature.name}, {"on", feature.on}});
        if (c.json) {
            c.print({{"font", shaped->family}, {"glyphs", list}, {"features", switches}});
            return fine;
        }
        for (const auto& glyph : list) {
            c.out << glyph["in_text"].get<std::string>() << "\t" << glyph["character"].get<std::string>();
            for (const auto& other : glyph["alternates"])
                c.out << "\t" << glyph_mark(other.get<std::string>());
            c.out << "\n";
        }
        c.out << list.size() << (list.size() == 1 ? " glyph" : " glyphs") << "; switches:";
        for (const auto& feature : switches)
            c.out << " " << feature["tag"].get<std::string>();
        c.out << "\n";
        return fine;
    }

    FontRequest font_;
    std::string find_;
};

} // namespace

std::unique_ptr<Verb> make_glyphs() {
    return std::make_unique<GlyphsVerb>();
}

} // namespace dotlane::cli
