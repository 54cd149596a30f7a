#include "core/base/phrase.h"

#include "tests/support/support.h"

using namespace dotlane;

TEST_CASE("a phrase says its arguments and the plural of its number") {
    const std::string name = "%1 [a|b] %n";
    CHECK(say("\"%1\" is no file.", name).english() ==
          "\"%1 [a|b] %n\" is no file."); // names stay as they are
    for (const std::size_t n : {0, 2, 21})
        CHECK(say_n(n, "%n [line lies|lines lie] outside, [it|they] too").english() ==
              std::to_string(n) + " lines lie outside, they too");
    CHECK(say_n(1, "%n [line lies|lines lie] outside, [it|they] too").english() ==
          "1 line lies outside, it too");
    CHECK(say("%2 of %1 (%1)", 3, std::string_view("two")).english() == "two of 3 (3)");
    CHECK(say("%1 at 100 %, %3 [no choice]", 1).english() == "1 at 100 %, %3 [no choice]");
    CHECK(say("%1: %2", as_word("Steps", "Outline"), say_n(1, "%n [step|steps]")).english() ==
          "Outline: 1 step");
    CHECK(joined({}, ", ").empty());
    CHECK(joined({as_is("a"), say("b"), as_is("c %1")}, "; ").english() == "a; b; c %1");
    CHECK(as_is("%1").english() == "%1");
    CHECK(Phrase().empty());
    CHECK_FALSE(as_is("Outline") == as_word("Steps", "Outline"));
}
