// Backings: a smooth rim in one piece, by identities of offsets (Steiner) and by what it must cover.
#include <cmath>
#include <numbers>

#include "core/base/text.h"
#include "core/commands/remedies.h"
#include "core/commands/steps.h"
#include "tests/support/recipe.h"

using namespace dotlane;
using namespace dotlane::test;
using std::numbers::pi;

namespace {

BackingStep plain(double distance) {
    BackingStep out;
    out.distance = mm(distance), out.smooth = {}, out.reach = {};
    return out;
}

} // namespace

TEST_CASE("the rim of a square has the area that Steiner's formula says") {
    Random random("rims of squares");
    for (int round = 0; round < 10; ++round) {
        const double side = random.real(10, 60), d = random.real(0.5, 8);
        Recipe r(rect(40, 40, side, side));
        BackingStep step = plain(d);
        // Smoothing by less than the rim's own roundness changes nothing.
        if (random.coin()) step.smooth = mm(d * random.real(0.2, 0.9));
        INFO("seed " << random.seed() << " side " << side << " rim " << d);
        const StepId id = r.add(step, {r.set()});
        // area + perimeter d + pi d2 (J. Steiner, 1840); arcs are flattened to 0.005 mm.
        CHECK(r.square(r.result(id)) == Approx(side * side + 4 * side * d + pi * d * d).epsilon(2e-3));
    }
}

TEST_CASE("pieces within reach are tied by bars, and those beyond it are told and tied by one press") {
    Recipe r(rect(20, 20, 20, 20) + rect(48, 20, 20, 20) + rect(90, 20, 20, 20));
    BackingStep step = plain(1);
    step.reach = mm(8), step.tie = mm(4);
    const StepId id = r.add(step, {r.set()});
    CHECK(r.figure(id, "pieces_before") == 3);
    CHECK(r.figure(id, "ties") == 1); // 6 mm between the first two, 20 mm to the third
    CHECK(r.figure(id, "pieces") == 2);
    const Finding told = get(r.derived->findings, "backing.apart");
    CHECK(told.message.english().find("20 mm apart") != std::string::npos);
    must(apply(MendFinding{told}, r.b.project, catalog(), *r.derived));
    CHECK(r.figure(id, "pieces") == 1);
    CHECK(r.figure(id, "ties") == 2);
    CHECK_FALSE(has(r.derived->findings, "backing.apart"));
}

TEST_CASE("bays and points are no sharper than wished, and the art stays covered") {
    Random random("smooth backings");
    for (int round = 0; round < 8; ++round) {
        std::string d = "M";
        const Ring star = random_ring(random, random.whole(8, 24), 12, 40, {80, 80});
        for (const Point p : star)
            d += number(p.x, 6) + "," + number(p.y, 6) + " ";
        Recipe r("<path fill='#111' d='" + d + "z'/>");
        BackingStep step = plain(random.real(1, 4));
        step.smooth = mm(random.real(1, 4));
        INFO("seed " << random.seed() << " round " << round);
        const StepId id = r.add(step, {r.set()});
        const Region backing = r.area_of(r.result(id)), art = r.area_of(r.set());
        CHECK(in_square_mm(area(subtracted(art, backing))) < 1e-3);
        // A disc of the radius fits into every bay: closing by it adds nothing but the flattening of arcs.
        const Region closed = offset(offset(backing, step.smooth), -step.smooth);
        CHECK(in_square_mm(area(subtracted(closed, backing))) < 0.01 * in_mm(perimeter(backing)));
    }
}

TEST_CASE("holes of a backing are filled, all of them or the small ones") {
    Recipe r("<path fill='#111' fill-rule='evenodd' d='M20,20h60v60h-60zM30,30h4v4h-4zM45,45h25v25h-25z'/>");
    BackingStep step = plain(0);
    const StepId id = r.add(step, {r.set()});
    CHECK(r.figure(id, "holes_before") == 2);
    CHECK(r.square(r.result(id)) == Approx(3600).margin(0.01));
    step.all_holes = false, step.holes_under = mm(5);
    must(apply(ChangeStep{r.b.part, id, step}, r.b.project, catalog()));
    CHECK(r.figure(id, "holes_after") == 1);
    CHECK(r.square(r.result(id)) == Approx(3600 - 625).margin(0.01));
}

TEST_CASE("of many pieces that are apart, how far the nearest are is told as well") {
    std::string many;
    for (int i = 0; i < 40; ++i)
        many += rect(5 + 18 * (i % 8), 5 + 20 * (i / 8), 10, 10);
    Recipe r(many);
    BackingStep step = plain(1);
    const StepId id = r.add(step, {r.set()});
    CHECK(r.figure(id, "pieces") == 40);
    // 8 mm between the squares, less a rim of 1 mm at both.
    CHECK(get(r.derived->findings, "backing.apart").message.english().find("6 mm apart") !=
          std::string::npos);
}
