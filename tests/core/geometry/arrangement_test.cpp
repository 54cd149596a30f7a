// Long outlines and many at once, which are arranged rather than swept, against points asked one by one and
// against the sweep that works on each of them alone.
#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/geometry/narrow.h"
#include "core/geometry/region_index.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;
using std::numbers::pi;

namespace {

/// A long ring: spiked, wavy or crossing itself, round a middle.
Ring long_ring(Random& dice, int points, Point middle, double radius) {
    const int kind = dice.whole(0, 2), waves = dice.whole(3, 60);
    const double deep = dice.real(0.02, 0.6);
    Ring out;
    for (int i = 0; i < points; ++i) {
        const double t = 2 * pi * i / points;
        const double share = kind == 0   ? (i % 2 ? 1.0 : 1 - deep)
                             : kind == 1 ? 1 - deep * (0.5 + 0.5 * std::sin(waves * t))
                                         : 1 - dice.real(0, deep);
        const double turn = kind == 2 ? t * (waves % 2 ? 2 : 1) : t;
        out.push_back(
            {middle.x + radius * share * std::cos(turn), middle.y + 0.7 * radius * share * std::sin(turn)});
    }
    return out;
}

} // namespace

TEST_CASE("a long clean outline comes out as it went in, point for point") {
    Random dice("clean and long");
    for (int round = 0; round < 8; ++round) {
        INFO("seed " << dice.seed() << " round " << round);
        const int points = 2 * dice.whole(2500, 6000);
        Ring drawn;
        for (int i = 0; i < points; ++i) {
            const double t = 2 * pi * i / points, r = i % 2 ? 80 : 80 - 0.05 - dice.real(0, 20);
            drawn.push_back(
                {std::round(r * std::cos(t) * 1e5) / 1e5, std::round(r * std::sin(t) * 1e5) / 1e5});
        }
        const Region region = region_of({Polyline{drawn, true}}, FillRule::nonzero);
        REQUIRE(region.rings.size() == 1);
        Ring got = region.rings[0];
        REQUIRE(got.size() == drawn.size());
        const auto first = std::min_element(got.begin(), got.end(), [&](Point a, Point b) {
            return distance(a, drawn[0]) < distance(b, drawn[0]);
        });
        std::rotate(got.begin(), first, got.end());
        double most = 0;
        for (std::size_t i = 0; i < got.size(); ++i)
            most = std::max(most, distance(got[i], drawn[i]));
        CHECK(most < 1e-9);
        // And a hole in it changes nothing but itself.
        const Region holed = subtracted(region, region_of(Shape{{ellipse({3, 4}, 5, 6)}}));
        CHECK(holed.rings.size() == 2);
        CHECK(std::max(holed.rings[0].size(), holed.rings[1].size()) == drawn.size());
    }
}

TEST_CASE("areas of long outlines hold what their drawings hold, point by point") {
    Random dice("long outlines");
    for (int round = 0; round < 8; ++round) {
        INFO("seed " << dice.seed() << " round " << round);
        const Ring a = long_ring(dice, 5000, {0, 0}, dice.real(20, 60)),
                   b = long_ring(dice, 4000, {dice.real(-20, 20), 0}, dice.real(20, 60));
        const Region ra = region_of({Polyline{a, true}}, FillRule::evenodd),
                     rb = region_of({Polyline{b, true}}, FillRule::evenodd);
        const Region both = intersected(ra, rb), any = united(ra, rb), cut = subtracted(ra, rb);
        for (int i = 0; i < 400; ++i) {
            const Point p{dice.real(-70, 70), dice.real(-50, 50)};
            if (distance_to(Polyline{a, true}, p) < 1e-3 || distance_to(Polyline{b, true}, p) < 1e-3)
                continue;
            const bool in_a = ring_contains(a, p), in_b = ring_contains(b, p);
            CHECK(contains(ra, p) == in_a);
            CHECK(contains(both, p) == (in_a && in_b));
            CHECK(contains(any, p) == (in_a || in_b));
            CHECK(contains(cut, p) == (in_a && !in_b));
        }
        // Each of some ten thousand crossings lies half a step of the grid off, one way or the other.
        CHECK(in_square_mm(area(both)) + in_square_mm(area(any)) ==
              Approx(in_square_mm(area(ra)) + in_square_mm(area(rb))).margin(0.02));
    }
}

TEST_CASE("offsets of long outlines hold what lies within their distance") {
    Random dice("long offsets");
    for (int round = 0; round < 4; ++round) {
        INFO("seed " << dice.seed() << " round " << round);
        const Region region =
            region_of({Polyline{long_ring(dice, 6000, {0, 0}, dice.real(30, 60)), true}}, FillRule::evenodd);
        const double by = dice.real(0.05, 0.6);
        const Region grown = offset(region, mm(by)), shrunk = offset(region, mm(-by));
        const RegionIndex index(region);
        for (int i = 0; i < 400; ++i) {
            const Point p{dice.real(-62, 62), dice.real(-45, 45)};
            double off = 1e9;
            for (const Ring& ring : region.rings)
                off = std::min(off, distance_to(Polyline{ring, true}, p));
            if (std::abs(off - by) < 0.01) continue; // arcs are flattened to 0.005 mm
            const bool inside = index.contains(p);
            CHECK(contains(grown, p) == (inside || off < by));
            CHECK(contains(shrunk, p) == (inside && off > by));
        }
    }
}

namespace {

/// Small things of all shapes: horseshoes and combs, whose arms offsets bring together, spirals, stars,
/// flakes of a few points; some with a hole. Under 1,000 points.
Region small_thing(Random& dice, Point at) {
    const double size = std::pow(10, dice.real(-0.7, 0.8));
    Ring out;
    const auto put = [&](double x, double y) { out.push_back(at + Point{x, y} * size); };
    const int n = dice.whole(3, 60);
    const double thick = dice.real(0.05, 0.45), from = dice.real(0, 2 * pi), turns = dice.real(0.5, 3);
    switch (dice.whole(0, 4)) {
    case 0: // a horseshoe, its inner side fine
        for (int i = 0; i <= n; ++i)
            put(std::cos(from + 5.5 * i / n), std::sin(from + 5.5 * i / n));
        for (int i = n; i >= 0; --i)
            put((1 - thick) * std::cos(from + 5.5 * i / n), (1 - thick) * std::sin(from + 5.5 * i / n));
        break;
    case 1: // a comb
        for (int i = 0; i <= 6; ++i) {
            const double y = i % 2 ? 1.0 : thick;
            put(i / 6.0, y), put((i + thick) / 6.0, y);
        }
        put(1.3, 0), put(0, 0);
        std::reverse(out.begin(), out.end());
        break;
    case 2: // a spiral
        for (int i = 0; i <= 3 * n; ++i) {
            const double t = turns * 2 * pi * i / (3 * n);
            put((0.1 + t / 20) * std::cos(t), (0.1 + t / 20) * std::sin(t));
        }
        for (int i = 3 * n; i >= 0; --i) {
            const double t = turns * 2 * pi * i / (3 * n);
            put((0.1 + t / 20 + thick / 4) * std::cos(t), (0.1 + t / 20 + thick / 4) * std::sin(t));
        }
        break;
    case 3: // a star
        for (int i = 0; i < 2 * n; ++i) {
            const double r = i % 2 ? 1 : dice.real(0.2, 0.9);
            put(r * std::cos(pi * i / n), r * std::sin(pi * i / n));
        }
        break;
    default:
        for (int i = 0; i < n; ++i)
            put(dice.real(0.8, 1) * std::cos(2 * pi * i / n), dice.real(0.3, 1) * std::sin(2 * pi * i / n));
    }
    const Region whole = region_of({Polyline{out, true}}, FillRule::nonzero);
    if (dice.coin()) return whole;
    return subtracted(whole, region_of(Shape{{ellipse(at, size * dice.real(0.05, 0.9), size * 0.3)}}));
}

double differ(const Region& a, const Region& b) {
    return in_square_mm(area(subtracted(a, b))) + in_square_mm(area(subtracted(b, a)));
}

} // namespace

TEST_CASE(
    "many areas at once are what they are one by one: united, grown, shrunk, with round and sharp corners") {
    Random dice("many at once");
    for (int round = 0; round < 12; ++round) {
        std::vector<Region> each;
        std::size_t points = 0;
        for (double x = 0; points < 4200; x += 100) { // wherever they grow to, clear of one another
            each.push_back(small_thing(dice, {std::fmod(x, 2000) - 1000, std::floor(x / 2000) * 100 - 500}));
            points += point_count(each.back());
        }
        Region all;
        for (const Region& one : each)
            all.rings.insert(all.rings.end(), one.rings.begin(), one.rings.end());
        const double by = std::pow(10, dice.real(-1.5, 0.4)) * (dice.coin() ? 1 : -1);
        const OffsetOptions options{dice.coin() ? Corner::round : Corner::mitre, dice.real(1, 12), mm(0.005)};
        INFO("seed " << dice.seed() << " round " << round << " by " << by << " corner "
                     << static_cast<int>(options.corner) << " limit " << options.mitre_limit);
        const Region at_once = offset(all, mm(by), options);
        Region alone;
        for (const Region& one : each) {
            const Region moved = offset(one, mm(by), options);
            alone.rings.insert(alone.rings.end(), moved.rings.begin(), moved.rings.end());
        }
        // Chords of round corners are laid from one end here and from the other there: an arc that is
        // flattened to 0.005 mm differs in its last one only.
        const double strip = options.corner == Corner::round ? 0.001 : 1e-5;
        CHECK(differ(at_once, alone) <= strip * in_mm(perimeter(alone)) + 0.0005);
        // And nowhere is anything wider that is not in both, a piece or a hole.
        CHECK_FALSE(is_wider_than(subtracted(at_once, alone), mm(0.01)));
        CHECK_FALSE(is_wider_than(subtracted(alone, at_once), mm(0.01)));
        // Crumbs where something just vanishes, or necks part.
        CHECK(std::abs(std::ssize(at_once.rings) - std::ssize(alone.rings)) <= 4);
    }
}

TEST_CASE("areas whose edges lie on one another and meet in corners are united as squares are counted") {
    Random dice("on a lattice");
    for (int round = 0; round < 8; ++round) {
        INFO("seed " << dice.seed() << " round " << round);
        constexpr int side = 60;
        std::vector<char> taken(side * side, 0);
        std::vector<Region> all;
        for (int n = 0; n < 1200; ++n) {
            const int x = dice.whole(0, side - 4), y = dice.whole(0, side - 4), w = dice.whole(1, 4),
                      h = dice.whole(1, 3);
            all.push_back(region_of(
                {Polyline{{Point(x, y), Point(x + w, y), Point(x + w, y + h), Point(x, y + h)}, true}},
                FillRule::nonzero));
            for (int v = y; v < y + h; ++v)
                for (int u = x; u < x + w; ++u)
                    taken[static_cast<std::size_t>(v * side + u)] = 1;
        }
        const Region whole = united(all);
        CHECK(in_square_mm(area(whole)) ==
              Approx(static_cast<double>(std::count(taken.begin(), taken.end(), 1))).epsilon(1e-12));
        for (int v = 0; v < side; ++v)
            for (int u = 0; u < side; ++u)
                CHECK(contains(whole, {u + 0.5, v + 0.5}) ==
                      (taken[static_cast<std::size_t>(v * side + u)] != 0));
        // Simple rings, whose corners are the lattice's.
        for (const Ring& ring : whole.rings) {
            std::vector<std::pair<double, double>> seen;
            for (const Point p : ring) {
                CHECK(std::abs(p.x - std::round(p.x)) + std::abs(p.y - std::round(p.y)) < 1e-9);
                seen.emplace_back(p.x, p.y);
            }
            std::sort(seen.begin(), seen.end());
            CHECK(std::adjacent_find(seen.begin(), seen.end()) == seen.end());
        }
    }
}
