// Ends that nearly meet.
#include "core/geometry/ends.h"

#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("ends are joined to chains and rings, nearest first, each end once") {
    // Four sides of a square with gaps of 0.1 mm at three corners and none at the fourth.
    const Polylines sides = {line({{0.1, 0}, {10, 0}}), line({{10, 0.1}, {10, 9.9}}),
                             line({{0, 10}, {9.9, 10}}), line({{0, 10}, {0, 0}})};
    const JoinedEnds square = joined_ends(sides, mm(0.2));
    REQUIRE(square.lines.size() == 1);
    CHECK(square.joined == 4);
    CHECK(square.lines[0].closed);
    CHECK(in_mm(length(square.lines)) == Approx(40).margin(0.3));
    CHECK(std::abs(signed_area_mm2(square.lines[0].points)) == Approx(100).margin(1));
    CHECK(joined_ends(sides, mm(0.05)).joined == 1); // only the corner without a gap
    // A line that comes back to its own beginning closes; one that is shorter than the reach does not.
    const JoinedEnds loop = joined_ends({line({{0, 0}, {10, 0}, {10, 10}, {0, 0.5}})}, mm(1));
    REQUIRE(loop.lines.size() == 1);
    CHECK(loop.lines[0].closed);
    CHECK_FALSE(joined_ends({line({{0, 0}, {0.2, 0}, {0.2, 0.2}, {0, 0.2}})}, mm(1)).lines[0].closed);
    // Three ends at one place: the nearest two are joined, the third stays.
    const JoinedEnds star = joined_ends(
        {line({{0, 0}, {10, 0}}), line({{0.05, 0}, {-10, 0}}), line({{0, 0.2}, {0, 10}})}, mm(0.3));
    CHECK(star.joined == 1);
    CHECK(star.lines.size() == 2);
    CHECK(joined_ends({}, mm(1)).lines.empty());
}

TEST_CASE("joined ends keep every line: as long as before, however the pieces lie") {
    Random random("ends");
    for (int round = 0; round < 60; ++round) {
        // A ring cut into pieces, shuffled and turned round at random.
        const Ring points = random_ring(random, 24, 20, 40);
        const int parts = random.whole(2, 8);
        Polylines pieces;
        for (int i = 0; i < parts; ++i) {
            Polyline piece;
            for (int k = 24 * i / parts; k <= 24 * (i + 1) / parts; ++k)
                piece.points.push_back(points[static_cast<std::size_t>(k % 24)]);
            if (random.coin()) std::reverse(piece.points.begin(), piece.points.end());
            pieces.push_back(std::move(piece));
        }
        std::shuffle(pieces.begin(), pieces.end(), random.engine());
        const JoinedEnds whole = joined_ends(pieces, mm(0.01));
        REQUIRE(whole.lines.size() == 1);
        CHECK(whole.lines[0].closed);
        CHECK(in_mm(length(whole.lines)) == Approx(in_mm(length(pieces))));
    }
}
