#include "core/lettering/outliner.h"

#include "core/geometry/region.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("text becomes outlines of the asked size, with its counters") {
    FontShelf fonts;
    const auto text = must(fonts.outline({"Cabin", false, 400}, mm(100), "HO"));
    CHECK(text.family == "Cabin");
    REQUIRE(text.glyphs.size() == 2);
    CHECK(text.missing_glyphs == 0);
    const Box h = bounds(text.glyphs[0].shape);
    CHECK(h.y1 == Approx(0).margin(0.5));      // on the baseline, y down
    CHECK(h.height() == Approx(70).margin(3)); // Cabin's cap height is 0.7 em (OS/2 table)
    CHECK(text.glyphs[1].shape.contours.size() == 2);
    CHECK(bounds(text.glyphs[1].shape).x0 > h.x1);
    CHECK(text.advance_mm == Approx(text.glyphs[0].advance_mm + text.glyphs[1].advance_mm));
    // Twice the size is twice everything.
    const auto twice = must(fonts.outline({"Cabin", false, 400}, mm(200), "HO"));
    CHECK(twice.advance_mm == Approx(2 * text.advance_mm).epsilon(1e-6));
}

TEST_CASE("characters a font does not have are counted, a missing family falls back") {
    FontShelf fonts;
    CHECK(must(fonts.outline({"Cabin", false, 400}, mm(10), "\xF3\xB0\x80\x80")).missing_glyphs ==
          1); // a private-use character
    const auto other = must(fonts.outline({"No Such Family, serif", false, 400}, mm(10), "a"));
    CHECK_FALSE(other.family.empty());
    CHECK(must(fonts.outline({}, mm(10), "")).glyphs.empty());
}
