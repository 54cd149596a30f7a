// A sheet for each colour: stencils that share their edges and holes, fabrics that share their map; and
// strips of material that are widened where they are too narrow.
#include <cmath>

#include "core/commands/apart.h"
#include "core/commands/remedies.h"
#include "core/commands/steps.h"
#include "core/recipe/webs.h"
#include "tests/support/recipe.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

const char* three_colours = "<rect x='30' y='30' width='80' height='60' fill='#a8462d'/>"
                            "<circle cx='70' cy='60' r='18' fill='#2f5d62'/>"
                            "<rect x='62' y='52' width='16' height='16' fill='#22282c'/>";

double figure_of(const EvaluatedPart& part, const std::string& key) {
    for (const auto& [step, report] : part.reports)
        for (const Figure& f : report->figures)
            if (f.key == key) return f.value;
    FAIL("no figure " << key);
    return 0;
}

Region cut_of(const EvaluatedPart& part) {
    Polylines out;
    for (const RunSet& run : part.runs)
        out.insert(out.end(), run.lines.begin(), run.lines.end());
    return region_of(out, FillRule::evenodd);
}

} // namespace

TEST_CASE("stencils of several colours are as many sheets of one size, with the same holes, painted hindmost "
          "first") {
    Recipe r(three_colours);
    StencilStep step;
    step.margin = mm(20), step.holes = mm(5);
    r.add_whole(step);
    r.part();
    const auto apart = must(apply(TakeApart{r.b.part, ApartBy::colour}, r.b.project, catalog(), fonts(),
                                  *r.derived->part(r.b.part)));
    REQUIRE(apart.parts.size() == 3);
    const auto derived = r.b.derive();
    Box sheet;
    std::vector<double> open;
    for (std::size_t i = 0; i < 3; ++i) {
        const EvaluatedPart& part = *derived->part(apart.parts[i]);
        CHECK(figure_of(part, "coat") == static_cast<double>(i + 1));
        CHECK(figure_of(part, "colours") == 3);
        if (i == 0) sheet = part.box;
        CHECK(part.box.x0 == Approx(sheet.x0));
        CHECK(part.box.width() == Approx(120));
        CHECK(part.box.height() == Approx(100));
        open.push_back(figure_of(part, "open"));
        // The sheet less its openings: holes in three corners, ten from both edges; none in the fourth.
        const Region cut = cut_of(part);
        for (const Point p : {Point{20, 20}, Point{120, 20}, Point{20, 100}})
            CHECK_FALSE(contains(cut, p));
        CHECK(contains(cut, {120, 100}));
        const auto& needs = part.reports.begin()->second->needs;
        REQUIRE(needs.size() == 1);
        CHECK(in_mm(needs[0].width) == Approx(120));
        CHECK(in_mm(needs[0].height) == Approx(100));
    }
    CHECK(open[0] > open[1]);
    CHECK(open[1] > open[2]);
    CHECK(open[2] == Approx(256));
    // They stay live: a colour too many is told, not made.
    StencilStep beyond = step;
    beyond.only = 4;
    Recipe one(three_colours);
    const StepId id = one.add_whole(beyond);
    CHECK_FALSE(one.part().reports.at(id)->refused.empty());
}

TEST_CASE("holes that the margin is too narrow for are left out, told, and made room for") {
    Recipe r(three_colours);
    StencilStep step;
    step.margin = mm(6), step.holes = mm(5);
    const StepId id = r.add_whole(step);
    r.part();
    const Finding finding = get(r.part().findings, "stencil.margin");
    const std::size_t before = r.count(r.result(id));
    must(apply(MendFinding{finding}, r.b.project, catalog(), *r.derived));
    CHECK(r.count(r.result(id)) == before + 3);
    for (const Finding& f : r.part().findings)
        CHECK(f.code != "stencil.margin");
}

TEST_CASE("each fabric becomes a part that knows the others, with the numbers of the map") {
    Recipe r(three_colours);
    r.add_whole(PatchStep{});
    r.part();
    const Finding finding = get(r.part().findings, "patch.together");
    const Project before = r.b.project;
    must(apply(MendFinding{finding}, r.b.project, catalog(), *r.derived));
    CHECK(r.b.project.parts.size() == 3);
    const auto derived = r.b.derive();
    double cut = 0;
    for (std::size_t i = 0; i < 3; ++i) {
        const Part& part = r.b.project.parts[i];
        const EvaluatedPart& made = *derived->part(part.id);
        for (const Finding& f : made.findings)
            CHECK(f.code != "patch.together");
        REQUIRE(made.reports.begin()->second->needs.size() == 1);
        cut += figure_of(made, "cut");
    }
    // All together as much as before, the lower ones under the upper by 5 mm.
    Bench again = r.b;
    again.project = before;
    CHECK(cut == Approx(figure_of(*again.derive()->part(r.b.part), "cut")));
}

TEST_CASE("colours that lie on one another are told to be open together, and become a sheet each") {
    Recipe r(three_colours);
    r.add_whole(StencilStep{});
    r.part();
    const Finding finding = get(r.part().findings, "stencil.together");
    must(apply(MendFinding{finding}, r.b.project, catalog(), *r.derived));
    REQUIRE(r.b.project.parts.size() == 3);
    const auto derived = r.b.derive();
    for (const Part& part : r.b.project.parts)
        CHECK_FALSE(has(derived->part(part.id)->findings, "stencil.together"));
    // Two that lie apart lose nothing together.
    Recipe apart("<rect x='10' y='10' width='20' height='20' fill='#2f5d62'/>"
                 "<rect x='60' y='10' width='20' height='20' fill='#d9822b'/>");
    apart.add_whole(StencilStep{});
    CHECK_FALSE(has(apart.part().findings, "stencil.together"));
}

TEST_CASE("webs that are too narrow are widened just there, at the openings' cost") {
    // Two squares 1 mm apart, and a third one 3 mm away.
    Recipe r(rect(20, 20, 20, 20) + rect(41, 20, 20, 20) + rect(64, 20, 20, 20));
    StencilStep step;
    step.least = mm(2);
    const StepId id = r.add(step, {r.set()});
    CHECK(r.figure(id, "narrowest_web") == Approx(1));
    const bool shown = std::any_of(r.part().reports.at(id)->put.begin(), r.part().reports.at(id)->put.end(),
                                   [](const StepReport::Put& put) { return put.narrow; });
    CHECK(shown);
    const Finding finding = get(r.part().findings, "stencil.web");
    const double open = r.figure(id, "open");
    must(apply(MendFinding{finding}, r.b.project, catalog(), *r.derived));
    CHECK(r.figure(id, "narrowest_web") >= 2 - 0.01);
    // Half a millimetre and a hair of both sides, 20 mm long, with a little at the ends.
    CHECK(open - r.figure(id, "open") == Approx(20).margin(2));
    for (const Finding& f : r.part().findings)
        CHECK(f.code != "stencil.web");
    // The third square is as it was.
    CHECK(contains(r.area_of(r.result(id)), {64.1, 20.1}));
}

TEST_CASE(
    "openings that touch leave no web between them, and what touches its own island only narrows itself") {
    const auto box = [](double x0, double y0, double x1, double y1) {
        return region_of(Shape{{rectangle({x0, y0, x1, y1})}});
    };
    const auto narrowest = [](const Region& open, const Box& sheet = {}) {
        const auto found = webs(open, sheet, mm(2), no_progress());
        return found.empty() ? -1 : in_mm(found.front().width);
    };
    for (const double turn : {0.0, 17.0, 45.0}) {
        const auto turned = [&](const Region& r) {
            return transformed(r, Affine::rotation(in_radians(degrees(turn))));
        };
        const Region corners = turned(united({box(10, 10, 30, 30), box(30, 30, 50, 50)}));
        CHECK(pieces(corners).size() == 2);
        CHECK(narrowest(corners) == Approx(0).margin(1e-4));
        const Region apart = widened(corners, {}, mm(2), no_progress());
        CHECK(narrowest(apart) >= 1.98);
        // A ring whose island touches its outer edge at a corner, and is 3 mm away from it elsewhere.
        const Region ring_of =
            turned(subtracted(box(10, 10, 50, 50), region_of({ring({{13, 30}, {30, 13}, {50, 30}, {30, 47}})},
                                                             FillRule::nonzero)));
        CHECK(narrowest(ring_of) != Approx(0).margin(1e-3));
        // An opening in that island whose corner touches the island's edge.
        const Region within =
            turned(united({subtracted(box(10, 10, 50, 50), box(15, 15, 45, 45)),
                           region_of({ring({{15, 30}, {30, 20}, {40, 30}, {30, 40}})}, FillRule::nonzero)}));
        if (turn == 0) REQUIRE(pieces(within).size() == 2); // the grid may part or join them when turned
        if (pieces(within).size() == 2) CHECK(narrowest(within) == Approx(0).margin(1e-4));
    }
    CHECK(narrowest(box(0, 10, 20, 20), {0, 0, 60, 60}) == Approx(0).margin(1e-9));
}

TEST_CASE("webs of random openings are as wide as wished once they are widened") {
    Random random("widened webs");
    for (int round = 0; round < 25; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        std::vector<Region> all;
        for (int i = 0; i < 8; ++i) {
            const Region one = region_of({ring(random_ring(random, random.whole(4, 16), 4, 14,
                                                           {random.real(20, 90), random.real(20, 90)}))},
                                         FillRule::nonzero);
            bool free = true; // they are not on one another
            for (const Region& other : all)
                free = free && intersected(one, other).empty();
            if (free) all.push_back(one);
        }
        const Region open = united(all);
        const double least = random.real(1, 3);
        const Region made = widened(open, {}, mm(least), no_progress());
        CHECK(in_square_mm(area(subtracted(made, open))) < 1e-3); // the grid of Clipper, along all edges
        const auto before = webs(open, {}, mm(least), no_progress()),
                   after = webs(made, {}, mm(least), no_progress());
        if (after.empty()) continue;
        CHECK(in_mm(after.front().width) >= least - 0.02);
        if (in_mm(before.front().width) >= least) CHECK(made == open);
        // Just there: what is taken off lies within twice the width of a narrow place.
        std::vector<Region> places;
        for (const Region& one : all)
            places.push_back(offset(one, mm(least)));
        std::vector<Region> between;
        for (std::size_t i = 0; i < places.size(); ++i)
            for (std::size_t k = i + 1; k < places.size(); ++k)
                between.push_back(intersected(places[i], places[k]));
        CHECK(in_square_mm(area(subtracted(subtracted(open, made), offset(united(between), mm(2 * least))))) <
              1e-3);
    }
}

TEST_CASE("a pattern too dense for its material is spread, or thinned out, until every web is wide enough") {
    Random random("dense patterns");
    for (int round = 0; round < 12; ++round) {
        INFO("seed " << random.seed() << " round " << round);
        // Blobs in rows, now and then nearer than the least web; rings among them, with an island.
        const double pitch = random.real(9, 12), least = random.real(1.5, 3);
        std::vector<Region> all;
        for (int i = 0; i < 25; ++i) {
            const Point at{30 + pitch * (i % 5), 30 + pitch * (i / 5)};
            Region blob =
                region_of({ring(random_ring(random, random.whole(5, 20), 3, 5.2, at))}, FillRule::nonzero);
            if (i % 6 == 0) blob = subtracted(blob, region_of(Shape{{ellipse(at, 1.2, 1.2)}}));
            if (all.empty() || intersected(united(all), offset(blob, mm(0.05))).empty()) all.push_back(blob);
        }
        const Region open = united(all);
        const auto narrowest = [&](const Region& of) {
            const auto found = webs(of, {}, mm(least), no_progress());
            return found.empty() ? 1e9 : in_mm(found.front().width);
        };
        const Region thinned = thinned_out(open, {}, mm(least), no_progress());
        CHECK(narrowest(thinned) >= least - 0.01);
        CHECK(in_square_mm(area(subtracted(thinned, open))) < 1e-3);
        // No more left out than it takes: what is gone is too near to something that stayed, or was to what
        // went.
        for (const Region& piece : pieces(subtracted(open, thinned))) {
            if (in_square_mm(area(piece)) < 0.01) continue;
            CHECK_FALSE(
                intersected(offset(piece, mm(least + 0.01)), subtracted(open, offset(piece, mm(0.02))))
                    .empty());
        }
        const Point middle = bounds(open).centre();
        const auto share = spread_share(open, middle, mm(least), no_progress());
        REQUIRE(share);
        const Region spread = spread_by(open, middle, *share);
        CHECK(narrowest(spread) >= least - 0.01);
        CHECK(pieces(spread).size() == pieces(open).size());
        CHECK(in_square_mm(area(spread)) == Approx(in_square_mm(area(open))).epsilon(1e-5));
        if (*share > 0.01)
            CHECK(narrowest(spread_by(open, middle, *share - 0.005)) < least); // not farther than needed
        CHECK((*share == 0) == (narrowest(open) >= least));
    }
    // In the step, by the finding's remedies: the sheet grows with the pattern.
    const std::string dense = rect(20, 20, 20, 20) + rect(41, 20, 20, 20) + rect(62, 20, 20, 20);
    for (const char* code : {"stencil.spread", "stencil.thin"}) {
        Recipe r(dense);
        const StepId id = r.add(StencilStep{}, {r.set()});
        const double wide = r.part().box.width();
        r.part();
        Finding finding = get(r.part().findings, "stencil.web");
        std::vector<Remedy> all = finding.more;
        all.push_back(finding.remedy);
        for (const Remedy& one : all)
            if (one.code == code) finding.remedy = one;
        must(apply(MendFinding{finding}, r.b.project, catalog(), *r.derived));
        for (const Finding& f : r.part().findings)
            CHECK(f.code != "stencil.web");
        const bool spread = std::string(code) == "stencil.spread";
        CHECK((r.part().box.width() > wide + 1.9) == spread);
        CHECK(r.figure(id, "pieces") == (spread ? 3 : 2));
    }
}

TEST_CASE("fabrics and layers may be other parts, brought onto one") {
    for (const bool patch : {true, false}) {
        Recipe r(rect(20, 20, 80, 60));
        Label label;
        label.edge = Label::Edge::plain, label.width = mm(30), label.height = mm(20), label.corner = mm(0),
        label.hole = Label::Hole::none, label.border = mm(0);
        const PartId other = must(apply(MakePart{label}, r.b.project, catalog(), fonts())).part;
        PartStep bring;
        bring.of = other;
        const StepId brought = r.add(bring);
        if (patch) {
            PatchStep step;
            step.underlap = mm(3), step.web = PatchStep::Web::top;
            const StepId id = r.add(step, {r.set(), r.result(brought)});
            CHECK(r.figure(id, "fabrics") == 2);
            CHECK(r.figure(id, "seen") == Approx(4800));
            CHECK(r.figure(id, "cut") ==
                  Approx(4800 + 30 * 20 - 24 * 14)); // the label lies on it, three below
        } else {
            KnockOutStep step;
            step.mode = KnockOutStep::Mode::knock_out;
            const StepId id = r.add(step, {r.set(), r.result(brought)});
            CHECK(r.figure(id, "layers") == 2);
            CHECK(r.figure(id, "saved") == Approx(600));
            CHECK(r.square(r.set()) == Approx(4200));
            // The other part is what it was, and what is brought follows it.
            Label wider = label;
            wider.width = mm(40);
            must(apply(ChangeSource{other, wider}, r.b.project, catalog(), fonts()));
            CHECK(r.figure(id, "saved") == Approx(800));
        }
    }
}
