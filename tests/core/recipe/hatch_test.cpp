#include "core/recipe/hatch.h"

#include <numbers>

#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

HatchResult fill(const Region& region, double spacing, double angle = 0, bool joined = false,
                 HatchOptions::Phase phase = HatchOptions::Phase::centred) {
    return hatch(region,
                 {mm(spacing), degrees(angle), joined ? FillEnds::joined : FillEnds::apart, true, phase});
}

Region plate() {
    return region_of({ring({{0, 0}, {40, 0}, {40, 20}, {0, 20}})}, FillRule::nonzero);
}
Region ring_shape() {
    return region_of(
        {ring({{0, 0}, {100, 0}, {100, 100}, {0, 100}}), ring({{30, 30}, {70, 30}, {70, 70}, {30, 70}})},
        FillRule::evenodd);
}

/// Every point of the lines, and of what lies between them, is in the region, give or take a grid step.
bool stays_inside(const Polylines& lines, const Region& region) {
    const double all = in_mm(length(lines));
    return in_mm(length(clipped(lines, offset(region, mm(0.002), {Corner::mitre, 4, mm(0.001)})))) >=
           all - 1e-3 * std::max(1.0, all) / 100;
}

} // namespace

TEST_CASE("a 40 x 20 block inset by 0.4, lines 0.5 apart: 39 lines of 39.2") {
    const Region inner = offset(plate(), mm(-0.4), {Corner::mitre, 10, mm(0.001)});
    const HatchResult r = fill(inner, 0.5);
    CHECK(r.rows == 39); // one line more or less by phase
    CHECK(in_mm(r.filled) == Approx(1528.8).margin(0.01));
    CHECK(r.lines.size() == 39);
}

TEST_CASE("hatch lengths and segments that GEOS and Clipper agree on") {
    // Line k at (k + 1/2) x spacing from the origin; computed with GEOS 3.11 and Clipper 6.4.2.
    const auto check = [](double angle, double spacing, double total, std::size_t segments) {
        const HatchResult r = fill(ring_shape(), spacing, angle, false, HatchOptions::Phase::origin);
        INFO("angle " << angle);
        CHECK(in_mm(r.filled) == Approx(total).margin(0.01));
        CHECK(r.pieces == segments);
    };
    check(0, 2, 4200, 70);
    check(45, 5, 1680.9755, 40);
    check(30, 3, 2798.7120, 64);
}

TEST_CASE("total length tends to area over spacing (Cavalieri)") {
    const Region star = region_of({ring(regular(7, 30))}, FillRule::nonzero);
    for (const double s : {1.0, 0.5, 0.25, 0.1})
        CHECK(in_mm(fill(star, s, 17).filled) * s == Approx(in_square_mm(area(star))).epsilon(s / 20));
}

TEST_CASE("lines are exactly the spacing apart, at every angle") {
    for (const double angle : {0.0, 12.0, 45.0, 90.0, 133.0, -70.0}) {
        const HatchResult r = fill(ring_shape(), 3, angle);
        std::vector<double> rows;
        const Affine level = Affine::rotation(-in_radians(degrees(angle)));
        for (const Polyline& l : r.lines) {
            const Point a = level(l.points[0]), b = level(l.points[1]);
            CHECK(a.y == Approx(b.y).margin(1e-9));
            rows.push_back(a.y);
        }
        std::sort(rows.begin(), rows.end());
        rows.erase(std::unique(rows.begin(), rows.end(), [](double a, double b) { return b - a < 1e-6; }),
                   rows.end());
        CHECK(rows.size() == r.rows);
        for (std::size_t i = 1; i < rows.size(); ++i)
            CHECK(rows[i] - rows[i - 1] == Approx(3).margin(1e-9));
    }
}

TEST_CASE("the bundle is centred: the same rest on both sides") {
    const HatchResult r = fill(plate(), 3);
    Box box = bounds(r.lines);
    CHECK(box.y0 - 0 == Approx(20 - box.y1).margin(1e-9));
    CHECK(box.y0 < 3);
}

TEST_CASE("every other line runs backwards, or none does") {
    HatchOptions options{mm(1), {}, FillEnds::apart, true, HatchOptions::Phase::centred};
    auto lines = hatch(plate(), options).lines;
    for (std::size_t i = 1; i < lines.size(); ++i)
        CHECK((lines[i].points[1].x > lines[i].points[0].x) !=
              (lines[i - 1].points[1].x > lines[i - 1].points[0].x));
    options.alternate = false;
    for (const Polyline& l : hatch(plate(), options).lines)
        CHECK(l.points[1].x > l.points[0].x);
}

TEST_CASE("joined: one run for a convex shape, all lines in it") {
    const HatchResult apart = fill(plate(), 0.5), joined = fill(plate(), 0.5, 0, true);
    CHECK(joined.lines.size() == 1);
    CHECK(joined.pieces == apart.pieces);
    // 39 or 40 lines and the short ways between them.
    CHECK(in_mm(length(joined.lines)) ==
          Approx(in_mm(apart.filled) + 0.5 * static_cast<double>(apart.rows - 1)).margin(0.01));
    CHECK(stays_inside(joined.lines, plate()));
}

TEST_CASE("joins never leave the region and holes stay open") {
    Random random("joined fills");
    for (int round = 0; round < 120; ++round) {
        Region region = region_of({ring(random_ring(random, random.whole(5, 40), 8, 40))}, FillRule::nonzero);
        for (int h = random.whole(0, 4); h > 0; --h)
            region = subtracted(
                region,
                region_of({ring(random_ring(random, 8, 1, 6, {random.real(-20, 20), random.real(-20, 20)}))},
                          FillRule::nonzero));
        const double spacing = random.real(0.3, 4), angle = random.real(-180, 180);
        const HatchResult joined = fill(region, spacing, angle, true), apart = fill(region, spacing, angle);
        INFO("seed " << random.seed() << " round " << round);
        CHECK(joined.pieces == apart.pieces);
        CHECK(joined.lines.size() <= apart.lines.size());
        CHECK(stays_inside(joined.lines, region));
        // Nothing of the fill is lost by joining: a strip around the joined runs covers all separate lines.
        const Region ink = stroked(joined.lines, mm(0.05));
        CHECK(in_mm(length(clipped(apart.lines, ink))) == Approx(in_mm(apart.filled)).epsilon(2e-3));
    }
}

TEST_CASE("joining saves most lifts on lettering-like shapes") {
    // A ring is two half bundles at worst: it must not fall apart into one run for each line.
    const HatchResult r = fill(ring_shape(), 1, 0, true);
    CHECK(r.lines.size() <= 4);
    CHECK(r.pieces > 130);
}

TEST_CASE("a longer reach makes fewer runs, never more, and loses nothing") {
    Random random("reach");
    for (int round = 0; round < 30; ++round) {
        Region region = region_of({ring(random_ring(random, 30, 6, 30))}, FillRule::nonzero);
        region = subtracted(region, region_of({ring(random_ring(random, 8, 1, 4))}, FillRule::nonzero));
        std::size_t before = ~std::size_t{0};
        for (const double reach : {0.0, 3.0, 10.0, 100.0}) {
            const HatchResult r = hatch(region, {mm(0.6), degrees(20), FillEnds::joined, true,
                                                 HatchOptions::Phase::centred, mm(reach)});
            INFO("seed " << random.seed() << " reach " << reach);
            CHECK(r.lines.size() <= before);
            CHECK(stays_inside(r.lines, region));
            std::size_t pieces = 0; // each straight piece is still there: an edge of its row's height
            const Affine level = Affine::rotation(-in_radians(degrees(20)));
            for (const Polyline& l : r.lines)
                for (std::size_t i = 1; i < l.points.size(); ++i)
                    pieces += std::abs(level(l.points[i]).y - level(l.points[i - 1]).y) < 1e-9;
            CHECK(pieces >= r.pieces);
            before = r.lines.size();
        }
    }
}

TEST_CASE("what is too small for a line, empty, or degenerate gives no lines and no fault") {
    CHECK(fill({}, 1).lines.empty());
    CHECK(fill(square(0.0005), 1).lines.size() <= 1);
    const HatchResult one =
        fill(region_of({ring({{0, 0}, {50, 0}, {50, 0.2}, {0, 0.2}})}, FillRule::nonzero), 5);
    CHECK(one.rows == 1); // a strip thinner than the spacing still gets its middle line
    CHECK(one.lines[0].points[0].y == Approx(0.1));
}

TEST_CASE("separate and joined fills find the same pieces, by two ways of finding them") {
    Random random("separate and joined");
    for (int round = 0; round < 60; ++round) {
        Polylines outlines;
        for (int n = random.whole(1, 60); n > 0;
             --n) // overlapping ones: even-odd leaves slivers and crossings
            outlines.push_back(ring(random_ring(random, random.whole(3, 30), 0.5, 20,
                                                {random.real(-30, 30), random.real(-30, 30)})));
        const Region region = region_of(outlines, FillRule::evenodd);
        const double spacing = random.real(0.05, 3), angle = random.real(-180, 180);
        const HatchResult apart = fill(region, spacing, angle), joined = fill(region, spacing, angle, true);
        INFO("seed " << random.seed() << " round " << round);
        CHECK(apart.pieces == joined.pieces);
        CHECK(apart.rows == joined.rows);
        CHECK(apart.lines.size() == apart.pieces);
        CHECK(in_mm(apart.filled) == Approx(in_mm(joined.filled)));
        CHECK(in_mm(length(apart.lines)) == Approx(in_mm(apart.filled)));
    }
}
