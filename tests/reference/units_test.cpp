// Sizes, weights and units of the catalog against the GNU units database and libpaper.
#include "core/catalog/catalog.h"
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
