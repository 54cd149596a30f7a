// The cut of a printed sheet set right by three marks.
#include <cmath>

#include "core/commands/making.h"
#include "core/commands/remedies.h"
#include "core/commands/sheets.h"
#include "core/derive/correction.h"
#include "core/project/format.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

TEST_CASE("what three marks say of a print is what was done to it") {
    Random random("corrections");
    for (int i = 0; i < 200; ++i) {
        INFO("seed " << random.seed() << " round " << i);
        const double turn = random.real(-0.02, 0.02), wide = random.real(0.99, 1.01),
                     high = random.real(0.99, 1.01), shear = random.real(-0.01, 0.01);
        const Point by{random.real(-3, 3), random.real(-3, 3)};
        const std::vector<Point> asked{
            {random.real(5, 20), random.real(5, 20)}, {random.real(180, 220), 0}, {0, random.real(250, 280)}};
        std::vector<Point> marks = asked;
        marks[1].y = marks[0].y, marks[2].x = marks[0].x; // a rectangle's corners, as marks are
        // Scaled along the axes, then sheared (x against y), then turned, then shifted, about the first mark.
        const double c = std::cos(turn), s = std::sin(turn);
        const auto done = [&](Point p) {
            const double x = (p.x - marks[0].x) * wide - (p.y - marks[0].y) * high * std::tan(shear),
                         y = (p.y - marks[0].y) * high;
            return Point{marks[0].x + by.x + x * c - y * s, marks[0].y + by.y + x * s + y * c};
        };
        const std::vector<Point> found{done(marks[0]), done(marks[1]), done(marks[2])};
        const Correction made = must(correction_of(marks, found));
        CHECK(in_mm(made.right) == Approx(by.x).margin(1e-9));
        CHECK(in_mm(made.down) == Approx(by.y).margin(1e-9));
        CHECK(in_radians(made.turn) == Approx(turn).margin(1e-9));
        CHECK(made.wide == Approx(wide));
        CHECK(made.high == Approx(high));
        CHECK(in_radians(made.shear) == Approx(shear).margin(1e-9));
        for (int k = 0; k < 5; ++k) { // and so for every other place of the sheet
            const Point p{random.real(0, 220), random.real(0, 280)};
            CHECK(distance(made.map(p), done(p)) < 1e-9);
        }
    }
}

TEST_CASE("marks that tell nothing, or are others, are refused") {
    const std::vector<Point> marks{{10, 10}, {200, 10}, {10, 280}};
    CHECK(correction_of({{10, 10}, {200, 10}}, marks).error().code == "marks.number");
    CHECK(correction_of(marks, {{10, 10}}).error().code == "marks.number");
    CHECK(correction_of({{10, 10}, {100, 10}, {200, 10.5}}, marks).error().code == "marks.line");
    CHECK(correction_of(marks, {{10, 10}, {20, 10}, {30, 10}}).error().code == "marks.line");
    CHECK(correction_of(marks, {{10, 10}, {200, 10}, {10, 240}}).error().code == "marks.far");
    CHECK_FALSE(correction_of(marks, {{10, 10}, {std::nan(""), 10}, {10, 280}}));
    const Correction same = must(correction_of(marks, marks));
    CHECK(same.map == Affine{});
}

TEST_CASE("the cut of a sheet follows its print where three marks were found, the print does not") {
    Bench b = bench("<rect x='40' y='40' width='60' height='40' fill='#a8462d'/>"
                    "<rect x='30' y='30' width='80' height='60' fill='none' stroke='#22282c'/>",
                    200, 200);
    const auto lines = b.lines();
    must(gather(b.project, b.part, {lines[1]}, "art"));
    LaneId cut = b.project.lanes[0].id;
    Lane printed;
    printed.action = Action::print, printed.tool = "desk-printer", printed.name = "printer";
    const LaneId print = add_lane(b.project, printed);
    must(assign(b.project, b.part, {lines[1]}, print));
    must(assign(b.project, b.part, {lines[0]}, cut));
    const auto before = b.derive();
    REQUIRE(before->plan);
    REQUIRE(before->plan->program.prints.size() == 1);
    const std::vector<Point> marks = mark_places(before->plan->program.prints[0]);
    REQUIRE(marks.size() >= 3);
    const auto cut_box = [](const Derived& derived) {
        Box box;
        for (const auto& move : derived.plan->program.moves)
            if (const auto* pass = std::get_if<PassMove>(&move))
                for (const auto& stroke : pass->strokes)
                    box.add(bounds(Polyline{stroke.points, false}));
        return box;
    };
    // The print came out 1 mm to the right and 2 mm down, and 0.5 % too wide.
    std::vector<Point> found(marks.begin(), marks.begin() + 3);
    for (Point& p : found)
        p = {marks[0].x + 1 + (p.x - marks[0].x) * 1.005, p.y + 2};
    ChangeSheet change{b.sheet};
    change.found = std::vector<Point>(marks.begin(), marks.begin() + 3);
    change.found->insert(change.found->end(), found.begin(), found.end());
    must(apply(change, b.project, catalog()));
    const auto after = b.derive();
    const Box was = cut_box(*before), now = cut_box(*after);
    CHECK(now.x0 == Approx(marks[0].x + 1 + (was.x0 - marks[0].x) * 1.005).margin(1e-6));
    CHECK(now.width() == Approx(was.width() * 1.005).margin(1e-6));
    CHECK(now.y0 == Approx(was.y0 + 2).margin(1e-6));
    CHECK(now.height() == Approx(was.height()).margin(1e-6));
    const Finding& told = get(after->findings, "print.corrected");
    CHECK(told.message.english().find("100.5 %") != std::string::npos);
    CHECK(bounds(after->plan->program.prints[0].shapes[0].contours) ==
          bounds(before->plan->program.prints[0].shapes[0].contours));
    CHECK_FALSE(has(after->findings, "sheet.print-outside"));
    {
        // Found so far to the left that the cut would leave the reach: told by how much.
        Bench left = b;
        const double reach = before->sheet(b.sheet)->usable.x0, by = was.x0 - reach + 1.25;
        for (std::size_t i = 0; i < 3; ++i)
            find(left.project, b.sheet)->found[i + 3] = {marks[i].x - by, marks[i].y};
        const Finding out = get(left.derive()->findings, "sheet.print-outside");
        CHECK(out.grade == Grade::error);
        CHECK(number_argument(out, "by_mm").value_or(0) == Approx(1.25).margin(0.01));
    }
    // The file keeps it; three others are refused, none forgets them.
    CHECK(must(read_project(write_project(b.project))) == b.project);
    change.found = {{found[0], found[1]}};
    CHECK(apply(change, b.project, catalog()).error().code == "sheet.marks");
    change.found = {{marks[0], marks[1], marks[2], found[0], found[1], {9e9, 0}}};
    CHECK(apply(change, b.project, catalog()).error().code == "sheet.marks");
    {
        // What lies there is moved, so that the marks are printed elsewhere: told, not cut by the old ones.
        Project moved = b.project;
        find(moved, b.sheet)->found[0].x += 1;
        const auto derived = b.workshop->derive(std::make_shared<Project>(moved));
        CHECK(get(derived->findings, "print.marks").grade == Grade::error);
        CHECK(cut_box(*derived) == was);
    }
    change.found.emplace();
    must(apply(change, b.project, catalog()));
    CHECK(cut_box(*b.derive()) == was);
    // Found where none were printed: told, and cut as it is.
    Bench bare = bench("<rect x='30' y='30' width='80' height='60' fill='none' stroke='#22282c'/>");
    ChangeSheet none{bare.sheet};
    none.found = {{marks[0], marks[1], marks[2], found[0], found[1], found[2]}};
    must(apply(none, bare.project, catalog()));
    CHECK(get(bare.derive()->findings, "print.marks").grade == Grade::error);
}

TEST_CASE("what is mirrored by its recipe and where it lies is told, and mirrored once") {
    Bench b = bench("<path d='M20,20h40v20h-20v20h-20z' fill='#a8462d'/>");
    must(append_step(b.project, catalog(), b.part, PatchStep{}, {find(b.project, b.part)->sets[0].id}));
    const auto twice = [&] {
        const auto derived = b.derive();
        for (const Finding& f : derived->findings)
            if (f.code == "sheet.mirrored-twice") return std::optional(f);
        return std::optional<Finding>();
    };
    CHECK_FALSE(twice());
    Placement& placed = find(b.project, b.sheet)->placements[0];
    placed.mirrored = true;
    const auto finding = twice();
    REQUIRE(finding);
    must(apply(MendFinding{*finding}, b.project, catalog(), *b.derive()));
    CHECK_FALSE(twice());
    CHECK_FALSE(find(b.project, b.sheet)->placements[0].mirrored);
}
