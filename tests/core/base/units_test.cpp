#include "core/base/units.h"

#include <catch2/catch.hpp>

#include "core/base/measure.h"
#include "core/base/text.h"

using namespace dotlane;

TEST_CASE("an inch is 25.4 mm, a point a 72nd, a CSS pixel a 96th of it") {
    // Source: international yard and pound agreement 1959, NIST SP 811; W3C CSS Values 3.
    CHECK(in_mm(inches(1)) == 25.4);
    CHECK(in_inches(mm(254)) == Approx(10).epsilon(1e-15));
    CHECK(in_mm(points(72)) == Approx(25.4).epsilon(1e-15));
    CHECK(in_mm(*parse_length("96px", LengthUnit::mm)) == Approx(25.4).epsilon(1e-15));
    CHECK(in_degrees(degrees(30)) == Approx(30).epsilon(1e-15));
}

TEST_CASE("lengths are read as makers write them") {
    const auto reads = [](const char* text, LengthUnit unit = LengthUnit::mm) {
        const auto v = parse_length(text, unit);
        INFO(text);
        REQUIRE(v);
        return in_mm(*v);
    };
    CHECK(reads("12.5") == 12.5);
    CHECK(reads("12,5") == 12.5); // a decimal comma is common on paper
    CHECK(reads("3 1/2 in") == Approx(88.9));
    CHECK(reads("8.5in/2") == Approx(107.95));
    CHECK(reads("120mm - 2*6") == Approx(108));
    CHECK(reads("(10 + 2.5) * 2cm") == Approx(250));
    CHECK(reads("2 1/4\" + 3mm") == Approx(60.15));
    CHECK(reads("1/8 in") == Approx(3.175));
    CHECK(reads("-4") == -4);
    CHECK(reads("1ft") == Approx(304.8));
    CHECK(reads("72pt") == Approx(25.4));
    CHECK(reads("2", LengthUnit::inch) == Approx(50.8));
    CHECK(reads("2mm", LengthUnit::inch) == 2);
    CHECK(reads("8.5 - 2*0.25", LengthUnit::inch) == Approx(203.2));
}

TEST_CASE("what is not a length says so and why") {
    const auto code = [](const char* text) {
        const auto v = parse_length(text, LengthUnit::mm);
        INFO(text);
        REQUIRE_FALSE(v);
        CHECK_FALSE(v.error().message.empty());
        return v.error().code;
    };
    for (const char* text : {"", "x", "12 mm mm", "3 +", "(4", "4)", "1..2", "--", "5 in in"})
        CHECK(code(text).starts_with("measure."));
    CHECK(code("10 parsec") == "measure.unit");
    CHECK(code("2mm * 3mm") == "measure.unit");
    CHECK(code("(3+3) / 2mm") == "measure.unit");
    CHECK(code("4 / 0") == "measure.unit");
    CHECK(code("1e999").starts_with("measure."));
    CHECK(code("5000 ft") == "measure.range");
    CHECK_FALSE(parse_length(std::string(5000, '('), LengthUnit::mm)); // no endless recursion
}

TEST_CASE("plain numbers and angles") {
    CHECK(*parse_number("90/4") == 22.5);
    for (const char* text : {"35°", "35deg", "35 degrees", "35", "70/2", "35,0"})
        CHECK(in_degrees(*parse_angle(text)) == Approx(35));
    CHECK(in_degrees(*parse_angle("1/8 turn")) == Approx(45));
    CHECK(in_degrees(*parse_angle("-0.5 turns + 10°")) == Approx(-170));
    CHECK(*parse_percent("12 %") == 12);
    CHECK(*parse_percent("100/3") == Approx(33.3333).epsilon(1e-4));
    // What has a unit that is not meant says so, with an example of what is.
    for (const auto& [error, example] :
         {std::pair(parse_number("3mm").error(), "0.5"), std::pair(parse_number("50%").error(), "0.5"),
          std::pair(parse_length("50%", LengthUnit::mm).error(), "120mm - 2*6"),
          std::pair(parse_length("45°", LengthUnit::mm).error(), "120mm - 2*6"),
          std::pair(parse_angle("3mm").error(), "22.5°"), std::pair(parse_percent("3mm").error(), "12.5%")}) {
        CHECK(error.code == "measure.unit");
        INFO(error.message);
        CHECK(error.message.english().find(example) != std::string::npos);
    }
    CHECK(*parse_em_space("5") == EmSpace{5, {}});
    CHECK(*parse_em_space("5 %") == EmSpace{5, {}});
    CHECK(*parse_em_space("-0.9mm") == EmSpace{0, mm(-0.9)});
    CHECK(parse_em_space("5deg").error().message.english().find("-0.9mm") != std::string::npos);
    CHECK(in_mm(EmSpace{5, {}}.of(mm(40))) == Approx(2));
    CHECK(in_mm(EmSpace{0, mm(-0.9)}.of(mm(40))) == Approx(-0.9));
}

TEST_CASE("mixed fractions, feet with inches and other hands' signs") {
    const auto reads = [](const char* text, LengthUnit unit = LengthUnit::inch) {
        const auto v = parse_length(text, unit);
        INFO(text);
        REQUIRE(v);
        return in_inches(*v);
    };
    // Tight together a hyphen belongs to the number; with blanks around it, it takes away.
    CHECK(reads("8-1/2in") == Approx(8.5));
    CHECK(reads("8-1/2") == Approx(8.5));
    CHECK(reads("8 1/2\"") == Approx(8.5));
    CHECK(reads("8 - 1/2in") == Approx(7.5));
    CHECK(reads("8 - 1/2") == Approx(7.5));
    CHECK(reads("8½") == Approx(8.5));
    CHECK(reads("8 ½ in") == Approx(8.5));
    CHECK(reads("8-½in") == Approx(8.5));
    CHECK(reads("½ in", LengthUnit::mm) == Approx(0.5));
    CHECK(reads("2¾ + ⅛") == Approx(2.875));
    CHECK(reads("-2 1/2") == Approx(-2.5));
    CHECK(reads("120-6/2", LengthUnit::mm) == Approx(117 / 25.4)); // six halves are no part of one
    CHECK(reads("1 ft 2 in", LengthUnit::mm) == Approx(14));
    CHECK(reads("1' 2 1/2\"", LengthUnit::mm) == Approx(14.5));
    CHECK(reads("1′2″", LengthUnit::mm) == Approx(14));
    CHECK(reads("-1 ft 2 in") == Approx(-14));
    CHECK(reads("2 × 3in") == Approx(6));
    CHECK(reads("3 × 2,5") == Approx(7.5));
    CHECK(reads("9 ÷ 2") == Approx(4.5));
    CHECK(reads("9 − 2") == Approx(7));
    CHECK(reads("10in / 2in") == Approx(5)); // so many bare ones
    for (const char* wrong : {"8 3", "8mm 3", "1 ft 2 deg", "½½", "8-", "3 1/0", "12 parsec", "°"})
        CHECK((parse_length(wrong, LengthUnit::mm) ? wrong : std::string()) == std::string());
}

TEST_CASE("lengths are written shortest, in the unit asked for") {
    CHECK(to_text(mm(300), LengthUnit::mm) == "300 mm");
    CHECK(to_text(mm(0.42), LengthUnit::mm) == "0.42 mm");
    CHECK(to_text(mm(-0.001), LengthUnit::mm) == "0 mm"); // never "-0"
    CHECK(to_text(inches(4.375), LengthUnit::inch) == "4.375 in");
}

TEST_CASE("durations in the words of the board") {
    CHECK(spoken_seconds(8.4) == "8 s");
    CHECK(spoken_seconds(60) == "1 min");
    CHECK(spoken_seconds(250) == "4 min 10 s");
    CHECK(spoken_seconds(36 * 60 + 40) == "37 min");
    CHECK(spoken_seconds(59.7) == "1 min");
    CHECK(spoken_seconds(3900) == "1 h 5 min");
    CHECK(spoken_seconds(3599.8) == "1 h 0 min");
}

TEST_CASE("text helpers") {
    CHECK(number(1.5000, 4) == "1.5");
    CHECK(number(-0.00001, 3) == "0");
    CHECK(number(1e21, 2) == "1000000000000000000000");
    CHECK(code_word("Rust pen 0.4 / draw") == "rust-pen-0-4-draw");
    CHECK(code_word("../../etc") == "etc"); // an exported name never leaves its folder
    CHECK(code_word("***") == "unnamed");
    CHECK(valid_utf8("Möwe \xE2\x9C\x82 \xF0\x9F\x90\xA6") == "Möwe \xE2\x9C\x82 \xF0\x9F\x90\xA6");
    CHECK(valid_utf8("a\xFFz \xC0\xAF \xED\xA0\x80 \x01") ==
          "a?z ?? ??? "
          " "); // stray, overlong, surrogate, control (RFC 3629)
    CHECK(line_of_offset("a\nb\nc", 4) == 3);
    CHECK(line_of_offset("abc", 99) == 1);
    CHECK(split(" a, b ,,c", " ,").size() == 3);
    CHECK(content_hash("a") == 0xaf63dc4c8601ec8cULL); // FNV-1a test vector, Fowler, Noll and Vo
}
