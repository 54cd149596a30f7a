// The register of findings: what stands in a row can be said, and what it offers can be done.
#include "core/checks/findings.h"

#include <set>

#include "core/commands/remedies.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// The highest of the places "%1" to "%9".
std::size_t places(std::string_view words) {
    std::size_t highest = 0;
    for (std::size_t i = 0; i + 1 < words.size(); ++i)
        if (words[i] == '%' && words[i + 1] >= '1' && words[i + 1] <= '9')
            highest = std::max<std::size_t>(highest, static_cast<std::size_t>(words[i + 1] - '0'));
    return highest;
}

template<class... Args>
void check_row(const FindingKind<Args...>& kind, std::set<std::string>& codes) {
    INFO(kind.code);
    CHECK(codes.insert(kind.code).second);
    CHECK(places(kind.words) <= sizeof...(Args));
    constexpr int counts = (0 + ... + (std::is_same_v<Args, Count> ? 1 : 0));
    const std::string_view words = kind.words;
    CHECK((counts > 0 || (words.find("%n") == words.npos && words.find('[') == words.npos)));
    std::set<std::string> keys;
    for (const char* key : kind.keys)
        if (key) CHECK(keys.insert(key).second);
    for (const RemedyKind& remedy : kind.remedies) {
        if (!remedy.code) continue;
        INFO(remedy.code);
        CHECK(has_remedy(remedy.code));
        CHECK(places(remedy.words) <= sizeof...(Args));
    }
}

} // namespace

TEST_CASE("every row of the register of findings holds together") {
    std::set<std::string> codes;
    std::apply([&](const auto&... kinds) { (check_row(kinds, codes), ...); }, checks::all);
    CHECK(codes.size() == std::tuple_size_v<decltype(checks::all)>);
    CHECK(codes.size() > 20);
}

TEST_CASE("a finding says its arguments, tells them to scripts and offers what helps") {
    const FindingPlace place{PartId{7}, {}, {}, {}, {}};
    const Finding gaps = checks::lines_gaps(place, Count{1}, {0.12345});
    CHECK(gaps.message.english() ==
          "1 gap of up to 0.12 mm between ends of cut lines: the piece will hang there.");
    CHECK(gaps.args ==
          std::vector<std::pair<std::string, std::string>>{{"count", "1"}, {"widest_mm", "0.123"}});
    CHECK(gaps.place == place);
    CHECK(checks::lines_gaps(place, Count{3}, {0.1}).message.english().starts_with("3 gaps of up to 0.1 mm"));
    CHECK(number_argument(gaps, "widest_mm") == 0.123);
    CHECK(gaps.message.n == 1U);
    // A number that chooses no plural is no number to a translator.
    CHECK_FALSE(checks::part_in_one(place, std::string("Heron"), Count{4}).message.n);

    const Finding neck = checks::piece_neck(place, {0.456}, {0.8}, as_word("Catalog", "cream card"), {12.34},
                                            {0.2}, std::string("12.3 x 1 mm"));
    CHECK(neck.message.english() == "A neck is 0.46 mm wide: cream card under 0.8 mm tears there.");
    CHECK(neck.remedy.code == "piece.thicken");
    CHECK(neck.remedy.label.english() == "Thicken it by 0.2 mm");
    REQUIRE(neck.more.size() == 1);
    CHECK(neck.more[0].code == "clean.narrow");
    const Finding second =
        with_remedies(neck, [](const std::string& code) { return code == "clean.narrow"; });
    CHECK(second.remedy.code == "clean.narrow");
    CHECK(second.more.empty());
    const Finding none = with_remedies_if(false, neck);
    CHECK(none.remedy.code.empty());
    CHECK(none.more.empty());
    CHECK(with_remedies_if(true, neck) == neck);
    CHECK(graded(neck, Grade::hint).grade == Grade::hint);
}
