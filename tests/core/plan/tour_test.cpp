#include "core/plan/tour.h"

#include <set>

#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// Points, lines short and long, in heaps, on a grid where many ways are alike, and all in one place.
std::vector<TourItem> some_items(Random& random, int kind, int n) {
    std::vector<TourItem> out;
    const Point heap{random.real(0, 300), random.real(0, 300)};
    for (int i = 0; i < n; ++i) {
        Point p{random.real(0, 300), random.real(0, 300)};
        if (kind == 2) p = heap + (p - heap) * (i % 3 ? 0.02 : 1);
        if (kind == 3) p = {std::round(p.x / 20) * 20, std::round(p.y / 20) * 20};
        if (kind == 4) p = heap;
        const double reach = kind == 1 ? 0.01 : kind == 5 ? 40 : 0;
        out.push_back({p, {p.x + random.real(-1, 1) * reach, p.y + random.real(-1, 1) * reach}});
    }
    return out;
}

/// As it says of itself, worked out from its order and directions alone.
double way_of(const Tour& tour, Point rest) {
    double sum = 0;
    Point at = rest;
    for (const std::uint32_t item : tour.order())
        sum += distance(at, tour.entry(item)), at = tour.exit(item);
    return sum + distance(at, rest);
}

} // namespace

TEST_CASE("a tour visits everything once, at the cost it tells, however it is improved") {
    Random random("tours");
    for (int round = 0; round < 60; ++round) {
        const int kind = round % 6, n = round < 30 ? random.whole(1, 40) : random.whole(40, 600);
        auto items = some_items(random, kind, n);
        items[0].b = items[0].a;
        const Point rest = items[0].a;
        INFO("seed " << random.seed() << " round " << round << " kind " << kind << ", " << n << " items");
        Tour tour(items);
        double before = tour.cost();
        for (const std::size_t shakes : {0, 50, 500}) {
            tour.improve(shakes, no_progress());
            const auto order = tour.order();
            CHECK(std::set<std::uint32_t>(order.begin(), order.end()).size() == items.size() - 1);
            for (const std::uint32_t item : order) {
                const bool ahead = tour.entry(item) == items[item].a && tour.exit(item) == items[item].b,
                           back = tour.entry(item) == items[item].b && tour.exit(item) == items[item].a;
                CHECK((ahead || back));
            }
            // Roundings of a few hundred sums of 1e5 and less.
            CHECK(tour.cost() == Approx(way_of(tour, rest)).margin(1e-8));
            CHECK(tour.cost() <= before + 1e-8);
            before = tour.cost();
        }
    }
}

TEST_CASE("lines that are hardly longer than points are run as well as points") {
    // Lists of neighbours that fill up with the two ends of the same lines left them 2 to 4 % behind.
    Random random("short lines");
    double points = 0, lines = 0;
    for (int round = 0; round < 4; ++round) {
        auto items = some_items(random, 0, 1200);
        Tour of_points(items);
        for (TourItem& item : items)
            item.b = {item.a.x + random.real(-0.005, 0.005), item.a.y + random.real(-0.005, 0.005)};
        items[0].b = items[0].a;
        Tour of_lines(items);
        of_points.improve(0, no_progress()), of_lines.improve(0, no_progress());
        points += of_points.cost(), lines += of_lines.cost();
    }
    INFO("seed " << random.seed() << ": " << lines / points);
    // Local optima of this kind differ by 0.5 % from one another at 1,200 items; the mean of four by less.
    CHECK(lines < points * 1.01);
}

TEST_CASE("random tours of thousands of points are as long as the best known ones, nearly") {
    // 0.7313 sqrt(n A) at 1,000 and 0.7168 sqrt(n A) at 10,000 points: the best tours on the average, Johnson
    // and McGeoch 1996. The length of one tour differs by about 0.4 sqrt(A) (from memory; 1.8 % at 1,000 and
    // 0.6 % at 10,000 points): three times that is allowed on top of what is aimed at, 3 and 5 %.
    Random random("random tours");
    for (const auto& [n, best, over] : {std::tuple{1000, 0.7313, 0.03}, std::tuple{10000, 0.7168, 0.05}}) {
        Tour tour(some_items(random, 0, n));
        tour.improve(1500, no_progress());
        const double root = std::sqrt(n * 300.0 * 300);
        INFO("seed " << random.seed() << ", " << n << ": " << tour.cost() / root);
        CHECK(tour.cost() < best * root * (1 + over) + 1.2 * 300);
        CHECK(tour.cost() > best * root - 1.2 * 300);
    }
}
