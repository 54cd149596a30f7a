// Fabric patches: what is cut of each fabric, allowances whose curves lie flat, the map to lay pieces by, and
// what is to be bought.
#include <cmath>
#include <numbers>

#include "core/base/text.h"
#include "core/commands/apart.h"
#include "core/commands/remedies.h"
#include "core/commands/steps.h"
#include "core/recipe/allowance.h"
#include "tests/support/recipe.h"

using namespace dotlane;
using namespace dotlane::test;
using std::numbers::pi;

namespace {

std::string cloth_piece(double x, double y, double w, double h, const char* colour) {
    return "<rect x='" + number(x, 6) + "' y='" + number(y, 6) + "' width='" + number(w, 6) + "' height='" +
           number(h, 6) + "' fill='" + colour + "'/>";
}

Region square_of(double side) {
    return region_of(Shape{{rectangle({0, 0, side, side})}});
}

} // namespace

TEST_CASE("corners of an allowance are whole, cut so that folds meet, or cut close") {
    // A square of 40 with an allowance of 5: whole corners add four squares of 5; corners cut at k times 5
    // from the corner lose four triangles that are as wide as twice their height, 5 * (sqrt 2 - k).
    for (const double k : {2.5, 1.0, 0.5}) {
        const double lost = k >= std::sqrt(2.0) ? 0 : 4 * std::pow(5 * (std::sqrt(2.0) - k), 2);
        CHECK(in_square_mm(area(with_allowance(square_of(40), mm(5), k))) ==
              Approx(2500 - lost).epsilon(1e-4));
    }
    // A star's tip reaches d / sin a beyond it, a being half its angle (facts.md), unless it is cut across.
    const double half = pi / 10, tip = 5 / std::sin(half);
    const double r1 = 40, r2 = r1 * std::sin(half) / std::sin(pi - half - pi / 5);
    std::vector<Point> star;
    for (int i = 0; i < 10; ++i) {
        const double a = i * pi / 5 - pi / 2, r = i % 2 == 0 ? r1 : r2;
        star.push_back({r * std::cos(a), r * std::sin(a)});
    }
    const Region region = region_of({Polyline{star, true}}, FillRule::nonzero);
    CHECK(-bounds(with_allowance(region, mm(5), 10)).y0 == Approx(40 + tip).margin(0.02));
    CHECK(-bounds(with_allowance(region, mm(5), 2)).y0 == Approx(50).margin(0.02));
    CHECK(-bounds(with_allowance(region, mm(5), 0.5)).y0 == Approx(42.5).margin(0.02));
}

TEST_CASE("an allowance of random shapes holds them, and is nowhere wider than it may be") {
    Random random("allowances");
    for (int i = 0; i < 40; ++i) {
        INFO("seed " << random.seed() << " round " << i);
        const Region seam =
            region_of({ring(random_ring(random, random.whole(3, 24), 10, 40))}, FillRule::nonzero);
        const double by = random.real(1, 8), reach = random.real(0.5, 4);
        const Region made = with_allowance(seam, mm(by), reach);
        CHECK(in_square_mm(area(subtracted(seam, made))) < 1e-3);
        // The ends of the cut across a corner lie farthest off: for ever sharper corners sqrt(reach^2 + 1).
        const double most = std::sqrt(reach * reach + 1) * by;
        CHECK(in_square_mm(area(subtracted(made, offset(seam, mm(most + 0.05))))) < 1e-3);
        // Away from corners it is as wide as asked: a point of an edge's middle, moved outwards.
        for (const Ring& r : seam.rings)
            for (std::size_t k = 0; k < r.size(); ++k) {
                const Point a = r[k], b = r[(k + 1) % r.size()];
                if (distance(a, b) < 4 * by) continue;
                const Point n = Point{b.y - a.y, a.x - b.x} * (1 / distance(a, b));
                const Point p = mix(a, b, 0.5);
                CHECK(contains(made, p + n * (by * 0.99)));
            }
    }
}

TEST_CASE("in a narrow notch the cut across one corner takes nothing of the edge on the other side") {
    // The notch is 7.6 mm deep on the side of its sharp corner, and 26.8 mm on the other.
    const Region seam = region_of({ring({{24.8, -29.4},
                                         {26.3, 11.8},
                                         {22.763, 27.567},
                                         {6.789, 13.65},
                                         {0.61, 19.112},
                                         {-0.505, 11.585},
                                         {-17.362, 32.472},
                                         {-21.3, -30}})},
                                  FillRule::nonzero);
    const Point a{-0.505, 11.585}, b{-17.362, 32.472}, p = mix(a, b, 0.5),
                                                       n = Point{b.y - a.y, a.x - b.x} * (1 / distance(a, b));
    for (const double reach : {0.5, 0.8722, 1.0, 1.5}) {
        INFO(reach);
        CHECK(contains(with_allowance(seam, mm(6.6672), reach), p + n * 6.6));
    }
}

TEST_CASE("a hollow curve has as many clips as its bend asks for, none of a straight edge") {
    // A round hole of radius R: chords of w = sqrt(8 R 0.3) leave the curve by 0.3 mm, so it takes
    // ceil(2 pi R / w) clips.
    for (const double radius : {8.0, 15.0, 30.0, 60.0}) {
        const Region plate = subtracted(region_of(Shape{{rectangle({-100, -100, 100, 100})}}),
                                        region_of(Shape{{ellipse({}, radius, radius)}}));
        const CurveCuts cuts = curve_cuts(plate, mm(6), [](Point) { return true; });
        const double wanted = 2 * pi * radius / std::sqrt(8 * radius * 0.3);
        CHECK(static_cast<double>(cuts.clips.size()) >= wanted - 0.5);
        CHECK(static_cast<double>(cuts.clips.size()) <= wanted + 1.5);
        CHECK(cuts.notches == 0);
        for (const Polyline& clip :
             cuts.clips) { // stops 1 mm short of the line, ends at the edge of the cloth
            CHECK(length(clip.points[1]) == Approx(radius - 1).margin(0.05));
            CHECK(length(clip.points[0]) == Approx(std::abs(radius - 6)).margin(0.05));
        }
        // The other way round the same curve is full: notches take out what would lie double, 2 pi (R + 6) -
        // 2 pi (R - 6) in all along the edge, less where a notch may be no wider than nine tenths of its
        // share.
        const CurveCuts full =
            curve_cuts(region_of(Shape{{ellipse({}, radius, radius)}}), mm(6), [](Point) { return true; });
        CHECK(full.clips.empty());
        CHECK(std::abs(static_cast<double>(full.notches) - wanted) <= 1.5);
        double wide = 0;
        const Region edge = subtracted(region_of(Shape{{ellipse({}, radius + 6, radius + 6)}}),
                                       region_of(Shape{{ellipse({}, radius + 5.99, radius + 5.99)}}));
        wide = in_square_mm(area(intersected(full.notched, edge))) / 0.01;
        const double doubled = std::min(2 * pi * 12, 0.9 * 2 * pi * (radius + 6));
        CHECK(wide == Approx(doubled).epsilon(0.07)); // straight sides across a round edge
    }
    const CurveCuts straight = curve_cuts(square_of(80), mm(6), [](Point) { return true; });
    CHECK(straight.clips.empty());
    CHECK(straight.notches == 0);
    // A hollow corner takes one, to the corner.
    const Region angle = region_of({Polyline{{{0, 0}, {60, 0}, {60, 30}, {30, 30}, {30, 60}, {0, 60}}, true}},
                                   FillRule::nonzero);
    const CurveCuts corner = curve_cuts(angle, mm(6), [](Point) { return true; });
    REQUIRE(corner.clips.size() == 1);
    CHECK(distance(corner.clips[0].points[1], {30, 30}) ==
          Approx(std::sqrt(2.0)).margin(0.06)); // in steps of a twentieth
}

TEST_CASE("a raw patch is cut on the line, mirrored for fusible web and not for the top") {
    // An L, which is not its own mirror.
    const std::string shape = "<path d='M20,20h60v20h-40v40h-20z' fill='#a8462d'/>";
    for (const bool mirrored : {true, false}) {
        Recipe r(shape);
        PatchStep step;
        step.web = mirrored ? PatchStep::Web::mirrored : PatchStep::Web::top;
        const StepId id = r.add(step, {r.set()});
        CHECK(r.square(r.result(id)) == Approx(2000).epsilon(1e-6));
        CHECK(contains(r.area_of(r.result(id)), {75, 25}));
        CHECK(contains(r.area_of(r.result(id)), {25, 75}) != mirrored);
        CHECK(contains(r.area_of(r.result(id)), {75, 75}) == mirrored);
        CHECK(r.part().reports.at(id)->from_behind == mirrored);
        // Its number is read on the face that is seen, so it is the same either way, but for its place.
        const Polylines number = r.contours_of(r.of_role(id, role::number));
        REQUIRE_FALSE(number.empty());
        // A 1 of the stroke font leans to the left of its stem: its leftmost point lies above its middle.
        const Box box = bounds(number);
        for (const Polyline& line : number)
            for (const Point p : line.points)
                if (p.x < box.x0 + 0.1 * box.width()) CHECK(p.y < box.centre().y);
        // The drawing itself is not cut any more.
        CHECK(find(*find(r.b.project, r.b.part), r.set())->set_aside);
    }
}

TEST_CASE(
    "of layered fabrics the lower ones run on below the upper ones by the underlap, as far as these reach") {
    Recipe r(cloth_piece(10, 10, 100, 60, "#2f5d62") + cloth_piece(60, 20, 30, 40, "#d9822b"));
    PatchStep step;
    step.underlap = mm(4), step.web = PatchStep::Web::top, step.cloth = mm(500), step.copies = 12;
    const StepId id = r.add_whole(step);
    CHECK(r.figure(id, "fabrics") == 2);
    CHECK(r.figure(id, "seen") == Approx(6000));
    // Below the upper one stays a rim of 4 mm: its area less one that is 8 mm smaller each way.
    CHECK(r.figure(id, "cut") == Approx(6000 + 30 * 40 - 22 * 32));
    const auto& needs = r.part().reports.at(id)->needs;
    REQUIRE(needs.size() == 2);
    CHECK(in_mm(needs[0].width) == Approx(120));
    CHECK(in_mm(needs[0].height) == Approx(80));
    REQUIRE(needs[0].cloth);
    CHECK(in_mm(needs[0].cloth->length) == Approx(240)); // four side by side on 500 mm, three rows
    CHECK(in_mm(needs[1].cloth->length) ==
          Approx(120)); // ten side by side of 50 mm; twelve take two rows of 60
}

TEST_CASE("the order of fabrics is that of the drawing, or the maker's") {
    const std::string drawing =
        cloth_piece(10, 10, 60, 60, "#2f5d62") + cloth_piece(40, 40, 60, 60, "#d9822b");
    const auto cut_of = [&](const char* order) {
        Recipe r(drawing);
        PatchStep step;
        step.underlap = mm(0), step.web = PatchStep::Web::top, step.order = order;
        const StepId id = r.add_whole(step);
        std::vector<std::string> out; // the lowest first: where it begins, how much is cut of it
        for (const FlatLine& line : r.part().lines)
            if (line.set == r.result(id))
                out.push_back(number(line.box.x0, 1) + " " +
                              number(in_square_mm(area(region_of(line.contours, line.rule))), 1));
        return out;
    };
    const std::vector<std::string> as_drawn{"10 2700", "40 3600"}, other{"40 2700", "10 3600"};
    CHECK(cut_of("") == as_drawn);
    CHECK(cut_of("1 2") == as_drawn);
    CHECK(cut_of("2, 1") == other);
    CHECK(cut_of("2") == other); // what is not named lies on top
    Recipe r(drawing);
    PatchStep step;
    for (const char* wrong : {"3", "0", "1 1", "first", "1 2 3"}) {
        step.order = wrong;
        Recipe each(drawing);
        const StepId id = each.add_whole(step);
        CHECK_FALSE(each.part().reports.at(id)->refused.empty());
    }
}

TEST_CASE("a turned patch has its allowance where nothing lies on it, a turning line there, and clips") {
    Recipe r(cloth_piece(10, 10, 100, 60, "#2f5d62") + cloth_piece(60, 20, 30, 80, "#d9822b"));
    PatchStep step;
    step.edge = PatchStep::Edge::turned, step.allowance = mm(6), step.corners = PatchStep::Corners::folded;
    step.underlap = mm(5), step.web = PatchStep::Web::top;
    const StepId id = r.add_whole(step);
    const Part& part = *find(r.b.project, r.b.part);
    const Polylines turning = r.contours_of(r.of_role(id, role::turning));
    // Lower: its outline less the 30 mm of it that the upper one crosses, less the upper one's two sides on
    // it; upper: all around.
    CHECK(in_mm(length(turning)) == Approx(2 * 160 - 30 + 2 * 110).margin(1));
    CHECK(find(r.b.project, find(part, r.of_role(id, role::turning))->lane)->action == Action::draw);
    CHECK(find(r.b.project, find(part, r.of_role(id, role::clip))->lane)->action == Action::cut);
    // The lower piece has 6 mm around it but none below the upper one beyond 5.
    const Region cut = r.area_of(r.result(id));
    CHECK(contains(cut, {5, 40}));
    CHECK(contains(cut, {100, 5}));
    // Raw needs no turning line; its line set stays for when there is one again.
    PatchStep raw = step;
    raw.edge = PatchStep::Edge::raw;
    must(apply(ChangeStep{r.b.part, id, raw}, r.b.project, catalog()));
    CHECK(r.contours_of(r.of_role(id, role::turning)).empty());
    must(apply(ChangeStep{r.b.part, id, step}, r.b.project, catalog()));
    CHECK_FALSE(r.contours_of(r.of_role(id, role::turning)).empty());
}

TEST_CASE("the map shows each piece in its place with its number, satin band and tack-down line") {
    Recipe r(cloth_piece(10, 10, 100, 60, "#2f5d62") + cloth_piece(60, 20, 30, 40, "#d9822b"));
    PatchStep step;
    step.lines = PatchStep::Lines::map, step.satin = mm(4), step.inside = 75, step.tack_in = mm(2);
    const StepId id = r.add_whole(step);
    const Part& part = *find(r.b.project, r.b.part);
    CHECK(find(r.b.project, find(part, id)->lane)->action == Action::draw);
    // Never mirrored, and the edge that both pieces have is drawn once.
    CHECK(in_mm(length(r.contours_of(r.result(id)))) == Approx(2 * (100 + 60) + 2 * (30 + 40)));
    CHECK(bounds(r.contours_of(r.result(id))).width() == Approx(100));
    CHECK(r.figure(id, "pieces") == 2);
    CHECK(r.contours_of(r.of_role(id, role::number)).size() >= 2);
    // Satin of the upper one: 3 mm inside and 1 mm outside, with round corners; of the lower one outside, and
    // inside less what the upper one hides.
    const double upper = 2 * (24 + 34) + 2 * (30 + 40) + 2 * pi * 1;
    const double lower = 2 * (94 + 54) + 2 * 160 + 2 * pi * 1 + 2 * (36 + 46) - 0 + 2 * (28 + 38) * 0;
    const double made = in_mm(length(r.contours_of(r.of_role(id, role::satin))));
    CHECK(made > upper + 2 * (94 + 54) + 2 * 160);
    CHECK(made < upper + lower);
    const Polylines tack = r.contours_of(r.of_role(id, role::tack));
    CHECK(in_mm(length(tack)) > 2 * (26 + 36) + 2 * (96 + 56) - 1);
    // Made as a map only later, it goes where maps go, and its pieces where pieces go.
    Recipe turned(cloth_piece(10, 10, 100, 60, "#2f5d62") + cloth_piece(60, 20, 30, 40, "#d9822b"));
    const StepId late = turned.add_whole(PatchStep{});
    const auto action_of = [&](LaneId lane) { return find(turned.b.project, lane)->action; };
    CHECK(action_of(find(*find(turned.b.project, turned.b.part), late)->lane) == Action::cut);
    must(apply(ChangeStep{turned.b.part, late, step}, turned.b.project, catalog()));
    CHECK(action_of(find(*find(turned.b.project, turned.b.part), late)->lane) == Action::draw);
    CHECK(action_of(find(*find(turned.b.project, turned.b.part), turned.of_role(late, role::satin))->lane) ==
          Action::draw);
    must(apply(ChangeStep{turned.b.part, late, PatchStep{}}, turned.b.project, catalog()));
    CHECK(action_of(find(*find(turned.b.project, turned.b.part), late)->lane) == Action::cut);
    // Zigzag goes to either side by half of how far it lies inside.
    PatchStep zigzag = step;
    zigzag.tack = PatchStep::Tack::zigzag;
    must(apply(ChangeStep{r.b.part, id, zigzag}, r.b.project, catalog()));
    const Region lower_fabric = region_of(Shape{{rectangle({10, 10, 110, 70})}});
    for (const Polyline& line : r.contours_of(r.of_role(id, role::tack)))
        for (const Point p : line.points)
            CHECK(contains(lower_fabric, p));
}

TEST_CASE("fabrics lie on one another without crossing, and their map is of the same fabrics") {
    Recipe r(cloth_piece(10, 10, 100, 60, "#2f5d62") + cloth_piece(60, 20, 80, 80, "#d9822b"));
    const StepId pieces = r.add_whole(PatchStep{});
    r.part();
    CHECK(has(r.derived->findings, "patch.together"));
    CHECK_FALSE(has(r.derived->findings, "piece.cross"));
    PatchStep lines;
    lines.lines = PatchStep::Lines::map;
    const StepId map = r.add_whole(lines);
    CHECK(find(*find(r.b.project, r.b.part), map)->of == find(*find(r.b.project, r.b.part), pieces)->of);
    CHECK(r.figure(map, "fabrics") == 2);
}

TEST_CASE("what cannot be sewn is told with what would do, and the remedy helps") {
    const auto mended = [](Recipe& r, StepId id, const std::string& code) {
        r.part();
        const Finding finding = get(r.part().findings, code);
        CHECK(finding.place.box.valid());
        CHECK(finding.place.step == id);
        must(apply(MendFinding{finding}, r.b.project, catalog(), *r.derived));
        CHECK_FALSE(r.told(code));
    };
    PatchStep turned;
    turned.edge = PatchStep::Edge::turned, turned.allowance = mm(6);
    {
        Recipe r(rect(10, 10, 80, 9)); // 9 mm wide: 6 from both sides lie on one another
        mended(r, r.add(turned, {r.set()}), "patch.narrow");
    }
    {
        // Half a millimetre wide: no allowance is narrow enough, so none is proposed.
        Recipe r(rect(10, 10, 80, 40) + rect(10, 60, 80, 0.5));
        const StepId id = r.add(turned, {r.set()});
        r.part();
        const Finding crumb = get(r.part().findings, "patch.crumb");
        CHECK(crumb.message.english().starts_with("1 piece or limb is narrower than 4 mm, 0.5 mm at"));
        CHECK_FALSE(r.told("patch.narrow"));
        CHECK(crumb.remedy.code == "patch.raw");
        mended(r, id, "patch.crumb");
    }
    {
        // A body with a leg 7 mm wide: its corners are none.
        Recipe r("<path fill='#111' d='M10,10h60v50h-26v38h-7v-38h-27z'/>");
        const StepId id = r.add(turned, {r.set()});
        r.part();
        const Finding limb = get(r.part().findings, "patch.limb");
        CHECK(limb.message.english().starts_with("1 limb is only "));
        CHECK(number_argument(limb, "wide_mm").value_or(0) ==
              Approx(7).margin(1.2)); // on the mean, to its end
        CHECK(limb.place.box.y0 > 55);
        mended(r, id, "patch.limb");
    }
    {
        Recipe r("<path fill-rule='evenodd' fill='#111' d='M10,10h80v80h-80z M45,45h10v10h-10z'/>");
        CHECK_FALSE(r.told("patch.limb"));
        mended(r, r.add(turned, {r.set()}), "patch.hole");
    }
    {
        Recipe r(cloth_piece(10, 10, 100, 60, "#2f5d62") + cloth_piece(60, 20, 3, 40, "#d9822b"));
        mended(r, r.add_whole(PatchStep{}), "patch.underlap");
    }
    {
        Recipe r(rect(10, 10, 80, 4));
        PatchStep map;
        map.lines = PatchStep::Lines::map, map.satin = mm(5);
        mended(r, r.add(map, {r.set()}), "patch.satin");
    }
    {
        Recipe r(cloth_piece(20, 20, 10, 10, "#2f5d62") + cloth_piece(10, 10, 60, 60, "#d9822b"));
        r.add_whole(PatchStep{});
        CHECK(r.told("patch.hidden"));
    }
    {
        Recipe r("<path d='M10,10 L90,90' stroke='#111' fill='none'/>");
        const StepId id = r.add(PatchStep{}, {r.set()});
        CHECK_FALSE(r.part().reports.at(id)->refused.empty());
    }
}
