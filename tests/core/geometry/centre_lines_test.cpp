// Centre lines against identities: bars, rings, crosses; and on real letters, that they stay in the middle
// and cover the letter.
#include "core/geometry/centre_lines.h"

#include <numbers>

#include "core/lettering/outliner.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;
using std::numbers::pi;

namespace {

Region bar(double x0, double y0, double x1, double y1) {
    return region_of(Shape{{rectangle({x0, y0, x1, y1})}});
}

} // namespace

TEST_CASE("centre lines of bars, crosses and corners are as long as they must be") {
    // The axis of a bar a x b ends b / 2 before its ends; it then runs on by three quarters of that.
    const auto one = centre_lines(bar(0, 0, 40, 6));
    REQUIRE(one.lines.size() == 1);
    CHECK(in_mm(length(one.lines)) == Approx(40 - 2 * 3 * 0.25));
    CHECK(in_mm(one.widest) == Approx(6));
    CHECK(bounds(one.lines).y0 == Approx(3));
    CentreLineOptions to_the_end;
    to_the_end.reach = 1;
    CHECK(in_mm(length(centre_lines(bar(0, 0, 40, 6), to_the_end).lines)) == Approx(40));
    to_the_end.reach = 0;
    CHECK(in_mm(length(centre_lines(bar(0, 0, 40, 6), to_the_end).lines)) == Approx(34));
    // A cross is two strokes, not four that meet; a corner is one.
    const auto cross = centre_lines(united(bar(-20, -2, 20, 2), bar(-2, -20, 2, 20)));
    REQUIRE(cross.lines.size() == 2);
    for (const Polyline& stroke : cross.lines)
        CHECK(in_mm(length(stroke)) == Approx(39).margin(0.1));
    CHECK(centre_lines(united(bar(0, 0, 30, 4), bar(0, 0, 4, 30))).lines.size() == 1);
    CHECK(centre_lines(united(bar(-20, -2, 20, 2), bar(-2, 0, 2, 30))).lines.size() == 2);
    CHECK(centre_lines({}).lines.empty());
}

TEST_CASE("centre lines of rings are closed, of dots small rings, of tapers to their tips") {
    const Region ring =
        region_of(Shape{{ellipse({0, 0}, 20, 20), ellipse({0, 0}, 14, 14)}, FillRule::evenodd});
    const auto round = centre_lines(ring);
    REQUIRE(round.lines.size() == 1);
    CHECK(round.lines[0].closed);
    CHECK(in_mm(length(round.lines)) == Approx(2 * pi * 17).epsilon(2e-3));
    CHECK(in_mm(round.widest) == Approx(6).margin(0.05));
    for (const Region& dot : {region_of(Shape{{ellipse({0, 0}, 5, 5)}}), bar(0, 0, 6, 6)}) {
        const auto small = centre_lines(dot);
        REQUIRE(small.lines.size() == 1);
        CHECK(small.lines[0].closed);
        CHECK(bounds(small.lines).width() < bounds(dot).width() * 0.6);
    }
    // A long thin triangle has its axis out to the tip.
    const auto taper = centre_lines(region_of({line({{0, 0}, {60, 3}, {0, 6}})}, FillRule::nonzero, true));
    REQUIRE(taper.lines.size() == 1);
    CHECK(bounds(taper.lines).x1 == Approx(60).margin(0.05));
}

TEST_CASE(
    "centre lines of real letters lie in them, drawn at their width they cover them, turned they turn") {
    for (const char* family : {"League Spartan", "Lobster Two", "EB Garamond"}) {
        const auto run = must(fonts().outline({family, false, 400, ""}, mm(20), "HanelofgtRS8"));
        for (const GlyphOutline& glyph : run.glyphs) {
            const Region letter = region_of(glyph.shape, mm(0.005));
            INFO(family << ", glyph at " << glyph.cluster);
            const CentreLines centre = centre_lines(letter);
            REQUIRE_FALSE(centre.lines.empty());
            // Not a hundredth outside: ends run on inside the letter only.
            double outside = 0;
            for (const Polyline& part : clipped(centre.lines, subtracted(bar(-50, -50, 80, 50), letter)))
                outside += in_mm(length(part));
            CHECK(outside < 0.02 * in_mm(length(centre.lines)));
            // A tip as wide as the widest stroke reaches nearly all of the letter: what is left are the
            // corners of square ends, which a round tip cannot reach, most of them in a bold "t".
            const Region inked = stroked(centre.lines, centre.widest);
            CHECK(in_square_mm(area(intersected(inked, letter))) > 0.85 * in_square_mm(area(letter)));
            // A stub at the very limit may come or go with the rounding of its points.
            const auto turned = centre_lines(transformed(letter, Affine::rotation(1.1)));
            CHECK(in_mm(length(turned.lines)) == Approx(in_mm(length(centre.lines))).epsilon(0.03));
        }
    }
}
