// Pop-ups that close flat, relief where folds meet, hinges for thick stock, dashes of perforations.
#include <array>
#include <cmath>
#include <numbers>

#include "core/base/text.h"
#include "core/commands/remedies.h"
#include "core/geometry/reshape.h"
#include "tests/support/recipe.h"

using namespace dotlane;
using namespace dotlane::test;
using std::numbers::pi;

namespace {

std::string fold_at(double y, double x0 = 20, double x1 = 120) {
    return "<path d='M" + number(x0, 6) + "," + number(y, 6) + " H" + number(x1, 6) +
           "' stroke='#111' fill='none'/>";
}

/// A card of 100 x 160, its fold across the middle at y = 100; the card is set 0, the fold set 1.
Recipe card() {
    Recipe r(rect(20, 20, 100, 160) + fold_at(100));
    r.line(1);
    return r;
}

std::vector<LineSetId> both(Recipe& r) {
    return {r.set(0), r.set(1)};
}

using Space = std::array<double, 3>;
double apart(const Space& a, const Space& b) {
    return std::sqrt(std::pow(a[0] - b[0], 2) + std::pow(a[1] - b[1], 2) + std::pow(a[2] - b[2], 2));
}

const Finding* finding_of(const EvaluatedPart& part, const std::string& code) {
    for (const Finding& f : part.findings)
        if (f.code == code) return &f;
    return nullptr;
}

} // namespace

TEST_CASE("a box pop-up folds as paper does: no face is stretched at any angle, and it closes flat") {
    Random random("pop-up boxes");
    for (int round = 0; round < 20; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        Recipe r = card();
        PopUpStep step;
        step.width = mm(random.real(10, 60)), step.height = mm(random.real(5, 40)),
        step.depth = mm(random.real(5, 35)), step.at = random.real(40, 60);
        const StepId id = r.add(step, both(r));
        const Polylines valleys = r.contours_of(r.of_role(id, role::fold)),
                        mountains = r.contours_of(r.of_role(id, role::mountain)),
                        slits = r.contours_of(r.result(id));
        REQUIRE(valleys.size() == 2);
        REQUIRE(mountains.size() == 1);
        REQUIRE(slits.size() == 2);
        // The paper between the folds, from the back panel forwards.
        const double back = 100 - valleys[0].points[0].y, base = valleys[1].points[0].y - 100;
        const double top = mountains[0].points[0].y - valleys[0].points[0].y;
        const double front = valleys[1].points[0].y - mountains[0].points[0].y;
        CHECK(back == Approx(in_mm(step.height)));
        CHECK(base == Approx(in_mm(step.depth)));
        for (const Polyline& slit : slits)
            CHECK(in_mm(length(slit)) == Approx(back + base));
        // Folded numerically: the fold is the origin, the base runs along x, the back panel at the angle;
        // where the top's far edge may be is where two circles meet, about the two edges that hold the box.
        for (double angle = 0.05; angle <= pi / 2; angle += 0.05) {
            const Point q{base, 0}, p{back * std::cos(angle), back * std::sin(angle)};
            const double d = distance(p, q);
            CHECK(d <= top + front + 1e-9); // or the paper would tear
            const double along = (top * top - front * front + d * d) / (2 * d);
            const double off = std::sqrt(std::max(0.0, top * top - along * along));
            const Point e = (q - p) * (1 / d);
            const Point edge = p + e * along + Point{-e.y, e.x} * off;
            // A parallelogram: the edge stands at the back panel's height over the base.
            CHECK(distance(edge, p + q) < 1e-6);
        }
        // Closed, the edge lies as far from the fold as the card's figure says.
        CHECK(r.figure(id, "reach") == Approx(back + base));
        CHECK(r.figure(id, "rise") == Approx(back));
        // Of the card's own fold the box takes its width away.
        const Polylines fold = r.contours_of(r.set(1));
        CHECK(in_mm(length(fold)) == Approx(100 - in_mm(step.width)));
    }
}

TEST_CASE("a beak folds as paper does: its spine keeps its angle to both creases, and it closes flat") {
    Random random("beaks");
    for (int round = 0; round < 20; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        Recipe r = card();
        PopUpStep step;
        step.form = PopUpStep::Form::v, step.width = mm(random.real(5, 40)),
        step.height = mm(random.real(5, 40));
        const StepId id = r.add(step, both(r));
        const Polylines creases = r.contours_of(r.of_role(id, role::fold)),
                        spine = r.contours_of(r.of_role(id, role::mountain)),
                        slit = r.contours_of(r.result(id));
        REQUIRE(creases.size() == 2);
        REQUIRE(spine.size() == 1);
        REQUIRE(slit.size() == 1);
        const Point tip = spine[0].points[0], end = spine[0].points[1];
        const double a = distance(tip, end), c = distance(slit[0].points[0], slit[0].points[1]) / 2;
        CHECK(a == Approx(in_mm(step.height)));
        CHECK(c == Approx(in_mm(step.width)));
        for (const Polyline& crease : creases) // from the point of the fold to the ends of the slit
            CHECK(in_mm(length(crease)) == Approx(std::hypot(a, c)));
        // Folded numerically: both panels turned about the fold by half the angle each; the spine's end is
        // where it is as far from the tip and from both ends of the slit as on the flat paper. Found by
        // bisection over how far it is turned in the middle plane.
        double rise = 0;
        for (double open = pi - 0.1; open > 0.1; open -= 0.1) {
            // Panels lie at +-open / 2 from the middle plane, which the fold is in.
            const Space on_panel{a, c * std::cos(open / 2), c * std::sin(open / 2)};
            const auto off = [&](double turn) {
                const Space end_at{a * std::cos(turn), a * std::sin(turn), 0};
                return apart(end_at, on_panel) - c;
            };
            // Unturned (0) it is no beak: the other place is on the open side.
            double low = 1e-3, high = pi;
            REQUIRE(off(low) < 0);
            REQUIRE(off(high) > 0);
            for (int i = 0; i < 60; ++i)
                (off((low + high) / 2) < 0 ? low : high) = (low + high) / 2;
            if (std::abs(open - pi / 2) < 0.051) {
                const double exact = a * std::sin(low);
                CHECK(r.figure(id, "rise") == Approx(exact).epsilon(0.08)); // at the nearest of these angles
                rise = exact;
            }
        }
        CHECK(rise > 0);
        // At exactly 90 degrees, by the same bisection.
        const Space on_panel{a, c * std::cos(pi / 4), c * std::sin(pi / 4)};
        double low = 1e-3, high = pi;
        for (int i = 0; i < 60; ++i) {
            const double turn = (low + high) / 2;
            (apart({a * std::cos(turn), a * std::sin(turn), 0}, on_panel) < c ? low : high) = turn;
        }
        CHECK(r.figure(id, "rise") == Approx(a * std::sin(low)).epsilon(1e-6));
        // Closed (both panels on one another), the spine's end is its mirror in the crease: off the fold by a
        // sin 2 alpha.
        const double alpha = std::atan2(c, a);
        CHECK(r.figure(id, "reach") == Approx(std::max(c, a * std::sin(2 * alpha))));
    }
}

TEST_CASE("a pop-up that would stick out of the closed card is told, and made to fit") {
    Recipe r = card(); // panels of 80
    PopUpStep step;
    step.height = mm(60), step.depth = mm(40), step.width = mm(30);
    const StepId id = r.add(step, both(r));
    const Finding* found = finding_of(r.part(), "pop-up.out");
    REQUIRE(found);
    const Finding finding = *found;
    CHECK(finding.place.box.valid());
    StepWhat what = find(*find(r.b.project, r.b.part), id)->what;
    REQUIRE(mend(what, finding, nullptr));
    find(*find(r.b.project, r.b.part), id)->what = what;
    CHECK_FALSE(finding_of(r.part(), "pop-up.out"));
    CHECK(r.figure(id, "reach") <= 80);
    CHECK(r.figure(id, "reach") > 78); // not smaller than it must be
    // Where the fold ends there is no room for half of it.
    Recipe at_end = card();
    step.height = mm(20), step.depth = mm(20), step.at = 100;
    at_end.add(step, both(at_end));
    CHECK(finding_of(at_end.part(), "pop-up.none"));
    Recipe bare(rect(20, 20, 100, 160));
    const StepId none = bare.add(step, {bare.set()});
    CHECK_FALSE(bare.part().reports.at(none)->refused.empty());
}

TEST_CASE("a pop-up's lanes: its slits are cut, its folds scored, mountains in a lane of their own") {
    Recipe r = card();
    const StepId id = r.add(PopUpStep{}, both(r));
    const Part& part = *find(r.b.project, r.b.part);
    const auto lane = [&](LaneId of) { return *find(r.b.project, of); };
    CHECK(lane(find(part, id)->lane).action == Action::cut);
    CHECK(lane(find(part, r.of_role(id, role::fold))->lane).action == Action::score);
    CHECK(lane(find(part, r.of_role(id, role::fold))->lane).fold == Fold::valley);
    CHECK(lane(find(part, r.of_role(id, role::mountain))->lane).action == Action::score);
    CHECK(lane(find(part, r.of_role(id, role::mountain))->lane).fold == Fold::mountain);
}

TEST_CASE("relief lies where folds cross or meet, once, and nowhere else") {
    // Three folds up, two across: six crossings. Two that end on a third: two more.
    std::string folds;
    for (const double x : {40, 70, 100})
        folds += "<path d='M" + number(x, 6) + ",20 V120' stroke='#111' fill='none'/>";
    Recipe r(folds + fold_at(50, 20, 130) + fold_at(90, 20, 130));
    const StepId id = r.add(ReliefStep{}, {r.set()});
    CHECK(r.figure(id, "holes") == 6);
    CHECK(r.square(r.result(id)) ==
          Approx(6 * pi).epsilon(8e-3)); // of 1 mm, flattened to 0.005 mm: 2 / 3 of 1 %
    CHECK(r.figure(id, "crossings") == 6);
    CHECK(contains(r.area_of(r.result(id)), {70, 90}));
    // Three that meet in a point need one.
    Recipe star(
        "<path d='M60,60 L20,60' stroke='#111' fill='none'/><path d='M60.5,60.2 L90,20' stroke='#111' "
        "fill='none'/><path d='M60,60.4 L90,100' stroke='#111' fill='none'/>");
    CHECK(star.figure(star.add(ReliefStep{}, {star.set()}), "holes") == 1);
    // Lines that only point at each other do not meet, nor does one that another goes on from.
    for (const char* apart : {"<path d='M20,20 H60' stroke='#111' fill='none'/><path d='M64,25 V80' "
                              "stroke='#111' fill='none'/>",
                              "<path d='M20,20 H60' stroke='#111' fill='none'/><path d='M61,20 H90' "
                              "stroke='#111' fill='none'/>"}) {
        Recipe none(apart);
        const StepId step = none.add(ReliefStep{}, {none.set()});
        CHECK_FALSE(none.part().reports.at(step)->refused.empty());
    }
    // A slot runs along the fold.
    ReliefStep slot;
    slot.form = ReliefStep::Form::slot, slot.size = mm(6);
    Recipe s(
        "<path d='M20,60 H120' stroke='#111' fill='none'/><path d='M70,20 V100' stroke='#111' fill='none'/>");
    const StepId made = s.add(slot, {s.set()});
    const Box box = bounds(s.area_of(s.result(made)));
    CHECK(box.width() == Approx(6));
    CHECK(box.height() == Approx(1.5));
    // In the hollow corner of an outline where a fold ends.
    Recipe corner("<path d='M20,20h80v40h-40v40h-40z' stroke='#111' fill='none'/>"
                  "<path d='M60,60 V20' stroke='#111' fill='none'/>");
    ReliefStep edges;
    edges.edges = true;
    const StepId at = corner.add(edges, {corner.set()});
    CHECK(corner.figure(at, "holes") == 1);
    CHECK(contains(corner.area_of(corner.result(at)), {60, 60}));
}

TEST_CASE("relief of random folds: a hole at each crossing, by a count of its own") {
    Random random("relief");
    for (int round = 0; round < 20; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        std::vector<std::pair<Point, Point>> folds;
        std::string drawing;
        for (int i = random.whole(3, 9); i > 0; --i) {
            folds.push_back(
                {{random.real(10, 190), random.real(10, 190)}, {random.real(10, 190), random.real(10, 190)}});
            const auto& [a, b] = folds.back();
            drawing += "<path d='M" + number(a.x, 6) + "," + number(a.y, 6) + "L" + number(b.x, 6) + "," +
                       number(b.y, 6) + "' stroke='#111' fill='none'/>";
        }
        const auto side = [](Point a, Point b, Point p) { return cross(b - a, p - a) > 0; };
        std::vector<Point> crossings;
        for (std::size_t i = 0; i < folds.size(); ++i)
            for (std::size_t k = i + 1; k < folds.size(); ++k) {
                const auto& [a, b] = folds[i];
                const auto& [c, d] = folds[k];
                if (side(a, b, c) == side(a, b, d) || side(c, d, a) == side(c, d, b)) continue;
                const double t = cross(c - a, d - c) / cross(b - a, d - c);
                crossings.push_back(mix(a, b, t));
            }
        Recipe r(drawing);
        ReliefStep step;
        step.reach = mm(0), step.size = mm(0.4);
        const StepId id = r.add(step, {r.set()});
        const Region holes = r.area_of(r.result(id));
        for (const Point p : crossings)
            CHECK(contains(holes, p));
        if (!crossings.empty()) CHECK(r.figure(id, "crossings") == static_cast<double>(crossings.size()));
    }
}

TEST_CASE("of folds that cross in a chain of near places each crossing has a hole") {
    // Upright folds 0.15 mm apart across a level one: holes of 0.4 mm reach 0.2 mm.
    std::string drawing = "<path d='M10,50L90,50' stroke='#111' fill='none'/>";
    for (int i = 0; i < 7; ++i)
        drawing += "<path d='M" + number(40 + 0.15 * i, 6) + ",10L" + number(40 + 0.15 * i, 6) +
                   ",90' stroke='#111' fill='none'/>";
    Recipe r(drawing);
    ReliefStep step;
    step.reach = mm(0), step.size = mm(0.4);
    const StepId id = r.add(step, {r.set()});
    const Region holes = r.area_of(r.result(id));
    for (int i = 0; i < 7; ++i)
        CHECK(contains(holes, {40 + 0.15 * i, 50}));
    CHECK(r.figure(id, "crossings") == 7);
    CHECK(r.figure(id, "holes") == 4);
}

TEST_CASE(
    "a hinge is as wide as the bend is long, its bridges lie before the middle of the slits beside them") {
    Recipe r(fold_at(100, 20, 140));
    HingeStep step;
    step.radius = mm(20), step.bend = degrees(90), step.rows_apart = mm(2), step.slit = mm(24),
    step.bridge = mm(3);
    step.strain = 10;
    const StepId id = r.add(step, {r.set()});
    CHECK(r.figure(id, "wide") == Approx(pi / 2 * 20));
    CHECK(r.figure(id, "rows") == std::round(pi / 2 * 20 / 2) + 1);
    std::map<double, std::vector<std::pair<double, double>>> rows;
    for (const Polyline& slit : r.contours_of(r.result(id)))
        rows[std::round(slit.points[0].y * 1e4)].push_back(std::minmax({slit.points[0].x, slit.points[1].x}));
    CHECK(static_cast<double>(rows.size()) == r.figure(id, "rows"));
    const std::vector<std::pair<double, double>>* before = nullptr;
    for (auto& [y, slits] : rows) {
        std::sort(slits.begin(), slits.end());
        for (std::size_t i = 0; i + 1 < slits.size(); ++i)
            CHECK(slits[i + 1].first - slits[i].second == Approx(3));
        if (before)
            for (std::size_t i = 0; i + 1 < slits.size(); ++i) {
                const double bridge = (slits[i].second + slits[i + 1].first) / 2;
                // Within a slit of the row beside it, half an overlap from both of its ends.
                const auto over = std::find_if(before->begin(), before->end(), [&](const auto& s) {
                    return s.first < bridge - 5 && s.second > bridge + 5;
                });
                CHECK(over != before->end());
            }
        before = &slits;
    }
    // The fold itself is not run any more; what is no fold, or too short for a slit, is.
    CHECK(r.count(r.set()) == 0);
    Recipe card(rect(20, 20, 120, 160) + fold_at(100, 20, 140) + fold_at(150, 20, 25));
    const StepId on_card = card.add_whole(step);
    CHECK(card.part().reports.at(on_card)->refused.empty());
    CHECK(card.count(card.set()) == 2);
    CHECK(card.square(card.set()) == Approx(120 * 160));
    CHECK(card.told("hinge.short"));
    CHECK_FALSE(find(*find(card.b.project, card.b.part), card.set())->set_aside);
}

TEST_CASE("a hinge too tight for its stock says which radius or which slits would do, and both do") {
    for (const char* code : {"hinge.radius", "hinge.slits"}) {
        Recipe r(fold_at(100, 20, 180));
        HingeStep step;
        step.thickness = mm(3), step.radius = mm(6), step.strain = 2, step.slit = mm(14);
        const StepId id = r.add(step, {r.set()});
        const Finding* found = finding_of(r.part(), "hinge.tight");
        REQUIRE(found);
        Finding finding = *found;
        std::vector<Remedy> all = finding.more;
        all.push_back(finding.remedy);
        const auto remedy =
            std::find_if(all.begin(), all.end(), [&](const Remedy& one) { return one.code == code; });
        REQUIRE(remedy != all.end());
        finding.remedy = *remedy;
        StepWhat what = find(*find(r.b.project, r.b.part), id)->what;
        REQUIRE(mend(what, finding, nullptr));
        find(*find(r.b.project, r.b.part), id)->what = what;
        CHECK_FALSE(finding_of(r.part(), "hinge.tight"));
    }
}

TEST_CASE("dashes end on a gap where a perforation must fray no edge") {
    for (const double whole : {17.0, 40.0, 100.0, 173.3}) {
        const Polyline line{{{0, 0}, {whole, 0}}, false};
        Length gap;
        const Polylines made = dashed(line, {mm(3), mm(1.5), {}, true}, &gap);
        REQUIRE(made.size() > 1);
        CHECK(made.front().points.front().x == Approx(in_mm(gap) / 2));
        CHECK(made.back().points.back().x == Approx(whole - in_mm(gap) / 2));
        for (const Polyline& dash : made)
            CHECK(in_mm(length(dash)) == Approx(3));
        for (std::size_t i = 0; i + 1 < made.size(); ++i)
            CHECK(made[i + 1].points.front().x - made[i].points.back().x == Approx(in_mm(gap)));
        CHECK(std::abs(in_mm(gap) - 1.5) < 1.2); // about what was wished
    }
}
