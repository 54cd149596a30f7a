// Lettering as a source: sizes, lines, arcs, joins, strokes.
#include "core/lettering/marks.h"
#include "core/lettering/snug.h"
#include "core/sources/make.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

SourceLines made(const Lettering& spec) {
    return must(make_lines(spec, fonts()));
}
Lettering text(const std::string& words, const std::string& font = "Lobster Two") {
    Lettering spec;
    spec.text = words, spec.font = font;
    return spec;
}

} // namespace

TEST_CASE("lettering: sized by capitals, width or height, to the hundredth of a millimetre") {
    Lettering spec = text("H", "League Spartan");
    spec.size = mm(17);
    CHECK(bounds(*made(spec).drawing).height() == Approx(17).margin(0.01));
    spec = text("Saltmarsh\nLantern Walk");
    spec.sized_by = Lettering::SizedBy::width, spec.size = mm(123);
    CHECK(bounds(*made(spec).drawing).width() == Approx(123).margin(0.01));
    spec.sized_by = Lettering::SizedBy::height, spec.size = mm(45);
    const Box box = bounds(*made(spec).drawing);
    CHECK(box.height() == Approx(45).margin(0.01));
    CHECK(box.x0 == Approx(0).margin(1e-9));
    CHECK(box.y0 == Approx(0).margin(1e-9));
}

TEST_CASE("lettering: lines are aligned, spaced and tracked") {
    Lettering spec = text("LLLL\nL", "League Spartan");
    const auto last = [&] { return bounds(made(spec).drawing->lines.back().shape); };
    const double left = last().x0;
    spec.align = Lettering::Align::centre;
    const double centre = last().x0;
    spec.align = Lettering::Align::right;
    const double right = last().x0;
    CHECK(centre - left == Approx(right - centre).margin(1e-6));
    CHECK(right > left + 10);
    spec.line_gap = 100;
    const double near = last().y0;
    spec.line_gap = 200;
    CHECK(last().y0 == Approx(2 * near).margin(1e-6)); // the capitals of the first line begin at 0
    Lettering word = text("LL", "League Spartan");
    const double plain = bounds(*made(word).drawing).width();
    word.tracking.percent = 50;
    // Capitals are 20 mm high; tracking of 50 % of the em adds one gap.
    const double em = 20 / fonts().capital_height({"League Spartan"});
    CHECK(bounds(*made(word).drawing).width() == Approx(plain + em / 2).margin(0.01));
    word.tracking = {}, word.glyph_width = 200;
    CHECK(bounds(*made(word).drawing).width() == Approx(2 * plain).margin(0.01));
}

TEST_CASE("lettering on an arc: letters stand on the circle, upright to it") {
    Lettering spec = text("IIIIIIIIIIII", "League Spartan");
    spec.size = mm(10), spec.path = Lettering::Path::arc, spec.radius = mm(40);
    const auto feet_of = [](const SourceLines& lines) {
        // The foot of an I: the middle of its two corners nearest to its neighbours' circle.
        std::vector<Point> feet;
        for (const DrawnLine& line : lines.drawing->lines) {
            const auto p = flattened(line.shape.contours.front()).points;
            REQUIRE(p.size() == 4);
            Point best;
            double least = 1e300;
            for (std::size_t i = 0; i < 4; ++i) {
                const Point a = p[i], b = p[(i + 1) % 4];
                if (distance(a, b) < 5 && mix(a, b, 0.5).y > -1e9) {
                    const Point m = mix(a, b, 0.5);
                    if (feet.empty() ? -m.y < least : distance(m, feet.back()) < least)
                        best = m, least = feet.empty() ? -m.y : distance(m, feet.back());
                }
            }
            feet.push_back(best);
        }
        return feet;
    };
    const auto feet = feet_of(made(spec));
    // Three feet give the circle; all the others lie on it.
    const Point a = feet[0], b = feet[5], c = feet[11];
    const double d = 2 * cross(b - a, c - a);
    const double b2 = dot(b - a, b - a), c2 = dot(c - a, c - a);
    const Point centre =
        a + Point{((c.y - a.y) * b2 - (b.y - a.y) * c2) / d, ((b.x - a.x) * c2 - (c.x - a.x) * b2) / d};
    for (const Point foot : feet)
        CHECK(distance(foot, centre) == Approx(40).margin(0.02));
}

TEST_CASE("a word in a script becomes one piece and keeps its counters") {
    Lettering spec = text("Saltmarsh", "Dancing Script");
    spec.join = true, spec.snug = mm(0.3);
    const SourceLines word = made(spec);
    CHECK(figure(word, "pieces") == 1);
    CHECK(figure(word, "counters_after") >= figure(word, "counters_before"));
    CHECK(word.drawing->lines.size() == 1);
    // An i keeps its dot apart, and the count of pieces shows it.
    spec.text = "tide";
    CHECK(figure(made(spec), "pieces") == 2);
}

TEST_CASE("snug: block letters are brought together until they overlap, by just so much") {
    Lettering spec = text("LANTERN", "League Spartan");
    spec.join = true;
    CHECK(figure(made(spec), "pieces") == 7);
    spec.snug = mm(0.5);
    const SourceLines word = made(spec);
    CHECK(figure(word, "pieces") == 1);
    CHECK(figure(word, "counters_after") >= figure(word, "counters_before"));
    // Letters that share no height cannot be joined: they are named.
    spec.text = "'.";
    const SourceLines apart = made(spec);
    CHECK(get(apart.findings, "lettering.apart").message.english().find("'.") != std::string::npos);
}

TEST_CASE("snug fit of two shapes: the least shift, measured where they come nearest") {
    const Region a = square(10), wedge = region_of({ring({{14, 5}, {24, 0}, {24, 10}})}, FillRule::nonzero);
    const SnugFit fit = snug_fit(a, wedge, mm(1), mm(0.01));
    CHECK(fit.possible);
    CHECK(in_mm(fit.shift) == Approx(5).margin(0.05)); // 4 to touch with the tip, 1 to overlap
    CHECK(in_mm(snug_fit(a, square(10, {9, 0}), mm(0.5)).shift) == Approx(0)); // they overlap enough
    CHECK_FALSE(snug_fit(a, square(10, {12, 20}), mm(1)).possible);
    // Right of a ring with a thin wall: an overlap of 3 would enter its counter.
    const Region ring_shape = subtracted(square(10), square(8, {1, 1}));
    CHECK(snug_fit(ring_shape, square(10, {15, 0}), mm(0.5)).possible);
    CHECK_FALSE(snug_fit(ring_shape, square(10, {15, 0}), mm(3)).possible);
}

TEST_CASE("stroke lettering: open strokes, sized like outlines") {
    Lettering spec = text("HELLO", "Roman simplex");
    spec.kind = Lettering::Kind::strokes, spec.size = mm(21);
    const SourceLines word = made(spec);
    CHECK(word.findings.empty());
    CHECK(word.drawing->lines.size() == 5);
    CHECK(bounds(*word.drawing).height() == Approx(21).margin(0.01)); // capitals of 21 units
    Length total;
    std::size_t strokes = 0;
    for (const DrawnLine& line : word.drawing->lines) {
        total += length(flattened(line.shape));
        strokes += line.shape.contours.size();
        for (const Contour& c : line.shape.contours)
            CHECK_FALSE(c.closed);
    }
    // At one font unit to the millimetre: libhersheyfont's own figures for "HELLO" in rowmans
    // (references.md).
    CHECK(strokes == 12);
    CHECK(in_mm(total) == Approx(236.851).margin(0.01));
}

TEST_CASE("what the font lacks and what stands in for it is said") {
    Lettering spec = text("Saltmarsh \u4e2d", "League Spartan");
    CHECK(get(made(spec).findings, "lettering.missing").grade == Grade::caution);
    spec = text("Saltmarsh", "No Such Family");
    CHECK(get(made(spec).findings, "lettering.other-font").grade == Grade::caution);
    spec.kind = Lettering::Kind::strokes;
    CHECK(has(made(spec).findings, "lettering.other-font"));
    spec.text = "caf\u00e9";
    CHECK(has(made(spec).findings, "lettering.missing"));
    CHECK(make_lines(text(" \n "), fonts()).error().code == "source.text");
}

TEST_CASE("features change the glyphs") {
    // Only the italic draws this ligature as one glyph: hb-shape gives uniFB01 for it, f._i and i.dotless for
    // the upright.
    Lettering spec = text("fi", "EB Garamond");
    spec.italic = true;
    const std::size_t joined = made(spec).drawing->lines.size();
    spec.features = "-liga, -clig, -dlig";
    CHECK(made(spec).drawing->lines.size() == 2);
    CHECK(joined == 1); // the ligature
}

TEST_CASE("every glyph of a font, by name, with what may stand for it") {
    const FontRequest garamond{"EB Garamond", true};
    const auto all = fonts().glyphs(garamond);
    CHECK(all.size() == 2515); // fc-scan and FreeType's own count, less what stands for what is lacking
    const auto glyph = [&](const std::string& name) -> const GlyphInfo& {
        for (const GlyphInfo& g : all)
            if (g.name == name) return g;
        FAIL("no glyph " << name);
        return all.front();
    };
    CHECK(glyph("Q").code == 'Q');
    CHECK(glyph("Q.sw").code == 0);
    CHECK(character_of(glyph("eacute")) == "\u00e9");
    CHECK(fonts().glyph_named(garamond, "Q.sw") == glyph("Q.sw").index);
    CHECK(fonts().glyph_named(garamond, "#50") == 50U);
    CHECK_FALSE(fonts().glyph_named(garamond, "#99999"));
    CHECK_FALSE(fonts().glyph_named(garamond, "nothing"));
    CHECK(glyph_matches(glyph("Q.sw"), "Q"));
    CHECK_FALSE(glyph_matches(glyph("Q.sw"), "w"));
    CHECK(glyph_matches(glyph("eacute"), "u+00E9"));
    CHECK(glyph_matches(glyph("eacute"), "\u00e9"));
    CHECK(glyph_matches(glyph("eacute"), "ACU"));
    // hb-shape --features=swsh draws "Q" as Q.sw, and --features=smcp,c2sc as Q.sc.
    const auto others = fonts().alternates(garamond, glyph("Q").index);
    for (const char* name : {"Q.sw", "Q.sc"})
        CHECK(std::count(others.begin(), others.end(), glyph(name).index) == 1);
    // Its advance there: 766 of 1000 to the em.
    CHECK(must(fonts().glyph(garamond, mm(100), glyph("Q.sw").index)).advance_mm == Approx(76.6));
    CHECK(fonts().glyph(garamond, mm(100), 99999).error().code == "font.glyph");
}

TEST_CASE("glyphs without a character are written by name, features are switched") {
    Lettering spec = text("Q", "EB Garamond");
    spec.italic = true;
    spec.features = with_feature(spec.features, "swsh", true, false);
    const Box swash = bounds(*made(spec).drawing);
    spec.features = with_feature(spec.features, "swsh", false, false);
    CHECK(spec.features.empty());
    const Box plain = bounds(*made(spec).drawing);
    spec.text = "{/Q.sw}";
    const Box named = bounds(*made(spec).drawing);
    CHECK(named == swash); // the same glyph, whichever way
    CHECK(named.width() > plain.width() * 1.05);
    spec.text = "{/no such glyph}uay";
    CHECK(get(made(spec).findings, "lettering.missing").grade == Grade::caution);
    spec.text = "a{/Q.sw}";
    CHECK(made(spec).drawing->lines.size() == 2);
    spec.text = "{/Q"; // not closed: as it stands
    CHECK(made(spec).drawing->lines.size() == 3);

    CHECK(with_feature("ss01, -liga", "liga", true, true) == "ss01");
    CHECK(with_feature("ss01", "liga", false, true) == "ss01, -liga");
    CHECK(feature_on("ss01, -liga", "liga", true) == false);
    CHECK(feature_on("ss01=2", "ss01", false));
    CHECK_FALSE(feature_on("ss01=0", "ss01", true));
    bool found = false;
    for (const FontFeature& f : fonts().features({"EB Garamond", true}))
        found |= f.tag == "swsh" && f.name == "Swashes" && !f.on;
    CHECK(found);
}

TEST_CASE("single pairs are kerned by marks that shaping does not see") {
    Lettering spec = text("AV", "League Spartan");
    const auto second = [&] { return bounds(made(spec).drawing->lines.back().shape).x0; };
    const auto size = [&] { return bounds(*made(spec).drawing); };
    const double as_is = second();
    const double em = in_mm(spec.size) / fonts().capital_height({"League Spartan"}); // capitals are 20 mm
    spec.text = "A{-4}V";
    CHECK(second() == Approx(as_is - 0.04 * em).margin(1e-6));
    spec.text = "A{+2.5}V";
    CHECK(second() == Approx(as_is + 0.025 * em).margin(1e-6));
    spec.text = "A{+2.5}{-2.5}V";
    CHECK(second() == Approx(as_is).margin(1e-9));
    spec.text = "{+9}AV"; // there is nothing before the first letter
    CHECK(size().x0 == Approx(0).margin(1e-9));
    spec.text = "{+x}"; // no mark: as it stands
    CHECK(made(spec).drawing->lines.size() == 4);
    // Letters of a script join as they did.
    spec = text("fi", "EB Garamond"), spec.italic = true;
    spec.text = "f{-2}i";
    CHECK(made(spec).drawing->lines.size() == 1); // the ligature
    spec = text("AV", "Roman simplex"), spec.kind = Lettering::Kind::strokes;
    const double stroke = second();
    spec.text = "A{-10}V";
    CHECK(stroke - second() ==
          Approx(0.1 * 20 / 0.7).margin(1e-6)); // the em of strokes: capitals are 0.7 of it
    spec.text = "A{/V}";
    CHECK(has(made(spec).findings, "lettering.missing"));

    CHECK(kerned("AV", 1, -0.5).text == "A{-0.5}V");
    CHECK(kerned("AV", 1, -0.5).caret == 7);
    CHECK(kerned("A{-0.5}V", 7, -0.5).text == "A{-1}V");
    CHECK(kerned("A{-0.5}V", 1, 0.5).text == "AV");
    CHECK(kerned("A{-0.5}V", 1, 0.5).caret == 1);
    CHECK(kerned("A{/Q.sw}V", 8, 1).text == "A{/Q.sw}{+1}V");
}

TEST_CASE("damaged stroke fonts are refused with their line") {
    CHECK(read_stroke_font("", "x").error().code == "font.strokes");
    CHECK(read_stroke_font("  699  1JZ\n  714 99MWRF", "x").error().code == "font.strokes");
    CHECK(read_stroke_font("  699  1JZ\n  71x  y MW", "x").error().place.line == 2);
    const std::string whole = file(DOTLANE_SOURCE "/data/fonts/strokes/scripts.jhf");
    for (std::size_t cut = 1; cut < whole.size(); cut += 97)
        (void)read_stroke_font(whole.substr(0, cut), "x"); // must not crash; the sanitizers watch
}
