// Lining up, spreading, turning and mirroring what lies on a sheet.
#include "core/project/format.h"
#include "core/sheets/arrange.h"

#include "core/commands/arranging.h"
#include "core/project/edits.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

Lying lies(double left, double top, double w, double h, int group = 0, double turn = 0) {
    static std::uint32_t next = 1;
    Placement p{PlacementId{next++}, PartId{1}, mm(left), mm(top), degrees(turn), false, 0, group};
    const Box part{3, 4, 3 + w, 4 + h}; // a part's box need not begin at 0
    return {p, part, placed_box(p, part)};
}

/// The same as they lie after the move.
std::vector<Lying> moved(std::vector<Lying> all, const std::vector<Placement>& to) {
    for (std::size_t i = 0; i < all.size(); ++i)
        all[i].placement = to[i], all[i].box = placed_box(to[i], all[i].extent);
    return all;
}

std::vector<Lying> some(Random& random, int n, bool groups) {
    std::vector<Lying> out;
    for (int i = 0; i < n; ++i)
        out.push_back(lies(random.real(0, 250), random.real(0, 250), random.real(5, 60), random.real(5, 60),
                           groups ? random.whole(0, 2) : 0, random.real(-180, 180)));
    return out;
}

} // namespace

TEST_CASE("lined up with a frame: edges and middles, what is grouped as one") {
    const Box frame{10, 20, 210, 320};
    const std::vector<Lying> two{lies(50, 60, 40, 30), lies(90, 10, 20, 80, 0, 90)};
    for (const Lying& l : moved(two, aligned(two, frame, Across::left, Down::bottom))) {
        CHECK(l.box.x0 == Approx(10));
        CHECK(l.box.y1 == Approx(320));
    }
    for (const Lying& l : moved(two, aligned(two, frame, Across::middle, Down::leave)))
        CHECK(l.box.centre().x == Approx(110));
    CHECK(aligned(two, frame, Across::leave, Down::leave)[1] == two[1].placement);
    const std::vector<Lying> group{lies(50, 60, 40, 30, 7), lies(100, 80, 20, 20, 7), lies(0, 0, 10, 10)};
    const auto after = moved(group, aligned(group, frame, Across::right, Down::top));
    CHECK(after[1].box.x1 == Approx(210));
    CHECK(after[0].box.y0 == Approx(20));
    CHECK(distance(after[1].box.centre() - after[0].box.centre(),
                   group[1].box.centre() - group[0].box.centre()) < 1e-9);
    CHECK(after[2].box.x1 == Approx(210));
}

TEST_CASE("spread: equal gaps, in the order in which they lie") {
    const std::vector<Lying> row{lies(100, 0, 30, 10), lies(0, 5, 10, 10), lies(20, 9, 20, 10),
                                 lies(180, 2, 20, 10)};
    // 200 wide, 80 of it filled: three gaps of 40
    const auto after = moved(row, must(distributed(row, Way::across)));
    CHECK(after[1].box.x0 == Approx(0));
    CHECK(after[2].box.x0 == Approx(50));
    CHECK(after[0].box.x0 == Approx(110));
    CHECK(after[3].box.x1 == Approx(200));
    for (std::size_t i = 0; i < row.size(); ++i)
        CHECK(after[i].box.y0 == Approx(row[i].box.y0));
    const auto over = moved(row, must(distributed(row, Way::across, Box{-10, 0, 250, 100})));
    CHECK(over[1].box.x0 == Approx(-10));
    CHECK(over[3].box.x1 == Approx(250));
    CHECK(over[2].box.x0 - over[1].box.x1 == Approx(60));
    CHECK(distributed({row[0], row[1]}, Way::down).error().code == "arrange.few");
    CHECK(distributed({row[0]}, Way::down, Box{0, 0, 9, 9}).error().code == "arrange.few");
    const auto tight = distributed(row, Way::across, Box{0, 0, 75, 10});
    REQUIRE_FALSE(tight);
    CHECK(tight.error().code == "arrange.tight");
    CHECK(tight.error().message.english().find("5 mm too wide") != std::string::npos);
    CHECK(distributed(row, Way::down, Box{0, 0, 200, 39}).error().message.english().find("1 mm too high") !=
          std::string::npos);
    // Exactly as wide as they are: they touch.
    CHECK(distributed(row, Way::across, Box{0, 0, 80, 10}));
}

TEST_CASE("random arrangements: spreading evens the gaps, turning and mirroring keep distances") {
    Random random("arrangements");
    INFO("seed " << random.seed());
    for (int round = 0; round < 60; ++round) {
        const auto all = some(random, random.whole(3, 8), false);
        const Way way = random.coin() ? Way::across : Way::down;
        const auto at = [&](const Box& b) {
            return way == Way::across ? std::pair(b.x0, b.x1) : std::pair(b.y0, b.y1);
        };
        if (const auto places = distributed(all, way, Box{-500, -500, 900, 900})) {
            auto after = moved(all, *places);
            std::sort(after.begin(), after.end(),
                      [&](const Lying& a, const Lying& b) { return at(a.box).first < at(b.box).first; });
            CHECK(at(after.front().box).first == Approx(-500));
            CHECK(at(after.back().box).second == Approx(900));
            const double gap = at(after[1].box).first - at(after[0].box).second;
            for (std::size_t i = 2; i < after.size(); ++i)
                CHECK(at(after[i].box).first - at(after[i - 1].box).second == Approx(gap).margin(1e-9));
        }
        // As one: distances between middles stay, and the middle of a two-corner box of middles too.
        const auto grouped = some(random, 5, true);
        const double by = random.real(-360, 360);
        const auto turned_now = moved(grouped, turned(grouped, degrees(by)));
        const auto mirrored_now = moved(grouped, mirrored(grouped));
        for (std::size_t i = 0; i < grouped.size(); ++i)
            for (std::size_t j = 0; j < i; ++j) {
                const double before = distance(grouped[i].box.centre(), grouped[j].box.centre());
                CHECK(distance(turned_now[i].box.centre(), turned_now[j].box.centre()) == Approx(before));
                CHECK(distance(mirrored_now[i].box.centre(), mirrored_now[j].box.centre()) == Approx(before));
            }
        // Any point of any part goes where the turn and the mirror take it.
        const Point middle = box_of(grouped).centre();
        const Affine turn = Affine::translation(middle) *
                            Affine::rotation(by * 3.14159265358979323846 / 180) *
                            Affine::translation(Point{} - middle);
        for (std::size_t i = 0; i < grouped.size(); ++i) {
            const Point p{random.real(0, 60), random.real(0, 60)};
            const Point was = placement_transform(grouped[i].placement, grouped[i].extent)(p);
            CHECK(distance(placement_transform(turned_now[i].placement, grouped[i].extent)(p), turn(was)) <
                  1e-6);
            const Point mirror{2 * middle.x - was.x, was.y};
            CHECK(distance(placement_transform(mirrored_now[i].placement, grouped[i].extent)(p), mirror) <
                  1e-6);
        }
    }
}

TEST_CASE("groups: made, joined with what was grouped before, dissolved, only on one sheet") {
    Bench b = bench("<rect x='10' y='10' width='30' height='20' fill='none' stroke='#111'/>");
    const auto put = [&](SheetId sheet) {
        return must(place(b.project, sheet, {{}, b.part, mm(30), mm(30), {}}));
    };
    const auto first = find(b.project, b.sheet)->placements.at(0).id, second = put(b.sheet),
               third = put(b.sheet);
    const auto group = [&](PlacementId id) { return find_placement(b.project, id)->group; };
    must(group_placements(b.project, {first, second}));
    CHECK(group(first) == 1);
    CHECK(with_groups(*find(b.project, b.sheet), {second}) == std::vector{first, second});
    must(group_placements(b.project, {second, third}));
    CHECK(group(first) == group(third)); // came along
    CHECK(read_project(write_project(b.project)) == b.project);
    must(ungroup_placements(b.project, {third}));
    CHECK(group(first) == 0);
    CHECK(group_placements(b.project, {first}).error().code == "place.group");
    const SheetId other = add_sheet(b.project, "other", "cream-card-12x12", "mat-12x12-standard");
    CHECK(group_placements(b.project, {first, put(other)}).error().code == "place.group");
    CHECK(group_placements(b.project, {first, PlacementId{999}}).error().code == "edit.missing");
    Placement odd = *find_placement(b.project, first);
    odd.piece = -1;
    CHECK(change_placement(b.project, odd).error().code == "place.range");
    const Project before = b.project;
    Placement moved = *find_placement(b.project, second);
    moved.left = mm(99);
    CHECK(change_placements(b.project, {moved, odd}).error().code == "place.range");
    CHECK(b.project == before); // none is moved when one may not be
}

TEST_CASE("copies of several keep their arrangement, in a group of their own") {
    Bench b = bench("<rect x='10' y='10' width='30' height='20' fill='none' stroke='#111'/>");
    const auto first = find(b.project, b.sheet)->placements.at(0).id;
    const auto second = must(place(b.project, b.sheet, {{}, b.part, mm(60), mm(40), degrees(90), true}));
    must(group_placements(b.project, {first, second}));
    const auto d = b.derive();
    const auto all = lying(b.project, *d, {first, second, PlacementId{999}});
    REQUIRE(all.size() == 2);
    const auto made = must(apply(CopyPlaced{{{first, second}}}, b.project, catalog(), *d)).placements;
    REQUIRE(made.size() == 2);
    const auto copies = lying(b.project, *b.derive(), made);
    CHECK(distance(copies[1].box.centre() - copies[0].box.centre(),
                   all[1].box.centre() - all[0].box.centre()) < 1e-9);
    CHECK(copies[1].placement.mirrored);
    CHECK(copies[0].placement.group == copies[1].placement.group);
    CHECK(copies[0].placement.group != all[0].placement.group);
    CHECK_FALSE(has(b.derive()->findings, "sheet.cut-through"));
}
