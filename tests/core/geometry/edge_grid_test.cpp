// The grid of edges against plain looking at all of them.
#include "core/geometry/edge_grid.h"

#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

std::vector<GridEdge> some_edges(Random& dice) {
    std::vector<GridEdge> out;
    double wide = dice.real(0, 1) < 0.2 ? 0 : dice.real(1, 200), high = dice.real(1, 200);
    if (dice.coin()) {
        // Edges along the sides of cells: four in a square are a grid of two by two, and so on.
        const int n = dice.whole(1, 12);
        const double side = dice.coin() ? dice.whole(1, 20) : dice.real(1, 20);
        const Point at{dice.real(-50, 50), dice.real(-50, 50)};
        const auto place = [&] { return at + Point{side * dice.whole(0, n), side * dice.whole(0, n)}; };
        const auto add = [&](Point a, Point b) {
            out.push_back({a, b, static_cast<std::size_t>(dice.whole(0, 5))});
        };
        add(at, at + Point{side * n, side * n});
        while (std::ssize(out) < n * n) {
            const Point a = place(), b = place();
            add(a, dice.coin() ? Point{b.x, a.y} : Point{a.x, b.y});
        }
        return out;
    }
    for (int i = dice.whole(1, 300); i > 0; --i) {
        const Point a{dice.real(0, wide), dice.real(0, high)};
        const bool far = dice.whole(0, 9) == 0;
        const Point b = far ? Point{dice.real(0, wide), dice.real(0, high)}
                            : a + Point{wide > 0 ? dice.real(-2, 2) : 0.0, dice.real(-2, 2)};
        out.push_back({a, b, static_cast<std::size_t>(dice.whole(0, 5))});
    }
    return out;
}

} // namespace

TEST_CASE("a grid tells edges nearest first, as plain looking does") {
    Random dice("nearest edges");
    for (int round = 0; round < 1000; ++round) {
        INFO("seed " << dice.seed() << " round " << round);
        const std::vector<GridEdge> edges = some_edges(dice);
        const EdgeGrid grid(edges);
        // Also right above and beside ends of edges.
        const Point end = edges.front().b;
        const Point p{dice.coin() ? dice.real(-50, 250) : end.x, dice.coin() ? dice.real(-50, 250) : end.y};
        const double within = dice.whole(0, 2) == 0 ? 1e300 : dice.real(0, 100);
        const auto wanted = [](const GridEdge& e) { return e.of != 3; };
        std::vector<double> plain, told;
        for (const GridEdge& e : edges)
            if (const double off = distance(p, e.nearest_to(p)); wanted(e) && off <= within)
                plain.push_back(off);
        std::sort(plain.begin(), plain.end());
        grid.each_nearest(p, within, wanted, [&](const GridEdge& e, Point on, double off) {
            CHECK(on == e.nearest_to(p));
            told.push_back(off);
            return false;
        });
        REQUIRE(told.size() == plain.size());
        for (std::size_t i = 0; i < told.size(); ++i)
            CHECK(told[i] == Approx(plain[i]).margin(1e-9));
    }
    // It ends where nothing is wanted, and where nothing is enough, however far it may look.
    const EdgeGrid few({{{0, 0}, {9, 0}, 0}, {{9, 0}, {4, 7}, 0}, {{4, 7}, {0, 0}, 0}});
    constexpr double anywhere = std::numeric_limits<double>::infinity();
    int met = 0;
    few.each_nearest(
        {4, 2}, anywhere, [](const GridEdge&) { return true; },
        [&](const GridEdge&, Point, double) { return ++met > 9; });
    CHECK(met == 3);
    few.each_nearest(
        {4, 2}, anywhere, [](const GridEdge&) { return false; },
        [&](const GridEdge&, Point, double) { return ++met > 9; });
    CHECK(met == 3);
    const EdgeGrid none;
    none.each_nearest(
        {0, 0}, 1e9, [](const GridEdge&) { return true; },
        [](const GridEdge&, Point, double) -> bool {
            FAIL("there is none");
            return true;
        });
}

TEST_CASE("a grid tells every edge that crosses a segment or meets a box") {
    Random dice("edges along");
    for (int round = 0; round < 200; ++round) {
        INFO("seed " << dice.seed() << " round " << round);
        std::vector<GridEdge> edges = some_edges(dice);
        for (std::size_t i = 0; i < edges.size(); ++i)
            edges[i].of = i;
        const EdgeGrid grid(edges);
        const Point a{dice.real(-50, 250), dice.real(-50, 250)}, b{dice.real(-50, 250), dice.real(-50, 250)};
        Box box;
        box.add(a), box.add(b);
        std::vector<char> along(edges.size()), near(edges.size());
        grid.each_along(a, b, [&](const GridEdge& e) { along[e.of] = 1; });
        grid.each_near(box, [&](const GridEdge& e) { near[e.of] = 1; });
        const auto side = [](Point p, Point q, Point r) { return cross(q - p, r - p) > 0; };
        for (const GridEdge& e : edges) {
            if (side(a, b, e.a) != side(a, b, e.b) && side(e.a, e.b, a) != side(e.a, e.b, b))
                CHECK(along[e.of]);
            if (box.contains(e.a) || box.contains(e.b) || box.contains((e.a + e.b) * 0.5)) CHECK(near[e.of]);
        }
    }
}
