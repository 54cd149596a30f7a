#include "core/base/text.h"

#include <clocale>

#include "core/base/finding.h"
#include "core/base/measure.h"
#include "core/lettering/marks.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("core's tests run in a country that writes a comma before decimals") {
    CHECK(std::string(std::localeconv()->decimal_point) == ",");
}

TEST_CASE("numbers are read and written with a point, whatever the country") {
    const CommaLocale here;
    CHECK(plain_number("1.75") == 1.75);
    CHECK(plain_number("+1.75") == 1.75);
    CHECK(plain_number("-2e-3") == -0.002);
    for (const char* text : {"", "+", "1,75", "1.75 ", "1.75mm", "nan", "inf", "1e999", "++1"})
        CHECK_FALSE(plain_number(text));
    CHECK(number(1.75, 2) == "1.75");
    CHECK(number_argument({"x", Grade::hint, {}, {{"other", "3"}, {"width_mm", "1.75"}}}, "width_mm") ==
          1.75);
    CHECK_FALSE(number_argument({"x", Grade::hint, {}, {{"width_mm", "wide"}}}, "width_mm"));
    CHECK_FALSE(number_argument({"x", Grade::hint, {}}, "width_mm"));
    CHECK(in_mm(must(parse_length("1,5 mm", LengthUnit::mm))) == 1.5);
    CHECK(to_text(mm(1.5), LengthUnit::mm) == "1.5 mm");
    const auto stretches = stretches_of("A{-1.75}V");
    REQUIRE((stretches.size() == 1 && stretches[0].kerns.size() == 1));
    CHECK(stretches[0].kerns[0].percent == -1.75);
}
