// The small grammars of SVG: numbers, lengths, transforms, colours, path data.
#include <charconv>

#include "core/formats/svg/path_data.h"
#include "core/formats/svg/values.h"
#include "core/geometry/polyline.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::svg;

TEST_CASE("numbers as SVG writes them") {
    CHECK(parse_numbers("-.5 1e3,0.6.5 -3+4") == std::vector<double>{-0.5, 1000, 0.6, 0.5, -3, 4});
    CHECK(parse_numbers("1,,2") == std::vector<double>{1}); // two commas end the list
    CHECK(parse_numbers("").empty());
    CHECK(parse_numbers("1e-400") == std::vector<double>{0});
    CHECK(std::isinf(parse_numbers("1e400")[0]));
    CHECK(parse_measure("1em")->unit == Unit::em); // an exponent needs digits
    CHECK(parse_measure("2.5mm")->unit == Unit::mm);
    CHECK(parse_measure("40%")->unit == Unit::percent);
    CHECK(parse_measure("3 bananas")->unit == Unit::unknown);
    CHECK_FALSE(parse_measure("mm"));
    CHECK(px_per(Unit::in) == 96);
    CHECK(px_per(Unit::mm) * 25.4 == Approx(96));
    CHECK(px_per(Unit::pt) * 72 == Approx(96));
    CHECK(px_per(Unit::quarter_mm) * 40 == Approx(px_per(Unit::cm)));
}

TEST_CASE("numbers are the nearest that there are, as the standard library reads them") {
    dotlane::test::Random random("numbers");
    for (int i = 0; i < 200'000; ++i) {
        std::string text;
        if (random.coin()) text += random.coin() ? "-" : "+";
        const auto digits = [&](int n) {
            for (int k = 0; k < n; ++k)
                text += static_cast<char>('0' + random.whole(0, 9));
        };
        const int whole = random.whole(0, i % 7 == 0 ? 25 : 9),
                  part = random.whole(whole == 0, i % 5 == 0 ? 25 : 9);
        digits(whole);
        if (part > 0 || random.coin()) text += '.', digits(part);
        if (random.whole(0, 5) == 0)
            text += "e" + std::to_string(random.whole(-30, 30)) + (random.coin() ? "" : " ");
        double expected = 0;
        const char* from = text.data() + (text[0] == '+');
        std::from_chars(from, text.data() + text.size(), expected);
        INFO(text);
        Scanner scanner(text);
        const auto got = scanner.number();
        REQUIRE(got);
        REQUIRE(*got == expected);
        REQUIRE(std::signbit(*got) == std::signbit(expected));
        // With something behind it, so that all eight bytes at a time can be read.
        const auto again = Scanner(text + ",12345678").number();
        REQUIRE(*again == expected);
    }
    CHECK(parse_numbers("0." + std::string(400, '0') + "1") == std::vector<double>{0});
    CHECK(std::isinf(parse_numbers("1" + std::string(400, '0'))[0]));
}

TEST_CASE("transform lists") {
    const auto at = [](const char* text, Point p) {
        const auto m = parse_transform(text);
        REQUIRE(m);
        return (*m)(p);
    };
    CHECK(at("translate(3)", {1, 1}) == Point{4, 1});
    CHECK(at("translate(3,4) scale(2)", {1, 1}) == Point{5, 6});
    CHECK(distance(at("rotate(90)", {1, 0}), {0, 1}) < 1e-12);
    CHECK(distance(at("rotate(180 5 5)", {0, 0}), {10, 10}) < 1e-12);
    CHECK(distance(at("skewX(45)", {0, 2}), {2, 2}) < 1e-12);
    CHECK(at("matrix(1 2 3 4 5 6)", {1, 1}) == Point{9, 12});
    CHECK(at("", {1, 2}) == Point{1, 2});
    for (const char* wrong : {"rotate", "scale(1 2 3)", "fly(3)", "translate(1"})
        CHECK_FALSE(parse_transform(wrong));
}

TEST_CASE("colours") {
    double alpha = 0;
    CHECK(*parse_colour("red", alpha) == Colour{255, 0, 0});
    CHECK(*parse_colour("RebeccaPurple", alpha) == Colour{102, 51, 153});
    CHECK(*parse_colour("#abc", alpha) == Colour{170, 187, 204});
    CHECK(*parse_colour("rgb(10%, 20, 300)", alpha) == Colour{26, 20, 255});
    CHECK(*parse_colour("hsl(120, 100%, 25%)", alpha) == Colour{0, 128, 0}); // CSS Color 3, section 4.2.4
    CHECK(*parse_colour("#00000080", alpha) == Colour{0, 0, 0});
    CHECK(alpha == Approx(128 / 255.0));
    CHECK(parse_colour("transparent", alpha));
    CHECK(alpha == 0);
    CHECK_FALSE(parse_colour("no-colour", alpha));
    bool outside = false;
    CHECK(parse_reference("url(#a)", outside) == "a");
    CHECK(parse_reference("url('other.svg#a')", outside).empty());
    CHECK(outside);
}

TEST_CASE("the path grammar") {
    const auto contours = [](const char* d) { return parse_path(d).contours; };
    CHECK(contours("M1 2L3 4").size() == 1);
    CHECK(contours("m1,2 3,4 5,6")[0].end() == Point{9, 12}); // further pairs are lines, relative ones
    CHECK(contours("M0,0H5V6h-2v-3")[0].end() == Point{3, 3});
    CHECK(contours("M0 0L10 0Zl5 5")[1].start ==
          Point{0, 0}); // after Z a new contour begins at the old start
    CHECK(contours("M0 0 L1 1 M5 5 L6 6").size() == 2);
    CHECK(contours("M10-20.5.5")[0].start == Point{10, -20.5});
    CHECK(contours("M0 0C0 10 10 10 10 0S20-10 20 0")[0].segments[1].c1 == Point{10, -10}); // mirrored handle
    CHECK(contours("M0 0L5 5S9 9 10 0")[0].segments[1].c1 == Point{5, 5});                  // none to mirror
    CHECK(contours("M0,0Q5,10,10,0T20,0")[0].end() == Point{20, 0});
    CHECK(contours("M0 0a5 5 0 1110 0")[0].end() == Point{10, 0}); // flags without separators
    CHECK(in_mm(length(flattened(contours("M0 0A5 5 0 0 1 10 0")[0], mm(1e-4)))) ==
          Approx(5 * 3.14159265).epsilon(1e-3));
}

TEST_CASE("a broken path is kept up to the place where it breaks") {
    const auto broken = [](const char* d, std::size_t segments) {
        const PathData p = parse_path(d);
        INFO(d);
        CHECK_FALSE(p.complete);
        std::size_t n = 0;
        for (const Contour& c : p.contours)
            n += c.segments.size();
        CHECK(n == segments);
    };
    broken("M0 0L5 5L6", 1);
    broken("M0 0L5 5X9 9", 1);
    broken("L5 5", 0);
    broken("M0 0A5 5 0 2 1 10 0", 0); // a flag is 0 or 1
    broken("M0 0C1 1 2 2", 0);
    CHECK(parse_path("").complete);
    CHECK(parse_path("none").contours.empty());
}
