// Which rings belong together, and how often the others wind around them.
#include "core/geometry/clusters.h"

#include <numbers>
#include <set>

#include "core/geometry/region.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

std::vector<Point> box_ring(double x, double y, double size) {
    return {{x, y}, {x + size, y}, {x + size, y + size}, {x, y + size}};
}

std::vector<Cluster> clusters_of(const std::vector<std::vector<Point>>& rings, double reach = 0.01,
                                 Known known = Known::nothing, const std::vector<int>& kinds = {}) {
    std::vector<ClusterRing> list;
    for (std::size_t i = 0; i < rings.size(); ++i)
        list.push_back({&rings[i], true, kinds.empty() ? 0 : kinds[i]});
    return clusters(list, reach, known);
}

/// Turns of a ring around a point, from the angles it sweeps.
int turns(const std::vector<Point>& ring, Point p) {
    double sum = 0;
    for (std::size_t i = 0; i < ring.size(); ++i) {
        const Point a = ring[i] - p, b = ring[(i + 1) % ring.size()] - p;
        sum += std::atan2(cross(a, b), dot(a, b));
    }
    return static_cast<int>(std::lround(sum / (2 * std::numbers::pi)));
}

} // namespace

TEST_CASE("rings apart are clusters of their own, those that come near each other are one") {
    CHECK(clusters_of({box_ring(0, 0, 10), box_ring(20, 0, 10)}).size() == 2);
    CHECK(clusters_of({box_ring(0, 0, 10), box_ring(10.005, 0, 10)}).size() == 1); // within reach
    CHECK(clusters_of({box_ring(0, 0, 10), box_ring(10.05, 0, 10)}).size() == 2);
    CHECK(clusters_of({box_ring(0, 0, 10), box_ring(10.05, 0, 10)}, 0.1).size() == 1);
    CHECK(clusters_of({}).empty());
}

TEST_CASE("what lies inside, away from the edges, only knows what winds around it") {
    std::vector<Point> hole = box_ring(5, 5, 30);
    std::reverse(hole.begin(), hole.end());
    const auto found = clusters_of({box_ring(0, 0, 40), hole, box_ring(10, 10, 5), box_ring(50, 0, 5)});
    REQUIRE(found.size() == 4);
    CHECK(found[0].around[0] == 0);
    CHECK(found[1].around[0] == 1);
    CHECK(found[2].around[0] == 0); // in the hole: once forwards, once backwards
    CHECK(found[3].around[0] == 0);
    // A ring of the other kind is counted for itself.
    const auto two = clusters_of({box_ring(0, 0, 40), box_ring(10, 10, 5)}, 0.01, Known::nothing, {1, 0});
    CHECK(two[1].around[0] == 0);
    CHECK(two[1].around[1] == 1);
    // Near the edge it belongs to it.
    CHECK(clusters_of({box_ring(0, 0, 40), box_ring(0.005, 10, 5)}).size() == 1);
}

TEST_CASE("clean rings of one kind are not held together, those of different kinds are") {
    const std::vector<std::vector<Point>> rings = {box_ring(0, 0, 10), box_ring(10, 10, 10),
                                                   box_ring(9, 9, 2)};
    CHECK(clusters_of(rings, 0.01, Known::clean).size() == 3);
    const auto found = clusters_of(rings, 0.01, Known::clean, {0, 0, 1});
    REQUIRE(found.size() == 1);
    CHECK(found[0].mixed);
}

TEST_CASE("whatever is outside a cluster winds equally around all of it") {
    Random random("clusters");
    for (int round = 0; round < 60; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        // Two clean areas, as booleans have them.
        std::vector<std::vector<Point>> rings;
        std::vector<int> kinds;
        for (const int kind : {0, 1}) {
            Polylines raw;
            for (int n = random.whole(2, 30); n > 0; --n)
                raw.push_back(ring(random_ring(random, random.whole(3, 16), 1, random.real(2, 25),
                                               {random.real(-40, 40), random.real(-40, 40)})));
            for (const Ring& r : region_of(raw, FillRule::evenodd).rings)
                rings.push_back(r), kinds.push_back(kind);
        }
        std::size_t held = 0;
        for (const Cluster& cluster : clusters_of(rings, 2e-5, Known::clean, kinds)) {
            held += cluster.rings.size();
            const std::set<std::uint32_t> in(cluster.rings.begin(), cluster.rings.end());
            int around[2] = {0, 0};
            for (std::uint32_t other = 0; other < rings.size(); ++other) {
                if (in.contains(other)) continue;
                // A single ring of a clean area does not ask about its own kind.
                if (!cluster.mixed && kinds[other] == kinds[cluster.rings.front()]) continue;
                std::set<int> seen;
                for (const std::uint32_t i : cluster.rings)
                    seen.insert(turns(rings[other], mix(rings[i][0], rings[i][1], 0.5)));
                CHECK(seen.size() == 1);
                around[kinds[other]] += *seen.begin();
            }
            CHECK(around[0] == cluster.around[0]);
            CHECK(around[1] == cluster.around[1]);
        }
        CHECK(held == rings.size());
    }
}

TEST_CASE("at the rim of the grid, where no frame fits, areas are worked all the same") {
    const double rim = region_limit_mm;
    const auto square_at = [](double x, double size) {
        return region_of({ring({{x, 0}, {x + size, 0}, {x + size, size}, {x, size}})}, FillRule::nonzero);
    };
    const Region a = square_at(rim - 20, 20), b = square_at(rim - 15, 5), c = square_at(0, 5);
    CHECK(in_square_mm(area(united({a, b, c}))) == Approx(425));
    CHECK(in_square_mm(area(subtracted(a, b))) == Approx(375));
    CHECK(in_square_mm(area(intersected(united(a, c), united(b, c)))) == Approx(50));
}

TEST_CASE("pairs of rings in one another are counted as looking at all of them does, up to a limit") {
    Random random("nested pairs");
    INFO("seed " << random.seed());
    Polylines lines;
    for (int i = 0; i < 80; ++i)
        lines.push_back(
            {random_ring(random, 5, 1, random.real(2, 40), {random.real(0, 60), random.real(0, 60)}), true});
    std::vector<ClusterRing> rings;
    std::size_t pairs = 0;
    for (const Polyline& line : lines) {
        rings.push_back({&line.points, true});
        for (const Polyline& other : lines)
            pairs += &line != &other && bounds(line).contains(bounds(other));
    }
    REQUIRE(pairs > 20);
    CHECK(nested_pairs(rings, 10'000) == pairs);
    CHECK(nested_pairs(rings, 10) == 11);
}
