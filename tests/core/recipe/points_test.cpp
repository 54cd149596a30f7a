// Places for stones and holes: even, none on another, counted.
#include <cmath>
#include <numbers>

#include "core/base/text.h"
#include "tests/support/recipe.h"

using namespace dotlane;
using namespace dotlane::test;
using std::numbers::pi;

namespace {

std::vector<Point> middles(Recipe& r, StepId id) {
    std::vector<Point> out;
    for (const FlatLine& line : r.part().lines)
        if (line.set == r.result(id)) out.push_back(line.box.centre());
    return out;
}

double nearest(const std::vector<Point>& places) {
    double out = 1e9;
    for (std::size_t i = 0; i < places.size(); ++i)
        for (std::size_t k = i + 1; k < places.size(); ++k)
            out = std::min(out, distance(places[i], places[k]));
    return out;
}

} // namespace

TEST_CASE("places along lines are even, at both ends of an open line") {
    Recipe open("<path d='M20,50 H120' stroke='#111' fill='none'/>");
    PointsStep step;
    step.spacing = mm(7), step.size = mm(2);
    StepId id = open.add(step, {open.set()});
    auto places = middles(open, id);
    REQUIRE(places.size() == 15); // 100 / 7 is about 14 gaps
    CHECK(nearest(places) == Approx(100.0 / 14));
    CHECK(open.square(open.result(id)) == Approx(15 * pi).epsilon(8e-3));
    Recipe closed("<circle cx='60' cy='60' r='30' stroke='#111' fill='none'/>");
    id = closed.add(step, {closed.set()});
    places = middles(closed, id);
    CHECK(places.size() == static_cast<std::size_t>(std::lround(2 * pi * 30 / 7)));
    for (const Point p : places)
        CHECK(distance(p, {60, 60}) == Approx(30).margin(0.02));
    // A row inside the line.
    step.inset = mm(5);
    Recipe inside("<circle cx='60' cy='60' r='30' stroke='#111' fill='none'/>");
    id = inside.add(step, {inside.set()});
    for (const Point p : middles(inside, id))
        CHECK(distance(p, {60, 60}) == Approx(25).margin(0.02));
}

TEST_CASE("places over an area lie in a hexagonal packing, all within it") {
    Recipe r(rect(20, 20, 120, 90));
    PointsStep step;
    step.over = PointsStep::Over::areas, step.mark = PointsStep::Mark::marks, step.size = mm(3),
    step.spacing = mm(5), step.inset = mm(1);
    const StepId id = r.add(step, {r.set()});
    const auto places = middles(r, id);
    CHECK(nearest(places) == Approx(5));
    // The densest packing has one place for each s^2 sqrt(3) / 2; the edge costs half a row each way.
    const double room = 115 * 85, each = 25 * std::sqrt(3.0) / 2;
    CHECK(static_cast<double>(places.size()) > room / each * 0.98);
    CHECK(static_cast<double>(places.size()) < (115 + 5) * (85 + 5) / each * 1.02);
    for (const Point p : places)
        CHECK(Box{22.5, 22.5, 137.5, 107.5}.grown(1e-6).contains(p));
    CHECK(find(r.b.project, find(*find(r.b.project, r.b.part), id)->lane)->action == Action::draw);
}

TEST_CASE("of random lines no two places overlap, and what was left out is told") {
    Random random("points");
    for (int round = 0; round < 15; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        std::string drawing;
        for (int i = 0; i < 4; ++i) {
            const auto shape = random_ring(random, random.whole(3, 12), 10, 40,
                                           {random.real(60, 140), random.real(60, 140)});
            drawing += "<path stroke='#111' fill='none' d='M";
            for (const Point p : shape)
                drawing += number(p.x, 6) + "," + number(p.y, 6) + " ";
            drawing += "z'/>";
        }
        Recipe r(drawing);
        PointsStep step;
        step.size = mm(random.real(1, 5)), step.spacing = step.size * random.real(1, 2);
        const StepId id = r.add(step, {r.set()});
        const auto places = middles(r, id);
        CHECK(nearest(places) >= in_mm(step.size) - 0.02);
        CHECK(r.figure(id, "places") == static_cast<double>(places.size()));
        const double left = r.figure(id, "left_out");
        const auto& findings = r.part().findings;
        CHECK((left > 0) == std::any_of(findings.begin(), findings.end(),
                                        [](const Finding& f) { return f.code == "points.crowded"; }));
    }
}

TEST_CASE("places that would overlap, or be without end, are told with what would do") {
    Recipe r(rect(20, 20, 100, 100));
    PointsStep step;
    step.size = mm(6), step.spacing = mm(2);
    const StepId id = r.add(step, {r.set()});
    CHECK(nearest(middles(r, id)) >= 5.99);
    const auto findings = r.part().findings;
    const auto it = std::find_if(findings.begin(), findings.end(),
                                 [](const Finding& f) { return f.code == "points.overlap"; });
    REQUIRE(it != findings.end());
    StepWhat what = step;
    REQUIRE(mend(what, *it, nullptr));
    find(*find(r.b.project, r.b.part), id)->what = what;
    for (const Finding& f : r.part().findings)
        CHECK(f.code != "points.overlap");
    Recipe large(rect(0, 0, 5000, 5000));
    step.over = PointsStep::Over::areas, step.size = mm(0.3), step.spacing = mm(0.3);
    const StepId endless = large.add(step, {large.set()});
    CHECK(large.part().reports.at(endless)->refused.english().find("would do") != std::string::npos);
    // A thin strip across a large box is no large area: it is filled.
    Recipe strip("<path d='M0,0 L3000,2990 L3000,3000 L0,10 z' fill='#111'/>");
    step.size = mm(1), step.spacing = mm(2);
    const StepId made = strip.add(step, {strip.set()});
    CHECK(strip.part().reports.at(made)->refused.empty());
    CHECK(strip.figure(made, "places") > 3000);
}
