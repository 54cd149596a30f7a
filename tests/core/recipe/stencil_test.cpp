// Stencils: islands found, bridges where they are wished, and one sheet that hangs together, counted by
// flooding a raster that knows nothing of regions.
#include <cmath>
#include <numbers>
#include <sstream>

#include "core/base/text.h"
#include "core/commands/parts.h"
#include "core/commands/remedies.h"
#include "core/commands/steps.h"
#include "core/recipe/bridges.h"
#include "core/recipe/webs.h"
#include "tests/support/recipe.h"

using namespace dotlane;
using namespace dotlane::test;
using std::numbers::pi;

namespace {

std::string circle(double x, double y, double r, const char* more = "") {
    std::ostringstream out;
    out << "M" << x - r << "," << y << "a" << r << "," << r << " 0 1,0 " << 2 * r << ",0a" << r << "," << r
        << " 0 1,0 " << -2 * r << ",0z" << more;
    return out.str();
}
std::string evenodd(const std::string& d) {
    return "<path fill='#111' fill-rule='evenodd' d='" + d + "'/>";
}

/// Squares of 0.05 mm, open ones by counting edges to their left (even-odd); what the sheet's corner is
/// joined to by material is flooded.
struct Flood {
    std::size_t material = 0, reached = 0, open = 0;
    explicit Flood(const Polylines& openings) {
        constexpr double side = 0.05;
        const Box box = bounds(openings).grown(1);
        const auto columns = static_cast<std::size_t>(box.width() / side) + 1,
                   rows = static_cast<std::size_t>(box.height() / side) + 1;
        std::vector<char> state(columns * rows, 0); // 1: open, 2: reached
        std::vector<std::vector<double>> crossings(rows);
        for (const Polyline& line : openings)
            for (std::size_t i = 0; i < line.points.size(); ++i) {
                const Point a = line.points[i], b = line.points[(i + 1) % line.points.size()];
                for (std::size_t r = 0; r < rows; ++r) {
                    const double y = box.y0 + (static_cast<double>(r) + 0.5) * side;
                    if ((a.y > y) == (b.y > y)) continue;
                    crossings[r].push_back(a.x + (b.x - a.x) * (y - a.y) / (b.y - a.y));
                }
            }
        for (std::size_t r = 0; r < rows; ++r) {
            std::sort(crossings[r].begin(), crossings[r].end());
            std::size_t passed = 0;
            for (std::size_t c = 0; c < columns; ++c) {
                const double x = box.x0 + (static_cast<double>(c) + 0.5) * side;
                while (passed < crossings[r].size() && crossings[r][passed] < x)
                    ++passed;
                state[r * columns + c] = passed % 2 == 1;
                (passed % 2 == 1 ? open : material) += 1;
            }
        }
        std::vector<std::size_t> next{0};
        state[0] = 2;
        while (!next.empty()) {
            const std::size_t at = next.back();
            next.pop_back();
            ++reached;
            const std::size_t c = at % columns, r = at / columns;
            const auto visit = [&](std::size_t to) {
                if (state[to] == 0) state[to] = 2, next.push_back(to);
            };
            if (c > 0) visit(at - 1);
            if (c + 1 < columns) visit(at + 1);
            if (r > 0) visit(at - columns);
            if (r + 1 < rows) visit(at + columns);
        }
    }
};

Polylines lines_of(const Recipe& r, LineSetId set) {
    Polylines out;
    for (const FlatLine& line : r.derived->part(r.b.part)->lines)
        if (line.set == set) out.insert(out.end(), line.contours.begin(), line.contours.end());
    return out;
}

StencilStep bare() {
    StencilStep out;
    out.margin = {};
    return out;
}

/// Of a strip of width w across a ring, by integrating the circles.
double strip_of_ring(double outer, double inner, double w) {
    const auto half = [w](double r) {
        const double x = w / 2;
        return x * std::sqrt(r * r - x * x) + r * r * std::asin(x / r);
    };
    return half(outer) - half(inner);
}

} // namespace

TEST_CASE("a ring gets its bridges evenly around, and loses exactly their strips") {
    Random random("rings with bridges");
    for (int round = 0; round < 12; ++round) {
        const double outer = random.real(12, 40), inner = outer * random.real(0.3, 0.8);
        Recipe r(evenodd(circle(60, 60, outer) + circle(60, 60, inner)));
        StencilStep step = bare();
        step.bridges = random.whole(1, 6), step.width = mm(random.real(0.5, 2));
        INFO("seed " << random.seed() << " round " << round << ": " << step.bridges << " bridges");
        const StepId id = r.add(step, {r.set()});
        CHECK(r.figure(id, "islands") == 1);
        REQUIRE(r.figure(id, "bridges") == step.bridges);
        CHECK(r.figure(id, "pieces") == step.bridges); // so many arcs are left
        CHECK(r.figure(id, "sheet_pieces") == 1);
        const double strips = step.bridges * strip_of_ring(outer, inner, in_mm(step.width));
        // Circles are flattened to 0.01 mm: the nearest place may lie some tenths beside the radius.
        CHECK(r.square(r.result(id)) == Approx(pi * (outer * outer - inner * inner) - strips).epsilon(1e-2));
        // Arcs between bridges are as long as one another, to the places that are looked at.
        std::vector<double> arcs;
        for (const Region& piece : pieces(r.area_of(r.result(id))))
            arcs.push_back(in_square_mm(area(piece)));
        const auto [least, most] = std::minmax_element(arcs.begin(), arcs.end());
        if (step.bridges > 1) CHECK(*least > 0.8 * *most);
    }
}

TEST_CASE("the sheet is one piece, by flooding a raster, for letters with counters and rings in rings") {
    Random random("stencils flooded");
    const char* families[] = {"Lobster Two", "League Spartan", "EB Garamond"};
    for (int round = 0; round < 9; ++round) {
        const auto place = static_cast<StencilStep::Place>(round % 3);
        std::string d;
        if (round < 6) {
            const auto text =
                must(fonts().outline({families[round % 3]}, mm(random.real(18, 40)), "BOg8&ea"));
            Shape shape;
            for (const auto& glyph : text.glyphs)
                shape.contours.insert(shape.contours.end(), glyph.shape.contours.begin(),
                                      glyph.shape.contours.end());
            const Region letters = region_of(shape, mm(0.01));
            const Box b = bounds(letters);
            for (const Ring& ring : letters.rings) {
                d += "M";
                for (const Point p : ring)
                    d += number(p.x - b.x0 + 10, 6) + "," + number(p.y - b.y0 + 10, 6) + " ";
                d += "z";
            }
        } else
            for (int k = 6; k > 0; --k)
                d += circle(60 + random.real(-0.5, 0.5), 60, 8 * k);
        Recipe r(evenodd(d));
        const double before = r.square(r.set());
        StencilStep step = bare();
        step.place = place, step.width = mm(random.real(0.8, 1.6)),
        step.direction = degrees(random.real(0, 180));
        INFO("seed " << random.seed() << " round " << round);
        const StepId id = r.add(step, {r.set()});
        CHECK(r.figure(id, "islands") >= 3);
        CHECK_FALSE(has(r.derived->findings, "stencil.loose"));
        CHECK_FALSE(has(r.derived->findings, "stencil.closed"));
        CHECK_FALSE(has(r.derived->findings, "stencil.not-one"));
        const Polylines openings = lines_of(r, r.result(id));
        const Flood flood(openings);
        CHECK(flood.reached == flood.material);
        // Most of what was open still is.
        const double after = static_cast<double>(flood.open) * 0.05 * 0.05;
        CHECK(after > 0.6 * before);
        CHECK(after == Approx(r.square(r.result(id))).epsilon(0.01));
        // Without bridges it falls apart: the flood would see that.
        Polylines bare_ones = lines_of(r, r.set());
        const Flood none(bare_ones);
        CHECK(none.reached < none.material);
    }
}

TEST_CASE("outlines in one another are openings and islands by turns, however they were drawn") {
    // Rings of two circles each: pi (R^2 - r^2) by turns inwards. As outlines of their own, and as one path.
    Random random("rings one by one");
    for (int round = 0; round < 8; ++round) {
        std::vector<double> radii;
        for (double r = random.real(45, 50); r > 5; r -= random.real(4, 12))
            radii.push_back(r);
        std::string outlines, path;
        double square = 0;
        for (std::size_t i = 0; i < radii.size(); ++i) {
            outlines += "<path fill='none' stroke='#111' d='" + circle(60, 60, radii[i]) + "'/>";
            path += circle(60, 60, radii[i]);
            square += (i % 2 ? -1 : 1) * pi * radii[i] * radii[i];
        }
        // Drawn twice, it is still one outline; a filled one beside them hides nothing in it.
        if (round % 2) outlines += "<path fill='none' stroke='#111' d='" + circle(60, 60, radii[0]) + "'/>";
        INFO("seed " << random.seed() << " round " << round << ", " << radii.size() << " circles");
        StencilStep step = bare();
        step.bridges = 2, step.width = step.least = mm(1);
        Recipe each(outlines), one(evenodd(path));
        const StepId a = each.add(step, {each.set()}), b = one.add(step, {one.set()});
        CHECK(each.figure(a, "islands") == static_cast<double>(radii.size() / 2));
        CHECK(each.figure(a, "islands") == one.figure(b, "islands"));
        CHECK(each.figure(a, "sheet_pieces") == 1);
        CHECK(each.square(each.result(a)) == Approx(one.square(one.result(b))).epsilon(0.005));
        CHECK(each.square(each.result(a)) < square);
        CHECK(each.told("stencil.nested"));
        CHECK_FALSE(each.told("stencil.web")); // bridges as wide as the least strip are no narrower
        CHECK_FALSE(one.told("stencil.nested"));
    }
    // What is filled is a surface: one on another of the same colour is one opening.
    Recipe filled("<circle cx='60' cy='60' r='40' fill='#111'/><circle cx='60' cy='60' r='20' fill='#111'/>");
    const StepId id = filled.add(bare(), {filled.set()});
    CHECK(filled.figure(id, "islands") == 0);
}

TEST_CASE("bridges run in the wished direction, and by hand where they were put, also at another size") {
    Recipe r(evenodd(circle(60, 60, 40) + circle(60, 60, 25)));
    StencilStep step = bare();
    step.place = StencilStep::Place::along, step.direction = degrees(90), step.bridges = 2;
    const StepId id = r.add(step, {r.set()});
    CHECK(r.figure(id, "bridges") == 2);
    const auto middle_is_open = [&](double x, double y) { return contains(r.area_of(r.result(id)), {x, y}); };
    CHECK_FALSE(middle_is_open(60, 60 - 32.5)); // above
    CHECK(middle_is_open(60 - 32.5, 60));
    // By hand to the left: at 0 50 of the box, and so it stays when the part is twice as large.
    step.at = "0 50";
    must(apply(ChangeStep{r.b.part, id, step}, r.b.project, catalog()));
    CHECK(r.figure(id, "bridges") == 1);
    CHECK_FALSE(middle_is_open(60 - 32.5, 60));
    CHECK(middle_is_open(60, 60 - 32.5));
    must(scale_part(r.b.project, r.b.part, 2));
    CHECK(r.figure(id, "bridges") == 1);
    CHECK_FALSE(middle_is_open(2 * (60 - 32.5), 120));
    // A press takes it away again, and puts one elsewhere.
    r.part();
    must(apply(PressStep{r.b.part, id, {2 * 20.0, 120}}, r.b.project, catalog(), *r.derived->part(r.b.part)));
    CHECK(std::get<StencilStep>(find(*find(r.b.project, r.b.part), id)->what).at.empty());
    r.part();
    must(apply(PressStep{r.b.part, id, {120, 2 * 97.0}}, r.b.project, catalog(), *r.derived->part(r.b.part)));
    CHECK_FALSE(middle_is_open(120, 2 * (60 + 32.5)));
    step.at = "nowhere";
    must(apply(ChangeStep{r.b.part, id, step}, r.b.project, catalog()));
    CHECK(has(r.b.derive()->findings, "stencil.places"));
}

TEST_CASE("a bridge wider than the opening closes it, which is told with its place and mended") {
    Recipe r(evenodd(circle(60, 60, 2) + circle(60, 60, 1)));
    StencilStep step = bare();
    step.width = mm(8), step.at = "0 50; 100 50"; // each covers half of it
    const StepId id = r.add(step, {r.set()});
    r.part();
    const Finding told = get(r.derived->findings, "stencil.closed");
    CHECK(told.place.box.x0 == Approx(58).margin(0.05));
    for (int tries = 0; tries < 12 && has(r.b.derive()->findings, "stencil.closed"); ++tries) {
        const auto derived = r.b.derive();
        must(apply(MendFinding{get(derived->findings, "stencil.closed")}, r.b.project, catalog(), *derived));
    }
    CHECK_FALSE(has(r.b.derive()->findings, "stencil.closed"));
    CHECK(r.figure(id, "sheet_pieces") == 1);
}

TEST_CASE("webs are the distances of squares from one another and from the sheet's edge") {
    Random random("webs of squares");
    for (int round = 0; round < 10; ++round) {
        // The first two lie just below and just above what is told.
        const double gap = random.real(0.3, 3), margin = round == 0   ? 0.985
                                                         : round == 1 ? 0.995
                                                                      : random.real(0.2, 4);
        INFO("seed " << random.seed() << " gap " << gap << " margin " << margin);
        Recipe r(rect(20, 20, 15, 15) + rect(35 + gap, 22, 15, 15));
        StencilStep step;
        step.margin = mm(margin), step.least = mm(1);
        const StepId id = r.add(step, {r.set()});
        CHECK(r.figure(id, "narrowest_web") == Approx(std::min(gap, margin)).margin(1e-3));
        // Both sides are curves flattened to 0.01 mm: what is short by less than 0.02 is not told.
        CHECK(has(r.derived->findings, "stencil.web") == (std::min(gap, margin) < 1 - 0.02));
        CHECK(r.count(r.result(id)) == 3); // with the sheet's own edge
        // What it stands for is set aside, and it is cut.
        CHECK(find(*find(r.b.project, r.b.part), r.set())->set_aside);
        const Step& made = *find(*find(r.b.project, r.b.part), id);
        CHECK(find(r.b.project, made.lane)->action == Action::cut);
    }
}

TEST_CASE("an island from whose hollow nothing is in sight is held all the same") {
    // A deep U in a triangle: from within the U all three edges around are hidden.
    Recipe r(evenodd("M0,90L60,-30L120,90z"
                     "M50,40H55V70H65V40H70V75H50z"));
    const StepId id = r.add(bare(), {r.set()});
    CHECK(r.figure(id, "islands") == 1);
    CHECK(r.figure(id, "sheet_pieces") == 1);
}

TEST_CASE("strips of material by which parts hang are found, corners and fine curves are none") {
    Random random("strips");
    const auto under = [](const Polylines& lines, double width) {
        return webs_under(region_of(lines, FillRule::evenodd), mm(width));
    };
    for (int round = 0; round < 100; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        // Two squares beside one another; a disc with a fine edge; an opening that all but closes on itself.
        const double gap = random.real(0.01, 0.3), width = random.real(0.02, 0.3);
        if (std::abs(gap - width) < 1e-4) continue;
        const auto found = under({ring({{0, 0}, {10, 0}, {10, 10}, {0, 10}}),
                                  ring({{10 + gap, 3}, {20, 3}, {20, 7}, {10 + gap, 7}})},
                                 width);
        CHECK(found.empty() == (gap > width));
        for (const Point p : found)
            CHECK(p.x == Approx(10 + gap / 2).margin(1e-3));
        CHECK(under({ring(regular(random.whole(100, 3000), random.real(1, 30)))}, width).empty());
        const auto c = under({ring({{0, 0},
                                    {10, 0},
                                    {10, 4},
                                    {6 + gap, 4},
                                    {6 + gap, 3},
                                    {9, 3},
                                    {9, 1},
                                    {1, 1},
                                    {1, 3},
                                    {6, 3},
                                    {6, 4},
                                    {0, 4}})},
                             width);
        CHECK(c.empty() == (gap > width));
    }
    // Spikes are corners, however sharp they end.
    for (const double degrees : {12.0, 8.0, 4.0}) {
        const double half = 5 * std::tan(degrees / 2 * pi / 180);
        CHECK(under({ring({{0, 0}, {10, 0}, {10, 10}, {5 + half, 10}, {5, 5}, {5 - half, 10}, {0, 10}})}, 0.1)
                  .empty());
    }
    // Where a spike of material ends, also one that gets thin half way, nothing hangs on it; what is wider
    // than twice the strip does.
    const auto spike = [&](double degrees, double thin, double head) {
        const double half = degrees / 2 * pi / 180;
        return under({ring({{0, 0},
                            {10, 0},
                            {10, 10},
                            {5 + 5 * std::tan(half), 10},
                            {5 + thin / 2, 5},
                            {5 + head / 2, 4},
                            {5, 3},
                            {5 - head / 2, 4},
                            {5 - thin / 2, 5},
                            {5 - 5 * std::tan(half), 10},
                            {0, 10}})},
                     0.1);
    };
    for (const double degrees : {12.0, 8.0, 4.0}) {
        CHECK(spike(degrees, 0.06, 0.04).empty());
        CHECK(spike(degrees, 0.06, 0.15).empty());
        CHECK(spike(degrees, 0.12, 0.5).empty());
        const auto hangs = spike(degrees, 0.06, 0.5);
        REQUIRE_FALSE(hangs.empty());
        CHECK(hangs.front().y == Approx(5).margin(0.01));
    }
    // A star's openings that touch in points are found.
    const auto touching =
        under({ring({{0, 0}, {4, 0}, {4, 4}, {0, 4}}), ring({{4, 4}, {8, 4}, {8, 8}, {4, 8}})}, 0.1);
    CHECK_FALSE(touching.empty());
}

TEST_CASE("a negative stencil opens what lies around, and holds the shapes by bridges") {
    Recipe r(rect(30, 30, 30, 20) + rect(80, 30, 20, 20));
    StencilStep step;
    step.negative = true, step.margin = mm(12);
    const StepId id = r.add(step, {r.set()});
    CHECK(r.figure(id, "islands") == 2);
    CHECK(r.figure(id, "sheet_pieces") == 1);
    CHECK(r.figure(id, "bridges") >= 4);
    // 70 x 20 grown by 6 each side, less the shapes and some bridges.
    CHECK(r.figure(id, "open") < 82 * 32 - 600 - 400);
    CHECK(r.figure(id, "open") > 0.85 * (82 * 32 - 600 - 400));
}

TEST_CASE("bridges that follow the stroke take the sector of a bend, as wide as asked at its narrow end") {
    Random random("bridges along bends");
    for (int round = 0; round < 20; ++round) {
        const double inner = random.real(6, 20), outer = inner * random.real(1.2, 2.2),
                     width = random.real(0.5, 2.5);
        INFO("seed " << random.seed() << " round " << round << ": " << inner << " to " << outer << ", "
                     << width);
        Recipe r(evenodd(circle(60, 60, outer) + circle(60, 60, inner)));
        StencilStep step = bare();
        step.bridges = 3, step.width = mm(width);
        const double ring = r.square(r.set());
        const StepId straight = r.add(step, {r.set()});
        const double strips = (ring - r.figure(straight, "open")) / 3;
        CHECK(strips == Approx(width * (outer - inner)).epsilon(0.05).margin(0.05)); // its ends are bent
        step.sides = StencilStep::Sides::stroke;
        must(apply(ChangeStep{r.b.part, straight, step}, r.b.project, catalog()));
        // From the width at the inner edge the sides run away from the middle.
        const double widening = std::min(outer / inner, 3.0);
        const double sector = (outer - inner) * width * (1 + widening) / 2;
        CHECK((ring - r.figure(straight, "open")) / 3 == Approx(sector).epsilon(0.1).margin(0.05));
        CHECK(r.figure(straight, "bridges") == 3);
        CHECK(r.figure(straight, "sheet_pieces") == 1);
        CHECK_FALSE(r.told("stencil.narrow"));
    }
}
