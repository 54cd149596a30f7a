#include "core/plan/waits.h"

#include <set>

#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

std::set<int> chain_of(const std::vector<int>& waits, std::size_t line) {
    std::set<int> out;
    for (int at = waits[line]; at >= 0; at = waits[static_cast<std::size_t>(at)])
        REQUIRE(out.insert(at).second); // never round in a circle
    return out;
}

} // namespace

TEST_CASE("every closed line around a line waits for it, found by looking at every pair") {
    Random random("waits");
    INFO("seed " << random.seed());
    for (int round = 0; round < 40; ++round) {
        Polylines lines;
        const int count = random.whole(2, 60);
        for (int i = 0; i < count; ++i) {
            const Point at{random.real(0, 60), random.real(0, 60)};
            Polyline line{random_ring(random, random.whole(3, 12), 1, random.real(2, 40), at), true};
            if (random.whole(0, 5) == 0) line.closed = false;
            lines.push_back(line);
            if (random.whole(0, 3) == 0) // one and the same around the other, and smaller ones in it
                for (double by = 0.9; by > 0.3; by -= 0.2) {
                    lines.push_back(line);
                    for (Point& p : lines.back().points)
                        p = at + (p - at) * by;
                }
        }
        const auto waits = waits_for(lines);
        REQUIRE(waits.size() == lines.size());
        for (std::size_t i = 0; i < lines.size(); ++i) {
            const auto chain = chain_of(waits, i);
            const auto& points = lines[i].points;
            const double own = lines[i].closed ? std::abs(signed_area_mm2(points)) : 0;
            for (std::size_t o = 0; o < lines.size(); ++o) {
                const double area = lines[o].closed ? std::abs(signed_area_mm2(lines[o].points)) : 0;
                if (area > own && bounds(lines[o]).contains(bounds(lines[i])) &&
                    ring_contains(lines[o].points, points[points.size() / 2]))
                    CHECK(chain.contains(static_cast<int>(o)));
            }
            if (waits[i] >= 0) {
                const Polyline& next = lines[static_cast<std::size_t>(waits[i])];
                CHECK(next.closed);
                CHECK(std::abs(signed_area_mm2(next.points)) > own);
            }
        }
    }
}

TEST_CASE("thousands of rings in one another wait in their order") {
    Polylines rings;
    for (int i = 1; i <= 5000; ++i) {
        const double r = i * 0.02;
        rings.push_back(ring({{-r, -r}, {r, -r}, {r, r}, {-r, r}}));
    }
    const auto waits = waits_for(rings);
    for (std::size_t i = 0; i + 1 < rings.size(); ++i)
        CHECK(waits[i] == static_cast<int>(i) + 1);
    CHECK(waits.back() == -1);
}
