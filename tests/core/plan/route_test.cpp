#include "core/plan/route.h"

#include <numeric>

#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

/// The shortest travel by trying every order and every direction of open lines.
double best_travel(const Polylines& lines, Point rest) {
    std::vector<std::size_t> order(lines.size());
    std::iota(order.begin(), order.end(), 0U);
    double best = 1e300;
    do
        for (unsigned flips = 0; flips < 1U << lines.size(); ++flips) {
            Point at = rest;
            double total = 0;
            for (const std::size_t i : order) {
                const bool flip = flips >> i & 1U;
                const Point a = lines[i].points.front(), b = lines[i].points.back();
                total += distance(at, flip ? b : a);
                at = flip ? a : b;
            }
            best = std::min(best, total + distance(at, rest));
        }
    while (std::next_permutation(order.begin(), order.end()));
    return best;
}

/// Each stroke is one of the lines: the same points, perhaps backwards or begun elsewhere.
bool same_lines(const Polylines& strokes, Polylines lines) {
    for (const Polyline& s : strokes) {
        const auto it = std::find_if(lines.begin(), lines.end(), [&](const Polyline& l) {
            if (l.closed != s.closed || l.points.size() != s.points.size()) return false;
            auto a = l.points, b = s.points;
            const auto less = [](Point p, Point q) { return p.x != q.x ? p.x < q.x : p.y < q.y; };
            std::sort(a.begin(), a.end(), less);
            std::sort(b.begin(), b.end(), less);
            return a == b && in_mm(length(l)) == Approx(in_mm(length(s)));
        });
        if (it == lines.end()) return false;
        lines.erase(it);
    }
    return lines.empty();
}

/// The lines as the route runs them.
Polylines strokes(const RouteResult& route, const Polylines& lines) {
    Polylines out;
    for (const RoutedLine& line : route.order)
        out.push_back(run(lines[line.line], line));
    return out;
}

} // namespace

TEST_CASE("small routes are as short as the shortest of all") {
    Random random("routes");
    for (int round = 0; round < 40; ++round) {
        Polylines lines;
        for (int i = random.whole(1, 5); i > 0; --i)
            lines.push_back(line(
                {{random.real(0, 100), random.real(0, 100)}, {random.real(0, 100), random.real(0, 100)}}));
        const RouteResult r = route(lines, {{0, 0}, false});
        INFO("seed " << random.seed() << " round " << round);
        CHECK(same_lines(strokes(r, lines), lines));
        CHECK(in_mm(r.travel) == Approx(in_mm(travel_of(strokes(r, lines), {0, 0}))));
        const double best = best_travel(lines, {0, 0});
        CHECK(in_mm(r.travel) >= best - 1e-9);
        CHECK(in_mm(r.travel) == Approx(best)); // up to eight lines are solved exactly
    }
}

TEST_CASE("a chain of lines laid end to end is run end to end") {
    Polylines lines;
    for (int i = 0; i < 50; ++i)
        lines.push_back(line({{i * 2.0, 5}, {i * 2.0 + 2, 5}}));
    std::shuffle(lines.begin(), lines.end(), std::mt19937(4));
    const RouteResult r = route(lines, {{0, 5}, false});
    CHECK(in_mm(r.travel) == Approx(100)); // only the way back
}

TEST_CASE("closed lines begin where it suits") {
    const Polylines lines{ring({{50, 50}, {60, 50}, {60, 60}, {50, 60}})};
    const Polylines as_run = strokes(route(lines, {{100, 55}, false}), lines);
    REQUIRE(as_run.size() == 1);
    CHECK(as_run[0].points[0].x == 60);
    CHECK(as_run[0].closed);
}

TEST_CASE("what lies inside comes before its outline, at every depth") {
    Random random("nesting");
    for (int round = 0; round < 8; ++round) {
        Polylines lines;
        for (int k = 0; k < 6; ++k) {
            const Point c{random.real(0, 300), random.real(0, 300)};
            for (int depth = random.whole(1, 4); depth > 0; --depth)
                lines.push_back(ring(regular(random.whole(3, 9), 6.0 * depth, c)));
            lines.push_back(line({{c.x - 1, c.y}, {c.x + 1, c.y}}));
        }
        std::shuffle(lines.begin(), lines.end(), random.engine());
        const RouteResult r = route(lines, {{0, 0}, true});
        INFO("seed " << random.seed());
        const Polylines as_run = strokes(r, lines);
        REQUIRE(as_run.size() == lines.size());
        CHECK(same_lines(as_run, lines));
        CHECK(r.outlines_waiting > 0);
        for (std::size_t i = 0; i < as_run.size(); ++i)
            for (std::size_t j = i + 1; j < as_run.size();
                 ++j) { // nothing that runs later lies inside what ran before
                const Polyline &early = as_run[i], &late = as_run[j];
                if (!early.closed) continue;
                const bool inside = std::all_of(late.points.begin(), late.points.end(),
                                                [&](Point p) { return ring_contains(early.points, p); });
                CHECK_FALSE(inside);
            }
    }
}

TEST_CASE("many lines: far better than as drawn, the same every time, none lost") {
    Random random("many lines");
    Polylines lines;
    for (int i = 0; i < 4000; ++i) {
        const Point p{random.real(0, 300), random.real(0, 300)};
        lines.push_back(line({p, {p.x + random.real(-3, 3), p.y + random.real(-3, 3)}}));
    }
    const RouteResult a = route(lines, {{0, 0}, false}), b = route(lines, {{0, 0}, false});
    INFO("seed " << random.seed());
    CHECK(a.order == b.order);
    CHECK(a.order.size() == lines.size());
    CHECK(in_mm(a.travel) < in_mm(travel_of(lines, {0, 0})) / 20);
    // A random uniform tour has about 0.7124 sqrt(n A) (Beardwood, Halton and Hammersley 1959; constant of
    // Johnson and McGeoch 1996); lines that are free to be turned can only be shorter.
    CHECK(in_mm(a.travel) < 0.7124 * std::sqrt(4000.0 * 300 * 300) * 1.10);
}

TEST_CASE("closed lines begin where all of them together travel least") {
    Random random("starts");
    for (int round = 0; round < 30; ++round) {
        // In a row from the rest position: tried with all choices of where they begin.
        Polylines rings;
        const int n = random.whole(1, 4);
        for (int i = 0; i < n; ++i)
            rings.push_back(
                ring(regular(random.whole(3, 6), random.real(2, 9), {30.0 * (i + 1), random.real(-20, 20)})));
        INFO("seed " << random.seed() << " round " << round);
        double best = 1e300;
        std::vector<std::size_t> starts(rings.size(), 0), order(rings.size());
        std::iota(order.begin(), order.end(), 0U);
        do {
            std::fill(starts.begin(), starts.end(), 0U);
            for (bool more = true; more;) {
                Point at;
                double way = 0;
                for (const std::size_t i : order)
                    way += distance(at, rings[i].points[starts[i]]), at = rings[i].points[starts[i]];
                best = std::min(best, way + distance(at, {}));
                std::size_t k = 0;
                while (k < starts.size() && ++starts[k] == rings[k].points.size())
                    starts[k++] = 0;
                more = k < starts.size();
            }
        } while (std::next_permutation(order.begin(), order.end()));
        const double found = in_mm(route(rings, {{0, 0}, false}).travel);
        CHECK(found >= best - 1e-9);
        CHECK(found <= best * 1.02); // their order is chosen by their middles first
    }
}

TEST_CASE("looking longer never travels more") {
    Random random("effort");
    for (int round = 0; round < 4; ++round) {
        Polylines lines;
        for (int i = 0; i < 400; ++i) {
            const Point p{random.real(0, 300), random.real(0, 300)};
            if (i % 2 == round % 2)
                lines.push_back(ring(regular(random.whole(3, 9), random.real(0.5, 8), p)));
            else
                lines.push_back(line({p, {p.x + random.real(-30, 30), p.y}}));
        }
        INFO("seed " << random.seed() << " round " << round);
        const auto first = route(lines, {{0, 0}, round > 1, Effort::first}),
                   best = route(lines, {{0, 0}, round > 1, Effort::best});
        CHECK(in_mm(best.travel) <= in_mm(first.travel));
        CHECK(best.order.size() == lines.size());
        CHECK(in_mm(best.travel) == Approx(in_mm(travel_of(strokes(best, lines), {0, 0}))));
    }
}

TEST_CASE("things in clusters, and fills side by side, are run cluster by cluster") {
    // The nearest to each are all of its own cluster: how one leads to the next has to be found all the same.
    Random random("clusters");
    int again = 0; // clusters that are entered once more: in 2 of 240 rounds there was one
    for (int round = 0; round < 6; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        // 100 mm apart and 6 mm wide: by no way is any cluster entered more often than once.
        const int columns = random.whole(3, 6), rows = 2 * random.whole(1, 3), each = random.whole(10, 50);
        Polylines lines;
        for (int c = 0; c < columns * rows; ++c)
            for (int k = 0; k < each; ++k) {
                const Point p{c % columns * 100 + random.real(-3, 3), c / columns * 100 + random.real(-3, 3)};
                lines.push_back(round % 2 ? line({p, {p.x + random.real(-1, 1), p.y + 1}})
                                          : ring(regular(random.whole(3, 9), random.real(0.2, 1), p)));
            }
        std::shuffle(lines.begin(), lines.end(),
                     std::mt19937(static_cast<unsigned>(random.whole(0, 1 << 30))));
        const Polylines clusters = strokes(route(lines, {{-50, -50}}), lines);
        int changes = 0;
        for (std::size_t i = 1; i < clusters.size(); ++i) {
            const auto end = [](const Polyline& l) { return l.closed ? l.points.front() : l.points.back(); };
            changes += distance(end(clusters[i - 1]), clusters[i].points.front()) > 50;
        }
        CHECK(changes >= columns * rows - 1);
        again += changes - (columns * rows - 1);

        // Strips of hatching beside down the first, up the second and so on, and home. Of 180 the worst took
        // 18 % more: where all links are alike the search is caught early. This only holds what there is.
        const double spacing = random.real(0.3, 1), gap = random.real(3, 6);
        const int strips = random.whole(3, 8), deep = random.whole(30, 120);
        Polylines hatch;
        for (int s = 0; s < strips; ++s)
            for (int k = 0; k < deep; ++k)
                hatch.push_back(line({{s * (25 + gap), k * spacing}, {s * (25 + gap) + 25, k * spacing}}));
        std::shuffle(hatch.begin(), hatch.end(),
                     std::mt19937(static_cast<unsigned>(random.whole(0, 1 << 30))));
        double by_strips = 0;
        Point at;
        for (int s = 0; s < strips; ++s)
            for (int k = 0; k < deep; ++k) {
                const double y = (s % 2 ? deep - 1 - k : k) * spacing;
                const Point left{s * (25 + gap), y}, right{left.x + 25, y};
                const bool from_left = distance(at, left) <= distance(at, right);
                by_strips += distance(at, from_left ? left : right);
                at = from_left ? right : left;
            }
        by_strips += distance(at, {});
        CHECK(in_mm(route(hatch, {}).travel) <= 1.25 * by_strips);
    }
    INFO("seed " << random.seed());
    CHECK(again <= 2);
}

TEST_CASE("of rings in rings each waits for all within it, thousands deep") {
    // Gone through anew at each depth they would take minutes; the runner's limit is the check.
    Polylines lines;
    for (int i = 1; i <= 6000; ++i) {
        lines.push_back(ring(regular(12, 0.3 * i, {2000, 2000})));
        lines.push_back(line({{2000 + 0.3 * i - 0.15, 2000}, {2000 + 0.3 * i - 0.14, 2000}}));
    }
    const RouteResult r = route(lines, {{0, 0}, true});
    REQUIRE(r.order.size() == lines.size());
    std::vector<std::size_t> place(lines.size());
    for (std::size_t i = 0; i < r.order.size(); ++i)
        place[r.order[i].line] = i;
    for (std::size_t i = 0; i + 2 < lines.size(); i += 2) {
        CHECK(place[i] < place[i + 2]);     // the smaller ring
        CHECK(place[i + 3] < place[i + 2]); // and what lies between them
    }
}

TEST_CASE("travel of lines that are run again and again is not that of going home in between") {
    // A square of 10 whose corner is 80 from the rest position: there, and back when it has been run four
    // times.
    const Polylines square{ring({{80, 0}, {90, 0}, {90, 10}, {80, 10}})};
    CHECK(in_mm(travel_of(square, {0, 0}, 4)) == Approx(160));
    const Polylines pair{line({{10, 0}, {20, 0}}), line({{20, 5}, {10, 5}})};
    CHECK(in_mm(travel_of(pair, {0, 0}, 1)) == Approx(10 + 5 + std::hypot(10, 5)));
    CHECK(in_mm(travel_of(pair, {0, 0}, 3)) == Approx(10 + 3 * 5 + 2 * 5 + std::hypot(10, 5)));
    CHECK(in_mm(travel_of({}, {0, 0}, 3)) == 0);
}

TEST_CASE("dots, single lines, nothing, and a cancelled search") {
    CHECK(route({}, {}).order.empty());
    CHECK(route({line({{3, 4}})}, {{0, 0}, false}).order.size() == 1);
    CHECK(in_mm(route({line({{3, 4}})}, {{0, 0}, false}).travel) == Approx(10));
    Progress cancelled;
    cancelled.cancel();
    Polylines lines;
    for (int i = 0; i < 300; ++i)
        lines.push_back(line({{i * 7 % 100 * 1.0, i * 13 % 100 * 1.0}}));
    CHECK(route(lines, {{0, 0}, false}, cancelled).order.size() == 300); // the best so far, complete
}

TEST_CASE("small pieces come before large ones, within an outline and beside it, and at little more travel") {
    Random random("small first");
    double shortest = 0, ordered = 0;
    for (int round = 0; round < 30; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        Polylines lines;
        std::vector<int> within; // the outline that each lies in
        const auto add = [&](Point at, double size, int outer) {
            lines.push_back(ring(regular(random.whole(3, 9), size, at)));
            within.push_back(outer);
        };
        for (int x = 0; x < 7; ++x)
            for (int y = 0; y < 7; ++y) {
                const Point at{40.0 * x + 20, 40.0 * y + 20};
                const int outer = static_cast<int>(lines.size());
                add(at, random.real(1, 18), -1);
                // What lies in the inner circle of a triangle of that radius lies in any of them.
                const double room = std::sqrt(std::abs(signed_area_mm2(lines.back().points))) / 4;
                if (random.whole(0, 2) == 0)
                    for (const double side : {-1.0, 1.0})
                        add(at + Point{side * room / 2, 0}, room * random.real(0.05, 0.4), outer);
            }
        lines.push_back(line({{0, 0}, {5, 3}}));
        within.push_back(-1);
        RouteOptions options{{0, 0}, true};
        shortest += in_mm(route(lines, options).travel);
        options.small_first = true;
        const RouteResult r = route(lines, options);
        ordered += in_mm(r.travel);
        CHECK(same_lines(strokes(r, lines), lines));
        CHECK(in_mm(r.travel) == Approx(in_mm(travel_of(strokes(r, lines), {0, 0}))));
        const auto size = [&](std::uint32_t l) {
            return lines[l].closed ? std::abs(signed_area_mm2(lines[l].points)) : 0;
        };
        std::size_t wrong = 0, late = 0;
        for (std::size_t a = 0; a < r.order.size(); ++a)
            for (std::size_t b = a + 1; b < r.order.size(); ++b) {
                const std::uint32_t first = r.order[a].line, then = r.order[b].line;
                wrong += within[first] == within[then] && size(first) > 4 * size(then) * (1 + 1e-9);
                late += within[then] == static_cast<int>(first);
            }
        CHECK(wrong == 0);
        CHECK(late == 0);
    }
    // Fifty pieces of sizes from 1 to 300 fall into some five tours; each is no shorter than the others.
    CHECK(ordered > shortest);
    CHECK(ordered < 4 * shortest);
}
