// Shaping against HarfBuzz's own program (package libharfbuzz-bin).
#include "core/lettering/outliner.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("advances are those of hb-shape") {
    for (const char* word : {"Tavern", "Lantern Walk", "AVATAR", "fjord office"}) {
        const std::string font = shell("fc-match -f '%{file}' 'Cabin:style=Regular'");
        const std::string shaped = shell("hb-shape --output-format=json '" + font + "' '" + word + "'");
        double total = 0;
        for (auto at = shaped.find("\"ax\":"); at != std::string::npos; at = shaped.find("\"ax\":", at + 1))
            total += std::stod(shaped.substr(at + 5));
        REQUIRE(total > 0);
        FontShelf fonts;
        // Cabin has 1000 units per em, so an em of 1000 mm makes one unit a millimetre.
        CHECK(must(fonts.outline({"Cabin", false, 400}, mm(1000), word)).advance_mm ==
              Approx(total).margin(0.5));
    }
}
