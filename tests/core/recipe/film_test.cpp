// Registration marks that layers share, and lines that make film easy to weed.
#include <numbers>
#include <sstream>

#include "core/commands/apart.h"
#include "core/commands/steps.h"
#include "tests/support/recipe.h"

using namespace dotlane;
using namespace dotlane::test;
using std::numbers::pi;

TEST_CASE("registration holes lie at the corners of the lines' box, as large as wished, and are cut") {
    Recipe r(rect(30, 40, 50, 20));
    RegistrationStep step;
    step.size = mm(4), step.away = mm(7);
    for (const int count : {2, 3, 4}) {
        step.count = count;
        Recipe each(rect(30, 40, 50, 20));
        const StepId id = each.add(step, {each.set()});
        CHECK(each.figure(id, "marks") == count);
        CHECK(each.figure(id, "apart_across") == Approx(64));
        CHECK(each.figure(id, "apart_down") == Approx(34));
        CHECK(each.square(each.result(id)) == Approx(count * pi * 4).epsilon(5e-3)); // flattened to 0.005 mm
        const Region holes = each.area_of(each.result(id));
        CHECK(contains(holes, {23, 33}));
        CHECK(contains(holes, {87, 33}));
        CHECK(contains(holes, {23, 67}) == (count >= 3));
        CHECK(contains(holes, {87, 67}) == (count >= 4));
        const Step& made = *find(*find(each.b.project, each.b.part), id);
        CHECK(find(each.b.project, made.lane)->action == Action::cut);
    }
    // Crosses are drawn.
    step.mark = RegistrationStep::Mark::crosses;
    const StepId id = r.add(step, {r.set()});
    CHECK(find(r.b.project, find(*find(r.b.project, r.b.part), id)->lane)->action == Action::draw);
}

TEST_CASE("layers taken apart by colour share their registration holes") {
    Recipe r("<rect x='10' y='10' width='60' height='60' fill='#a8462d'/>"
             "<rect x='30' y='30' width='20' height='20' fill='#22282c'/>");
    r.part();
    must(apply(AddStep{r.b.part, KnockOutStep{}}, r.b.project, catalog(), *r.derived->part(r.b.part)));
    r.part();
    const StepId marks =
        must(apply(AddStep{r.b.part, RegistrationStep{}}, r.b.project, catalog(), *r.derived->part(r.b.part)))
            .step;
    const Region before = r.area_of(r.result(marks));
    const auto apart = must(apply(TakeApart{r.b.part, ApartBy::colour}, r.b.project, catalog(), fonts(),
                                  *r.derived->part(r.b.part)));
    REQUIRE(apart.parts.size() == 2);
    const auto derived = r.b.derive();
    for (const PartId id : apart.parts) {
        const Part& part = *find(r.b.project, id);
        const LineSetId set = part.steps.back().result;
        std::vector<Region> holes;
        for (const RunSet& run : derived->part(id)->runs)
            if (run.set == set) holes.push_back(region_of(run.lines, FillRule::nonzero));
        REQUIRE(holes.size() == 1);
        CHECK(in_square_mm(area(subtracted(before, holes[0]))) < 1e-6);
        CHECK(in_square_mm(area(subtracted(holes[0], before))) < 1e-6);
    }
}

TEST_CASE("weeding cuts keep clear of the lines, and more of them leave shorter waste") {
    Random random("weeding");
    std::string elements;
    for (int i = 0; i < 12; ++i)
        elements += rect(20 + 14 * i, random.real(40, 60), 8, random.real(10, 40));
    {
        Recipe r(elements);
        WeedStep step;
        step.strip = mm(0.01);
        const StepId id = r.add(step, {r.set()});
        CHECK(r.part().reports.at(id)->refused.english().find("Strips of") != std::string::npos);
    }
    double longest = 1e9;
    for (const double strip : {0.0, 90.0, 45.0}) {
        Recipe r(elements);
        WeedStep step;
        step.strip = mm(strip);
        INFO("seed " << random.seed() << " strips " << strip);
        const StepId id = r.add(step, {r.set()});
        CHECK(r.figure(id, "longest_waste") < longest);
        longest = r.figure(id, "longest_waste");
        CHECK((r.figure(id, "cuts") > 0) == (strip > 0));
        CHECK((r.figure(id, "waste_pieces") > 1) == (strip > 0));
        const Region art = r.area_of(r.set());
        for (const FlatLine& line : r.part().lines)
            if (line.set == r.result(id))
                for (const Polyline& c : line.contours)
                    if (!c.closed)
                        for (const Ring& ring : art.rings)
                            for (const Point p : c.points)
                                CHECK(distance_to(Polyline{ring, true}, p) >= in_mm(step.clear) - 0.01);
        // The frame: 5 mm around all.
        Box frame;
        for (const FlatLine& line : r.part().lines)
            if (line.set == r.result(id)) frame.add(line.box);
        CHECK(frame.width() == Approx(bounds(art).width() + 10).margin(1e-3));
    }
}

TEST_CASE("pieces and holes under a size are not cut, and nothing else changes") {
    Random random("small pieces");
    for (int round = 0; round < 10; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        const double small = random.real(2, 5);
        std::string elements;
        std::size_t under = 0;
        double kept = 0;
        for (int i = 0; i < 20; ++i) {
            const double side = random.real(1, 8);
            const double hole = side > 3 ? random.real(0.5, side - 1) : 0, in = (side - hole) / 2;
            std::ostringstream d;
            const double x = 10 + 9 * (i % 10), y = 10 + 9 * (i / 10);
            d << "<path fill='#111' fill-rule='evenodd' d='M" << x << "," << y << "h" << side << "v" << side
              << "h" << -side << "z";
            if (hole > 0)
                d << "M" << x + in << "," << y + in << "h" << hole << "v" << hole << "h" << -hole << "z";
            d << "'/>";
            elements += d.str();
            if (side < small) {
                under += 1 + (hole > 0);
            } else {
                under += hole > 0 && hole < small;
                kept += side * side - (hole >= small ? hole * hole : 0);
            }
        }
        Recipe r(elements);
        WeedStep step;
        step.small = mm(small), step.strip = mm(0);
        const StepId id = r.add(step, {r.set()});
        CHECK(r.figure(id, "left_out") == static_cast<double>(under));
        CHECK(r.square(r.set()) == Approx(kept).epsilon(1e-3));
    }
    Recipe none(rect(20, 20, 3, 3));
    WeedStep all;
    all.small = mm(5);
    const StepId id = none.add(all, {none.set()});
    CHECK_FALSE(none.part().reports.at(id)->refused.empty());
}

TEST_CASE("waste is pulled off around the lines first, strip by strip beside the last, then out of them") {
    Random random("order of weeding");
    for (int round = 0; round < 10; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        std::ostringstream d;
        std::vector<Box> frames;
        for (int i = 0; i < 8; ++i) {
            const double x = 20 + 22 * i, y = random.real(40, 60), wide = random.real(12, 18),
                         high = random.real(20, 90), rim = random.real(2, 4);
            frames.push_back({x, y, x + wide, y + high});
            d << "<path fill='#111' fill-rule='evenodd' d='M" << x << "," << y << "h" << wide << "v" << high
              << "h" << -wide << "z M" << x + rim << "," << y + rim << "h" << wide - 2 * rim << "v"
              << high - 2 * rim << "h" << -(wide - 2 * rim) << "z'/>";
        }
        Recipe r(d.str());
        WeedStep step;
        step.strip = mm(random.real(15, 60));
        const StepId id = r.add(step, {r.set()});
        const std::vector<Point>& order = r.part().reports.at(id)->order;
        REQUIRE(static_cast<double>(order.size()) == r.figure(id, "waste_pieces"));
        const auto inside = [&](Point p) {
            return std::any_of(frames.begin(), frames.end(), [&](const Box& b) { return b.contains(p); });
        };
        const auto first = std::find_if(order.begin(), order.end(), inside);
        REQUIRE(first != order.begin());
        REQUIRE(first != order.end());
        CHECK(std::all_of(first, order.end(), inside)); // once the hook is taken up it stays in the hand
        // Row by row: nobody goes back up. Rows are no higher than a strip is wide.
        for (auto at = order.begin() + 1; at < first; ++at)
            CHECK(at->y > (at - 1)->y - in_mm(step.strip));
        // Counters that are no larger than a strip come off whole.
        for (const Box& frame : frames)
            if (frame.width() < in_mm(step.strip) && frame.height() < in_mm(step.strip))
                CHECK(std::count_if(order.begin(), order.end(), [&](Point p) { return frame.contains(p); }) ==
                      1);
        // Each place lies in waste, not in what stays.
        const Region art = r.area_of(r.set());
        for (const Point p : order)
            CHECK_FALSE(contains(art, p));
        // Leaving more out leaves less to pull off.
        const double pulled = r.figure(id, "pulled");
        step.small = mm(25);
        must(apply(ChangeStep{r.b.part, id, step}, r.b.project, catalog()));
        if (r.part().reports.at(id)->refused.empty() && r.figure(id, "left_out") > 0)
            CHECK(r.figure(id, "pulled") < pulled);
    }
}
