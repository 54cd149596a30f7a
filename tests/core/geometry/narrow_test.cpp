// Narrow places against shapes whose widths are known (I), and against what a disc reaches, tried point by
// point.
#include "core/geometry/narrow.h"

#include <numbers>

#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;
using Kind = NarrowPlace::Kind;

namespace {

Region box_at(double x, double y, double w, double h) {
    return region_of(Shape{{rectangle({x, y, x + w, y + h})}});
}
std::vector<NarrowPlace> narrow(const Region& region, double width = 0.8, double size = 2) {
    return narrow_places(region, mm(width), mm(size)).places;
}

} // namespace

TEST_CASE("a sliver among pieces that hold, and a crumb, are each told with their width") {
    const Region three = united({box_at(0, 0, 30, 20), box_at(40, 0, 0.2, 8), box_at(50, 0, 1.5, 1)});
    const auto found = narrow(three);
    REQUIRE(found.size() == 2);
    CHECK(found[0].kind == Kind::small_piece); // 0.2 x 8 = 1.6 mm2: 1.26 mm across
    CHECK(in_mm(found[0].width) == Approx(std::sqrt(1.6)).epsilon(1e-3));
    CHECK(found[1].kind == Kind::small_piece); // 1.5 mm2
    CHECK(in_mm(found[1].width) == Approx(std::sqrt(1.5)).epsilon(1e-3));
    const auto strip = narrow(box_at(0, 0, 60, 0.5));
    REQUIRE(strip.size() == 1);
    CHECK(strip[0].kind == Kind::piece);
    CHECK(in_mm(strip[0].width) == Approx(0.5).margin(0.01));
}

TEST_CASE("necks are found wherever they are, as wide as they are") {
    for (const double width : {0.1, 0.3, 0.5, 0.7}) {
        INFO(width);
        const auto found =
            narrow(united({box_at(0, 0, 20, 20), box_at(25, 0, 20, 20), box_at(19, 9, 7, width)}));
        REQUIRE(found.size() == 1);
        CHECK(found[0].kind == Kind::neck);
        CHECK(in_mm(found[0].width) == Approx(width).margin(0.02));
        CHECK(found[0].box.centre().x == Approx(22.5).margin(0.5));
        // The web between a hole and the edge.
        const auto web = narrow(subtracted(box_at(0, 0, 30, 30), box_at(5, width, 20, 20)));
        REQUIRE(web.size() == 1);
        CHECK(web[0].kind == Kind::neck);
        CHECK(in_mm(web[0].width) == Approx(width).margin(0.02));
    }
    CHECK(narrow(united({box_at(0, 0, 20, 20), box_at(25, 0, 20, 20), box_at(19, 9, 7, 0.9)})).empty());
}

TEST_CASE("each copy's narrow places are told where it lies, those of its like elsewhere are its own") {
    const Region one = united({box_at(0, 0, 20, 20), box_at(25, 0, 20, 20), box_at(19, 9, 7, 0.3)});
    std::vector<Region> all{
        united({box_at(0, 600, 20, 20), box_at(25, 600, 20, 20), box_at(19, 613, 7, 0.5)})};
    for (int i = 0; i < 12; ++i)
        all.push_back(transformed(one, Affine::translation({60.0 * i, 31.7 * i})));
    const auto found = narrow(united(all));
    REQUIRE(found.size() == 13);
    int others = 0;
    for (const NarrowPlace& place : found) {
        const bool other = place.box.y0 > 600;
        others += other ? 1 : 0;
        const double i = std::round((place.box.centre().x - 22.5) / 60);
        CHECK(in_mm(place.width) == Approx(other ? 0.5 : 0.3).margin(0.02));
        CHECK(place.box.centre().x == Approx(22.5 + 60 * i).margin(0.1));
        CHECK(place.box.centre().y == Approx(other ? 613.25 : 9.15 + 31.7 * i).margin(0.1));
        CHECK(bounds(place.area).centre().y == Approx(place.box.centre().y));
    }
    CHECK(others == 1);
}

TEST_CASE("limbs are told when they are long for their width, at any turn, corners are not") {
    Random random("limbs");
    for (int round = 0; round < 40; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        const double wide = random.real(1, 7), long_ = wide * random.real(4, 9), turn = random.real(0, 6.28);
        const auto turned = [&](const Region& r) { return transformed(r, Affine::rotation(turn)); };
        const Region limb =
            turned(united(box_at(0, 0, 40, 40), box_at(random.real(6, 27), 39, wide, long_ + 1)));
        const auto found = narrow_limbs(limb, mm(8));
        REQUIRE(found.size() == 1);
        CHECK(found[0].kind == Kind::sliver);
        CHECK(in_mm(found[0].width) <= wide * 1.05);
        CHECK(in_mm(found[0].width) >= wide * 0.7); // with its round end, on the mean
        CHECK(narrow_limbs(limb, mm(wide * 0.95)).empty());
        // A wedge whose corners have at least 28 degrees, and a stump.
        const double half = std::tan(random.real(14, 62) * std::numbers::pi / 180);
        CHECK(narrow_limbs(
                  turned(region_of({ring({{0, 0}, {60, -60 * half}, {60, 60 * half}})}, FillRule::nonzero)),
                  mm(8))
                  .empty());
        CHECK(narrow_limbs(turned(united(box_at(0, 0, 40, 40), box_at(10, 39, 7, 8))), mm(8)).empty());
    }
}

TEST_CASE("corners are no slivers until they are very sharp, flaps are") {
    CHECK(narrow(box_at(0, 0, 30, 20)).empty());
    CHECK(narrow(region_of({ring(regular(3, 20))}, FillRule::nonzero)).empty()); // 60 degrees
    Ring star;
    for (int i = 0; i < 10; ++i) {
        const double a = i * std::numbers::pi / 5, r = i % 2 ? 8 : 20;
        star.push_back({r * std::cos(a), r * std::sin(a)});
    }
    CHECK(narrow(region_of({ring(star)}, FillRule::nonzero)).empty());
    const Region needle = region_of({ring({{0, 0}, {40, 1.5}, {40, 20}, {0, 1}})}, FillRule::nonzero);
    CHECK(narrow(needle).empty()); // 1 mm wide at its end
    const auto thorn = narrow(region_of({ring({{0, 0}, {40, 0}, {40, 5}})}, FillRule::nonzero)); // 7 degrees
    REQUIRE(thorn.size() == 1);
    CHECK(thorn[0].kind == Kind::sliver);
    const auto flap = narrow(united({box_at(0, 0, 20, 20), box_at(19, 9, 9, 0.2)}));
    REQUIRE(flap.size() == 1);
    CHECK(flap[0].kind == Kind::sliver);
    CHECK(in_mm(flap[0].width) == Approx(0.2).margin(0.05));
}

TEST_CASE("the width of a neck is its own, whatever else of the piece passes by") {
    // Between a disc and a round hole that all but touches its edge: 13.935794 - 6.213511 less the distance
    // of their middles. Beside the neck the hole's edge crosses another circle's, so that the piece hangs
    // together there in a point.
    const auto circle = [](double x, double y, double r) { return ellipse({x, y}, r, r); };
    Shape shape;
    shape.rule = FillRule::evenodd;
    shape.contours = {circle(36.882389, 68.033018, 7.232206), circle(34.196969, 68.696761, 6.213511),
                      circle(37.243165, 62.208366, 13.935794), circle(40.303025, 65.243695, 5.238992)};
    const double gap = 13.935794 - 6.213511 - distance({34.196969, 68.696761}, {37.243165, 62.208366});
    bool told = false;
    for (const NarrowPlace& place : narrow(region_of(shape), 0.8, 2))
        if (place.box.contains(Point{31.5, 74.1})) {
            told = true;
            CHECK(in_mm(place.width) == Approx(gap).margin(0.02));
        }
    CHECK(told);
}

TEST_CASE("where nothing is told every point of a random shape lies in a disc that fits, or in a corner") {
    Random random("narrow");
    INFO("seed " << random.seed());
    int clean = 0, told = 0;
    for (int round = 0; round < 40; ++round) {
        std::vector<Region> blocks;
        for (int i = random.whole(2, 6); i > 0; --i)
            blocks.push_back(
                box_at(random.real(0, 20), random.real(0, 20), random.real(0.3, 12), random.real(0.3, 12)));
        const Region shape = united(blocks);
        const auto found = narrow(shape, 1, 0);
        (found.empty() ? clean : told)++;
        // A box thinner than the disc that sticks out of the others by more than its own width is never
        // missed.
        const Region core = offset(shape, mm(-0.5));
        const Region reached = offset(core, mm(0.52));
        for (const Region& left : pieces(subtracted(shape, reached))) {
            const Box box = bounds(left);
            const bool large = std::max(box.width(), box.height()) > 3.3;
            bool named = false;
            for (const NarrowPlace& place : found)
                named |= place.box.grown(0.1).meets(box);
            const double mean = 2 * in_square_mm(area(left)) / in_mm(perimeter(left));
            if (large && mean < 0.5) CHECK(named);
        }
    }
    CHECK(clean > 0);
    CHECK(told > 0);
}

TEST_CASE("pieces with too many points are counted, not passed over") {
    const auto found =
        narrow_places(region_of({ring(regular(500, 20))}, FillRule::nonzero), mm(0.8), mm(2), 400);
    CHECK(found.places.empty());
    CHECK(found.unchecked == 1);
}

TEST_CASE("a region is wider than a disc when something is left of it once its edge moves in by half") {
    Random random("wide enough");
    int wide = 0, thin = 0;
    for (int round = 0; round < 300; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        const double most = random.real(0.2, 6);
        Region shape =
            region_of({ring(random_ring(random, random.whole(3, 60), 0.1 * most, most))}, FillRule::nonzero);
        if (random.whole(0, 1) == 1)
            shape = subtracted(
                shape, region_of({ring(random_ring(random, 9, 0.1 * most, 0.9 * most))}, FillRule::nonzero));
        if (shape.empty()) continue;
        const double width = random.real(0.1, 4);
        const bool left = !offset(shape, mm(-width / 2)).empty();
        // Offsets are exact to 0.005 mm: between the two either may be told.
        if (left == offset(shape, mm(-width / 2 - 0.02)).empty()) continue;
        CHECK(is_wider_than(shape, mm(width)) == left);
        (left ? wide : thin)++;
    }
    CHECK(wide > 20);
    CHECK(thin > 20);
}
