#include "core/recipe/coverage.h"

#include <numbers>

#include "core/recipe/hatch.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("coverage of simple marks has a closed form") {
    // One line of 30 along the middle of a 30 x 10 plate, tip 2: inside 30 x 2, outside two half discs of
    // radius 1.
    const Region plate = region_of({ring({{0, 0}, {30, 0}, {30, 10}, {0, 10}})}, FillRule::nonzero);
    const Coverage c = coverage(plate, {line({{0, 5}, {30, 5}})}, mm(2), {});
    CHECK(in_square_mm(c.to_fill) == Approx(300));
    CHECK(in_square_mm(c.inked_inside) == Approx(60).epsilon(1e-3));
    CHECK(in_square_mm(c.inked) == Approx(60 + std::numbers::pi).epsilon(2e-3));
    CHECK(c.covered_percent == Approx(20).epsilon(1e-3));
    CHECK(c.overspill_percent == Approx(100 * std::numbers::pi / 300).epsilon(2e-2));
}

TEST_CASE("overlapping marks count once") {
    const Region plate = square(20);
    const Coverage once = coverage(plate, {line({{2, 10}, {18, 10}})}, mm(2), {});
    const Coverage twice = coverage(plate, {line({{2, 10}, {18, 10}}), line({{18, 10}, {2, 10}})}, mm(2), {});
    CHECK(in_square_mm(twice.inked) == Approx(in_square_mm(once.inked)).epsilon(1e-9));
}

TEST_CASE("agrees with the area of buffered strokes") {
    Random random("coverage");
    for (int round = 0; round < 25; ++round) {
        const Region region = region_of({ring(random_ring(random, 14, 8, 25))}, FillRule::nonzero);
        const double tip = random.real(0.3, 1.5), spacing = random.real(0.3, 2), angle = random.real(0, 180);
        const HatchResult h = hatch(
            region, {mm(spacing), degrees(angle), random.coin() ? FillEnds::joined : FillEnds::apart, true});
        const Coverage c = coverage(region, h.lines, mm(tip), degrees(angle));
        const Region ink = stroked(h.lines, mm(tip), mm(0.0005));
        const double whole = in_square_mm(area(region));
        INFO("seed " << random.seed() << " round " << round);
        CHECK(in_square_mm(c.inked) == Approx(in_square_mm(area(ink))).margin(whole * 0.002));
        CHECK(in_square_mm(c.inked_inside) ==
              Approx(in_square_mm(area(intersected(ink, region)))).margin(whole * 0.002));
    }
}

TEST_CASE("the angle given changes the work, not the answer") {
    const Region region = region_of({ring(regular(9, 20))}, FillRule::nonzero);
    const auto lines = hatch(region, {mm(0.9), degrees(33), FillEnds::joined, true}).lines;
    const double a = coverage(region, lines, mm(0.7), degrees(33)).covered_percent;
    const double b = coverage(region, lines, mm(0.7), degrees(80)).covered_percent;
    CHECK(a == Approx(b).margin(0.2));
}

TEST_CASE("nothing to fill, nothing inked") {
    CHECK(coverage({}, {}, mm(1), {}).covered_percent == 0);
    CHECK(coverage(square(10), {}, mm(1), {}).covered_percent == 0);
    CHECK(coverage(square(10), {line({{5, 5}})}, mm(2), {}).covered_percent ==
          Approx(std::numbers::pi).epsilon(5e-3)); // a dot
}
