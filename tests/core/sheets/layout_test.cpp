#include "core/sheets/layout.h"

#include <numbers>

#include "core/commands/placing.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

const Mat& mat() {
    return *catalog().mat("mat-12x12-standard");
}
const Stock& card() {
    return *catalog().stock("cream-card-12x12");
}

Placement at(double left, double top, double turn = 0, bool mirrored = false) {
    return {PlacementId{1}, PartId{1}, mm(left), mm(top), degrees(turn), mirrored};
}

} // namespace

TEST_CASE("a placed part's box has its corner where the numbers say, turned or not") {
    const Box part{5, 7, 65, 47};
    for (const double turn : {0.0, 30.0, 90.0, -135.0})
        for (const bool mirrored : {false, true}) {
            const Box box = placed_box(at(20, 30, turn, mirrored), part);
            CHECK(box.x0 == Approx(20));
            CHECK(box.y0 == Approx(30));
            // |w cos| + |h sin|: the box of a turned rectangle
            const double a = turn * std::numbers::pi / 180;
            CHECK(box.width() == Approx(60 * std::abs(std::cos(a)) + 40 * std::abs(std::sin(a))));
        }
}

TEST_CASE("mirrored is left to right, before the turn") {
    const Box part{0, 0, 60, 40};
    const Affine m = placement_transform(at(0, 0, 0, true), part);
    CHECK(m({0, 0}) == Point{60, 0});
    CHECK(m({60, 40}) == Point{0, 40});
    CHECK(m.determinant() < 0);
    const Affine quarter = placement_transform(at(0, 0, 90), part);
    CHECK(distance(quarter({0, 0}), {40, 0}) < 1e-9); // clockwise on screen
}

TEST_CASE("turning keeps the middle") {
    const Box part{0, 0, 60, 40};
    const Placement p = at(100, 50);
    const Point middle = placed_box(p, part).centre();
    for (const double turn : {15.0, 90.0, 200.0}) {
        const Placement turned = turned_about_middle(p, part, degrees(turn));
        CHECK(distance(placed_box(turned, part).centre(), middle) < 1e-9);
    }
}

TEST_CASE("a strip turned in a square: fits when l cos a + t sin a <= s") {
    const double l = 320, t = 8, s = 297.9, a = 25;
    const Box box = placed_box(at(0, 0, a), Box{0, 0, l, t});
    const double rad = a * std::numbers::pi / 180;
    CHECK(box.width() == Approx(l * std::cos(rad) + t * std::sin(rad)));
    CHECK((box.width() <= s) == (l * std::cos(rad) + t * std::sin(rad) <= s));
}

TEST_CASE("copies in a grid, n things of width w with gap g in W") {
    const Box part{0, 0, 60, 40};
    const auto places = must(grid(at(10, 10), part, {3, 2, mm(5)}));
    REQUIRE(places.size() == 6);
    CHECK(in_mm(places[1].left) == Approx(75));
    CHECK(in_mm(places[3].top) == Approx(55));
    CHECK(grid(at(0, 0), part, {0, 1, mm(1)}).error().code == "place.range");
    CHECK(grid(at(0, 0), part, {1, 1, mm(-1)}).error().code == "place.range");
    // floor((W + g) / (w + g)) of them fit, one more does not
    const double W = usable_area(mat(), card()).width();
    const int n = static_cast<int>((W + 5) / (60 + 5));
    const auto row = must(grid(at(usable_area(mat(), card()).x0, 10), part, {n + 1, 1, mm(5)}));
    CHECK(placed_box(row[static_cast<std::size_t>(n) - 1], part).x1 <= usable_area(mat(), card()).x1);
    CHECK(placed_box(row.back(), part).x1 > usable_area(mat(), card()).x1);
}

TEST_CASE("the usable area of a 12 x 12 in mat") {
    const Box u = usable_area(mat(), card());
    CHECK(u.width() == Approx(297.9)); // common practice: about 11.7 x 11.85 in
    CHECK(u.height() == Approx(301.0));
    // Smaller stock is laid against the usable corner and limits what can be used.
    const Box a4 = usable_area(mat(), *catalog().stock("white-card-a4"));
    CHECK(a4.width() == Approx(210)); // ISO 216
    CHECK(a4.height() == Approx(297));
    CHECK(a4.x0 == u.x0);
}

TEST_CASE("outside the usable area: by how much and on which side") {
    Sheet sheet{SheetId{1}, "sheet 1", card().id, mat().id, {at(0, 0), at(0, 0)}};
    const Machine& machine = catalog().machines.front();
    const Box u = usable_area(mat(), card());
    const Findings f = check_layout(
        sheet, machine, mat(), card(),
        {{u.x0 - 2.5, u.y0, u.x0 + 20, u.y0 + 20}, {u.x0 + 100, u.y0 + 50, u.x1 + 1.25, u.y1 + 40}},
        {as_is("a"), as_is("b")});
    REQUIRE(count(f, Grade::error) == 2);
    CHECK(f[0].message.english().find("2.5 mm on the left") != std::string::npos);
    CHECK(f[1].message.english().find("1.25 mm on the right and 40 mm on the bottom") != std::string::npos);
    CHECK(f[0].remedy.code == "sheet.bring-in");
    CHECK(check_layout(sheet, machine, mat(), card(), {u, {}}, {as_is("a"), as_is("b")})
              .empty()); // an exact fit is legal
    const Findings large =
        check_layout(sheet, machine, mat(), card(), {u.grown(1), {}}, {as_is("a"), as_is("b")});
    CHECK(large[0].remedy.code.empty()); // too large to be brought in
}

TEST_CASE("a mat or stock the machine does not take is an error") {
    Sheet sheet{SheetId{1}, "sheet 1", card().id, mat().id, {at(0, 0), at(0, 0)}};
    const Machine& machine = catalog().machines.front();
    Machine none = machine;
    none.mats.clear();
    CHECK(has(check_layout(sheet, none, mat(), card(), {{}, {}}, {as_is("a"), as_is("b")}), "sheet.mat"));
    Stock thick = card();
    thick.thickness = mm(3);
    CHECK(get(check_layout(sheet, machine, mat(), thick, {{}, {}}, {as_is("a"), as_is("b")}), "sheet.thick")
              .grade == Grade::error);
}

TEST_CASE("a free place is free, and a part too long straight is turned") {
    Bench b =
        bench("<rect x='0' y='0' width='300' height='100' fill='none' stroke='#22282c'/>", 300, 100, false);
    const auto put = [&] {
        const auto d = b.derive();
        const PlacementSpot spot = free_spot(b.project, catalog(), d.get(), b.sheet, {b.part});
        if (spot.fits) must(place(b.project, b.sheet, spot.placement));
        return spot;
    };
    CHECK(in_degrees(put().placement.turn) == Approx(90)); // 300 mm fits only down the mat's 301 mm
    CHECK(put().fits);
    CHECK_FALSE(put().fits); // a third one does not: 3 x 100 + 2 x 5 > 297.9
    const auto d = b.derive();
    CHECK(count(d->findings, Grade::error) == 0);
    CHECK_FALSE(has(d->findings, "sheet.cut-through"));
}
