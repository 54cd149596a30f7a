// Sizes, weights and units of the catalog against the GNU units database and libpaper.
#include "core/catalog/catalog.h"
#include "core/lettering/stroke_font.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

double units(const std::string& from, const std::string& to) {
    return std::stod(shell("units -t '" + from + "' '" + to + "' 2>/dev/null"));
}

} // namespace

TEST_CASE("units of length are those of GNU units") {
    CHECK(in_mm(inches(1)) == Approx(units("1 inch", "mm")).epsilon(1e-12));
    CHECK(in_mm(*parse_length("1 ft", LengthUnit::mm)) == Approx(units("1 foot", "mm")).epsilon(1e-9));
    CHECK(
        in_mm(points(1)) ==
        Approx(units("1 inch / 72", "mm")).epsilon(1e-7)); // the PostScript point; units prints eight digits
}

TEST_CASE("weights of card are the basis weights they come from") {
    CHECK(catalog().stock("letter-card")->grams_per_m2 == Approx(units("65 lbcover", "g/m^2")).epsilon(1e-4));
    CHECK(catalog().stock("cream-card-12x12")->grams_per_m2 ==
          Approx(units("80 lbcover", "g/m^2")).epsilon(1e-4));
    // g/m2 = lb x 453.59237 / (500 x sheet area in m2); cover 20 x 26 in. Source: ISO 536 and the definition.
    CHECK(units("80 lbcover", "g/m^2") == Approx(80 * 453.59237 / (500 * 0.508 * 0.6604)).epsilon(1e-6));
}

TEST_CASE("paper sizes are those of libpaper") {
    const auto paper = [](const std::string& name) {
        const std::string said = shell("paperconf -s -m " + name);
        return std::pair{std::stod(said), std::stod(said.substr(said.find("mm") + 2))};
    };
    const Stock &a4 = *catalog().stock("white-card-a4"), &letter = *catalog().stock("letter-card");
    CHECK(in_mm(a4.width) == Approx(paper("a4").first).margin(0.01));
    CHECK(in_mm(a4.height) == Approx(paper("a4").second).margin(0.01));
    CHECK(in_mm(letter.width) == Approx(paper("letter").first).margin(0.01));
    CHECK(in_mm(letter.height) == Approx(paper("letter").second).margin(0.01));
}

TEST_CASE("envelopes are those of libpaper and of the GNU units database") {
    const auto paper = [](const std::string& name) {
        const std::string said = shell("paperconf -s -m " + name);
        return std::pair{std::stod(said), std::stod(said.substr(said.find("mm") + 2))};
    };
    int checked = 0;
    for (const Envelope& e : catalog().envelopes) {
        INFO(e.name);
        if (e.id == "dl" || e.id == "c5" || e.id == "c4") { // libpaper rounds to whole millimetres or points
            const auto p = paper(e.id == "dl" ? "dl" : e.id);
            CHECK(std::min(in_mm(e.width), in_mm(e.height)) ==
                  Approx(std::min(p.first, p.second)).margin(0.5));
            CHECK(std::max(in_mm(e.width), in_mm(e.height)) ==
                  Approx(std::max(p.first, p.second)).margin(0.5));
            ++checked;
        }
        if (!e.id.starts_with("us-a") && e.id != "us-10") continue;
        const std::string name = "envelope" + (e.id == "us-10" ? "10" : "A" + e.id.substr(4)) + "size";
        const std::string row = shell("grep -E '^" + name + " ' /usr/share/units/definitions.units");
        double w = 0, h = 0;
        REQUIRE(std::sscanf(row.c_str() + name.size(), " %lf inch %lf inch", &w, &h) == 2);
        CHECK(in_mm(e.width) == Approx(w * 25.4).margin(0.001));
        CHECK(in_mm(e.height) == Approx(h * 25.4).margin(0.001));
        ++checked;
    }
    CHECK(checked >= 10);
}

TEST_CASE("stroke fonts: strokes and advances are those that libhersheyfont gives") {
    // references.md, computed with libhersheyfont: "HELLO" in rowmans 12 strokes, length 236.851, advance 97;
    // in scripts 6 strokes, length 382.199, advance 103.
    const auto check = [](const char* font, std::size_t strokes, double length_units, double advance) {
        const StrokeFont f =
            must(read_stroke_font(file("/usr/share/hershey-fonts/" + std::string(font) + ".jhf"), font));
        std::size_t count = 0;
        double total = 0, wide = 0;
        for (const char c : std::string("HELLO")) {
            const StrokeGlyph* g = f.glyph(static_cast<char32_t>(c));
            REQUIRE(g);
            count += g->strokes.size();
            total += in_mm(length(g->strokes));
            wide += g->advance();
        }
        CHECK(count == strokes);
        CHECK(total == Approx(length_units).margin(0.001));
        CHECK(wide == advance);
    };
    check("rowmans", 12, 236.851, 97);
    check("scripts", 6, 382.199, 103);
}
