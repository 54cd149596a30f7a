// All styles, with ends apart, joined and as one stroke, where lines end on the edges of many holes.
#include "core/geometry/region_index.h"
#include "core/recipe/fill.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("a stroke that goes past many holes is never out of the region, however many lines end at each") {
    constexpr FillEnds all_ends[] = {FillEnds::one_stroke, FillEnds::one_stroke, FillEnds::joined,
                                     FillEnds::apart};
    Random random("one stroke past holes");
    std::size_t strokes = 0;
    for (int round = 0; round < 40; ++round) {
        Polylines lines{ring(regular(random.whole(3, 40), 30, {}, random.real(0, 3)))};
        for (int k = random.whole(3, 25); k > 0; --k)
            lines.push_back(ring(regular(random.whole(3, 20), random.real(0.5, 4),
                                         {random.real(-18, 18), random.real(-18, 18)}, random.real(0, 3))));
        const Region region = region_of(lines, FillRule::evenodd), around = offset(region, mm(0.01));
        const RegionIndex index(around);
        for (const FillKind& kind : fill_kinds()) {
            const int ends = random.whole(0, 3);
            INFO("seed " << random.seed() << " round " << round << " " << kind.key << " ends " << ends);
            const FillLines made = filled(kind.fresh,
                                          {region, mm(random.real(1, 6)), degrees(random.real(0, 180)),
                                           all_ends[ends], mm(0.5), FillPhase::centre, bounds(region)},
                                          no_progress());
            for (const Polyline& line : made.lines)
                CHECK(index.contains(line));
            strokes += made.lines.size();
        }
    }
    CHECK(strokes > 40);
}
