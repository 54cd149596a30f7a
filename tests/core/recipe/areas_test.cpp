// What lines cover together.
#include "core/recipe/areas.h"

#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("all pieces of an area cover it, whatever is missing, doubled, moved or changed does not") {
    Ring gear;
    for (int k = 0; k < 3000; ++k) {
        const double t = k * 2 * 3.14159265358979 / 3000, r = k % 2 ? 20 : 19;
        gear.push_back({r * std::cos(t), r * std::sin(t)});
    }
    Region whole = region_of({Polyline{gear, true}}, FillRule::nonzero);
    for (const double x : {50.0, 100.0})
        for (const Ring& ring :
             transformed(region_of({Polyline{gear, true}}, FillRule::nonzero), Affine::translation({x, 0}))
                 .rings)
            whole.rings.push_back(ring);
    FlatLine like;
    like.rule = FillRule::nonzero;
    const auto lines = lines_of(whole, [&](const Region&) -> const FlatLine& { return like; });
    REQUIRE(lines.size() == 3);
    const double one = in_square_mm(area(whole)) / 3;
    const auto size = [&](const std::vector<FlatLine>& of) {
        WorkSet set;
        set.lines = of;
        return in_square_mm(area(covered(areas_of({&set})))) / one;
    };
    CHECK(size(lines) == Approx(3));
    CHECK(size({lines[0], lines[1]}) == Approx(2));
    CHECK(size({lines[0], lines[1], lines[1]}) == Approx(2));
    CHECK(size({lines[0], lines[0], lines[0]}) == Approx(1));
    CHECK(size({lines[2], lines[0], lines[1]}) == Approx(3));
    FlatLine changed = lines[1];
    changed.area = nullptr;
    changed.contours = {{{{0, 0}, {1, 0}, {1, 1}, {0, 1}}, true}}; // within the first
    CHECK(size({lines[0], changed, lines[2]}) == Approx(2));
}
