// Where things go when nobody says where: free, within reach, and as near to the corner as there is room.
#include "core/checks/project_checks.h"
#include "core/commands/placing.h"

#include "core/commands/making.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

struct PlacingTable {
    Workshop workshop{catalog()};
    Project project = workshop.new_project("table");
    SheetId sheet = add_sheet(project, "sheet 1", "cream-card-12x12", "mat-12x12-standard");

    PartId plate(double w, double h) {
        Label label;
        label.edge = Label::Edge::plain, label.width = mm(w), label.height = mm(h);
        return must(make_part(project, catalog(), workshop.fonts(), label));
    }
    std::shared_ptr<const Derived> derive() { return workshop.derive(std::make_shared<Project>(project)); }
    std::vector<Box> boxes() {
        std::vector<Box> out;
        const auto d = derive();
        for (const PlacedPart& p : d->sheet(sheet)->parts)
            out.push_back(p.box);
        return out;
    }
};

bool apart(const Box& a, const Box& b, double gap) {
    return a.x0 >= b.x1 + gap || b.x0 >= a.x1 + gap || a.y0 >= b.y1 + gap || b.y0 >= a.y1 + gap;
}

} // namespace

TEST_CASE("random plates find free places until there is none, and then the corner is named") {
    Random random("free places");
    INFO("seed " << random.seed());
    for (int round = 0; round < 2; ++round) {
        PlacingTable t;
        const Length gap = mm(random.whole(0, 8));
        Box usable;
        int fitted = 0;
        for (int i = 0; i < 14; ++i) {
            const PartId part = t.plate(random.real(20, 140), random.real(20, 140));
            const auto d = t.derive();
            usable = d->sheet(t.sheet)->usable;
            const PlacementSpot spot =
                free_spot(t.project, catalog(), d.get(), t.sheet, {part, 0, {}, false, gap, {}});
            const Box box = placed_box(spot.placement, extent_of(*d->part(part), 0));
            const auto lying = t.boxes();
            const auto is_free = [&](const Box& at) {
                return usable.grown(1e-6).contains(at) &&
                       std::all_of(lying.begin(), lying.end(),
                                   [&](const Box& b) { return apart(at, b, in_mm(gap) - 1e-6); });
            };
            if (!spot.fits) {
                CHECK(box.x0 == Approx(usable.x0));
                CHECK(box.y0 == Approx(usable.y0));
            } else {
                ++fitted;
                CHECK(is_free(box));
                must(place(t.project, t.sheet, spot.placement));
            }
            // By trying every place of a 2 mm grid: none that is free lies clearly above what was found, and
            // where none was found there is none.
            const double w = box.width(), h = box.height();
            double best = 1e9;
            for (double y = usable.y0; y + h <= usable.y1; y += 2)
                for (double x = usable.x0; x + w <= usable.x1 && best > 1e8; x += 2)
                    if (is_free({x, y, x + w, y + h})) best = y;
            if (spot.fits)
                CHECK(box.y0 <= best + 1e-6);
            else
                CHECK(best > 1e8);
        }
        CHECK(fitted > 3);
    }
}

TEST_CASE("what only fits turned is turned, a given turn is kept, what is too large says so") {
    PlacingTable t;
    const PartId flag = t.plate(299, 60); // the tool reaches 297.9 x 301 of this mat
    const auto d = t.derive();
    const PlacementSpot turned = free_spot(t.project, catalog(), d.get(), t.sheet, {flag});
    CHECK(turned.fits);
    CHECK(in_degrees(turned.placement.turn) == Approx(90));
    CHECK_FALSE(free_spot(t.project, catalog(), d.get(), t.sheet, {flag, 0, Angle{}}).fits);
    const PlacementSpot given = free_spot(t.project, catalog(), d.get(), t.sheet, {flag, 0, degrees(-90)});
    CHECK(given.fits);
    CHECK(in_degrees(given.placement.turn) == Approx(-90));
    const PartId wall = t.plate(400, 400);
    CHECK_FALSE(free_spot(t.project, catalog(), t.derive().get(), t.sheet, {wall}).fits);
    CHECK_FALSE(free_spot(t.project, catalog(), nullptr, t.sheet, {wall}).fits);
    CHECK_FALSE(free_spot(t.project, catalog(), d.get(), SheetId{999}, {flag}).fits);
}

TEST_CASE("copies are counted whole, or by the rarest of their pieces") {
    PlacingTable t;
    const PartId part = t.plate(40, 30);
    const auto count = [&] { return placed_copies(t.project, *t.derive()->part(part)); };
    CHECK(count() == 0);
    must(place(t.project, t.sheet, {{}, part, mm(10), mm(10)}));
    must(place(t.project, t.sheet, {{}, part, mm(60), mm(10)}));
    CHECK(count() == 2);
    CHECK(missing_pieces(t.project, *t.derive()->part(part)).empty()); // it lies as one
    // A second outline beside it: two pieces that may lie apart.
    CopiesStep two;
    must(append_step(t.project, catalog(), part, two, {}));
    must(append_step(t.project, catalog(), part, ApartStep{{}, false}, {}));
    must(set_quantity(t.project, part, 3));
    REQUIRE(t.derive()->part(part)->apart.size() == 2);
    CHECK(count() == 2); // those that lie whole
    CHECK(missing_pieces(t.project, *t.derive()->part(part)) == std::vector{1, 2});
    must(place(t.project, t.sheet, {{}, part, mm(10), mm(60), {}, false, 2}));
    CHECK(count() == 2);
    CHECK(missing_pieces(t.project, *t.derive()->part(part)) == std::vector{1});
    must(place(t.project, t.sheet, {{}, part, mm(60), mm(60), {}, false, 1}));
    CHECK(count() == 3);
    CHECK(missing_pieces(t.project, *t.derive()->part(part)).empty());
}

TEST_CASE("a piece larger than the sheet lies at its corner with an error, on no sheet of its own") {
    PlacingTable t;
    const PartId part = t.plate(400, 20);
    must(append_step(t.project, catalog(), part, ApartStep{}, {}));
    const auto d = t.derive();
    REQUIRE(d->part(part)->apart.size() == 1);
    must(apply(PlacePieces{t.sheet, part, {1, 1}}, t.project, catalog(), *d));
    CHECK(t.project.sheets.size() == 1);
    CHECK(find(t.project, t.sheet)->placements.size() == 2);
    CHECK(has(t.derive()->findings, "sheet.outside"));
    CHECK(apply(PlacePieces{SheetId{99}, part, {1}}, t.project, catalog(), *d).error().code ==
          "place.missing");
    CHECK(apply(PlacePieces{t.sheet, part, {7}}, t.project, catalog(), *d).error().code == "place.piece");
    CHECK(apply(LayOutPieces{part}, t.project, catalog(), *d).error().code == "remedy.none");
}
