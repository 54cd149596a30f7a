// Fills that are told before they are drawn: other ways, best angles, heat, tones, and where foil is laid.
#include "core/commands/inking.h"

#include "core/commands/filling.h"
#include "core/commands/remedies.h"
#include "core/commands/steps.h"
#include "core/derive/inking.h"
#include "core/project/format.h"
#include "core/recipe/heat.h"
#include "core/recipe/seams.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

struct Filled {
    Bench b;
    StepId id;
    explicit Filled(const std::string& elements)
        : b(bench(elements)) {
        std::vector<LineSetId> sets;
        for (const LineSet& s : find(b.project, b.part)->sets)
            sets.push_back(s.id);
        id = must(fill_sets(b.project, catalog(), b.part, step_kind("fill")->fresh, sets));
    }
    void set(const std::function<void(FillStep&)>& change) {
        StepWhat what = find(*find(b.project, b.part), id)->what;
        change(std::get<FillStep>(what));
        must(apply(ChangeStep{b.part, id, what}, b.project, catalog()));
    }
};

FillStyle step_style(std::string_view key) {
    for (const FillKind& kind : fill_kinds())
        if (kind.key == key) return kind.fresh;
    FAIL(key);
    return {};
}

/// Bars at 30 degrees: along them, each is a few long lines.
std::string bars() {
    std::string out;
    for (int k = 0; k < 5; ++k)
        out += "<rect fill='#a8832d' x='" + std::to_string(20 + k * 9) +
               "' y='10' width='3' height='50' transform='rotate(-60 50 40)'/>";
    return out;
}

} // namespace

TEST_CASE("the best angle is the best of all 180, tried one by one") {
    Filled f(bars());
    f.set([](FillStep& s) { s.ends = FillEnds::apart, s.angle = degrees(77); });
    const auto derived = f.b.derive();
    const EvaluatedPart& part = *derived->part(f.b.part);
    const auto all = angles_for(f.b.project, catalog(), part, f.id);
    REQUIRE(all);
    const AngleSearch found = best_of(*all, AngleGoal::fewest_lifts);
    const RecipeChain::Link* link = fill_of(part, f.id);
    REQUIRE(link);
    std::size_t fewest = ~std::size_t{0};
    for (int degree = 0; degree < 180; ++degree) {
        const StepOutcome tried =
            run_step(turned_to(link->step.what, degrees(degree)), input_of(link->given), no_progress());
        fewest = std::min(fewest, tried.report.ink->lifts);
        if (degree == std::lround(in_degrees(found.best.angle))) {
            CHECK(tried.report.ink->lifts == found.best.lifts);
            // On a grid of a quarter of the tip.
            CHECK(found.best.covered * 100 == Approx(tried.report.ink->coverage.covered_percent).margin(0.7));
        }
    }
    CHECK(found.best.lifts == fewest);
    CHECK(in_degrees(found.best.angle) == Approx(30).margin(1)); // along the bars
    CHECK(found.best.lifts < found.now.lifts);
    const AngleSearch corner = best_of(*all, AngleGoal::no_corner);
    CHECK(corner.best.covered >= found.best.covered);
    const AngleSearch fastest = best_of(*all, AngleGoal::fastest);
    CHECK(fastest.best.time <= found.best.time);
    // The command turns it, and says what that brings.
    const auto done =
        must(apply(TurnFill{f.b.part, f.id, AngleGoal::fewest_lifts}, f.b.project, catalog(), part));
    CHECK(done.said.english().find("lifts instead of") != std::string::npos);
    const StepWhat turned = find(*find(f.b.project, f.b.part), f.id)->what;
    CHECK(in_degrees(std::get<FillStep>(turned).angle) == in_degrees(found.best.angle));
}

TEST_CASE("other ways to fill are what the fill would be if it were changed") {
    Filled f("<path fill='#a8832d' d='M10,10 h30 v30 h-30 Z M18,18 v14 h14 v-14 Z'/>");
    const auto derived = f.b.derive();
    const auto options = options_for(f.b.project, catalog(), *derived->part(f.b.part), f.id);
    REQUIRE(options.size() == 4); // as it is (parallel), cross, contour, one stroke
    std::vector<std::string> styles;
    for (const FillOption& o : options) {
        styles.emplace_back(o.ink->style);
        CHECK(in_seconds(o.time) > 0);
        Filled other("<path fill='#a8832d' d='M10,10 h30 v30 h-30 Z M18,18 v14 h14 v-14 Z'/>");
        other.set([&](FillStep& s) { s = std::get<FillStep>(o.what); });
        const auto changed = other.b.derive();
        const InkReport& ink = *ink_of(*changed->part(other.b.part), other.id);
        CHECK(ink.lifts == o.ink->lifts);
        CHECK(in_mm(ink.length) == Approx(in_mm(o.ink->length)));
        CHECK(ink.coverage.covered_percent == Approx(o.ink->coverage.covered_percent));
    }
    CHECK(styles == std::vector<std::string>{"parallel", "cross", "contour", "parallel"});
    CHECK(options.back().ink->lifts == 0);
    CHECK(in_mm(options.back().ink->widest_gap) == 0);
}

TEST_CASE("heat: two strokes that cross are inked twice where they do, a turn is not") {
    // In units of twenty squares: edges that run along the squares are then seen where they are.
    const double unit = 20 * heat_of({}, {{{{0, 0}, {1, 1}}, false}}, mm(1)).square;
    CHECK(unit == Approx(1).margin(0.05));
    const auto heat = [&](std::vector<Polyline> lines) {
        const Region square = region_of({{{{0, 0}, {10, 0}, {10, 10}, {0, 10}}, true}}, FillRule::nonzero);
        for (Polyline& line : lines)
            for (Point& p : line.points)
                p = p * unit;
        return heat_of(transformed(square, Affine::scaling(unit, unit)), lines, mm(unit));
    };
    const auto of = [&](const Heat& seen, Heat::Ink ink) {
        return in_square_mm(seen.of(ink)) / (unit * unit);
    };
    const Heat cross = heat({{{{1, 5}, {9, 5}}, false}, {{{5, 1}, {5, 9}}, false}});
    CHECK(of(cross, Heat::twice) == Approx(1).margin(0.05));
    CHECK(of(cross, Heat::over) == 0);
    const double bar = 8 + std::acos(-1.0) / 4; // with its round ends
    CHECK(of(cross, Heat::once) == Approx(2 * bar - 2).margin(0.1));
    CHECK(of(cross, Heat::bare) == Approx(100 - 2 * bar + 1).margin(0.1));
    CHECK(of(heat({{{{1, 5}, {5, 5}, {5, 9}}, false}}), Heat::twice) == 0);
    // It comes back to its own corner.
    CHECK(of(heat({{{{2, 2}, {8, 2}, {8, 8}, {2, 8}}, true}}), Heat::twice) == 0);
    Polyline round{{}, true};
    for (int k = 0; k < 60; ++k)
        round.points.push_back({5 + 3 * std::cos(k * 0.1047198), 5 + 3 * std::sin(k * 0.1047198)});
    CHECK(of(heat({round}), Heat::twice) == 0);
    CHECK(of(heat({{{{-2, 5}, {12, 5}}, false}}), Heat::over) == Approx(4 + std::acos(-1.0) / 4).margin(0.1));
    CHECK(heat_of({}, {}, mm(1)).ink.empty());
}

TEST_CASE("seams: lines of two strokes side by side, and none within one stroke") {
    Polylines rows;
    for (int k = 0; k < 10; ++k)
        rows.push_back({{{0, k * 0.5}, {20, k * 0.5}}, false});
    CHECK(seams(rows, mm(0.5)) == 9);
    for (std::size_t k = 1; k < rows.size(); k += 2)
        std::reverse(rows[k].points.begin(), rows[k].points.end());
    CHECK(seams(rows, mm(0.5)) == 9); // to and fro
    Polyline one;
    for (const Polyline& row : rows)
        one.points.insert(one.points.end(), row.points.begin(), row.points.end());
    CHECK(seams({one}, mm(0.5)) == 0);
    // The upper tail of the normal distribution at 1 is 0.158655 (tables of the standard normal).
    const Length scatter = mm(0.1 / std::sqrt(2.0));
    CHECK(visible_gaps(1000, mm(0.45), mm(0.5), scatter) == Approx(158.655).margin(0.01));
    CHECK(visible_gaps(1000, mm(0.6), mm(0.5), scatter) == 0); // striped anyway
    CHECK(visible_gaps(1000, mm(0.45), mm(0.5), Length()) == 0);
    const Length closer = spacing_without_gaps(9, mm(0.5), mm(0.5), mm(0.05));
    CHECK(visible_gaps(9, closer, mm(0.5), mm(0.05)) < 0.5);
    CHECK(closer < mm(0.5));
}

TEST_CASE("seams: of kilometres of lines each is one all the same, however few places are looked at") {
    // More than a million places lie a spacing apart: those that are looked at stand for longer stretches.
    Polylines rows;
    for (int k = 0; k < 14; ++k)
        rows.push_back({{{0, 0.05 * k}, {4000, 0.05 * k}}, false});
    // One half as long, begun half way, and what crosses them in a stroke of its own.
    rows[10].points.front().x = 2000;
    Polyline across;
    for (int k = 0; k < 400; ++k) {
        across.points.push_back({10.0 * k, k % 2 == 0 ? -1.0 : 4});
        across.points.push_back({10.0 * k, k % 2 == 0 ? 4.0 : -1});
    }
    rows.push_back(across);
    CHECK(seams(rows, mm(0.05)) == 13);
}

TEST_CASE("a graymap is read as it was written, and damaged ones are none") {
    const GreyPixels pixels{3, 2, {0, 50, 100, 150, 200, 255}};
    const std::string bytes = graymap(pixels);
    const auto read = graymap_read(bytes);
    REQUIRE(read);
    CHECK(read->grey == pixels.grey);
    CHECK(read->width == 3);
    for (std::size_t cut = 0; cut < bytes.size(); ++cut)
        CHECK_FALSE(graymap_read(bytes.substr(0, cut)));
    CHECK_FALSE(graymap_read("P5\n600 2\n255\n" + std::string(1200, 'x')));
    CHECK_FALSE(graymap_read("P5\n0 2\n255\n"));
    CHECK(graymap_read("P5 # made by hand\n1 1\n255\nx")->grey == std::vector<std::uint8_t>{'x'});
}

TEST_CASE("a toned fill keeps its picture in the file, and says when it has none") {
    Filled f("<path fill='#a8832d' d='M20,20 h60 v60 h-60 Z'/>");
    f.set([](FillStep& s) { s.tone.by = FillTone::By::picture; });
    auto derived = f.b.derive();
    CHECK(has(derived->part(f.b.part)->findings, "fill.no-picture"));
    CHECK_FALSE(apply(ToneFill{f.b.part, f.id, "no picture"}, f.b.project, catalog()));
    const std::string png = must(disk().read(DOTLANE_SOURCE "/data/demo/heron.png", 1 << 24));
    must(apply(ToneFill{f.b.part, f.id, png}, f.b.project, catalog()));
    derived = f.b.derive();
    CHECK_FALSE(has(derived->part(f.b.part)->findings, "fill.no-picture"));
    const Project again = must(read_project(write_project(f.b.project)));
    CHECK(*find(*find(again, f.b.part), f.id) == *find(*find(f.b.project, f.b.part), f.id));
    f.set([](FillStep& s) { s.style = step_style("grid"); });
    const auto refused = apply(ToneFill{f.b.part, f.id, png}, f.b.project, catalog());
    REQUIRE_FALSE(refused);
    CHECK(refused.error().code == "fill.no-tone");
}

TEST_CASE("a fill that is dark throughout is solid, one that is white has no line") {
    for (const char* style : {"parallel", "contour", "stipple", "scribble"}) {
        INFO(style);
        Filled f("<path fill='#a8832d' d='M20,20 h30 v30 h-30 Z'/>");
        f.set([&](FillStep& s) {
            s.style = step_style(style);
            s.tone.by = FillTone::By::gradient, s.tone.from = s.tone.to = 100;
        });
        const auto dark = f.b.derive();
        CHECK(ink_of(*dark->part(f.b.part), f.id)->coverage.covered_percent > 96);
        f.set([](FillStep& s) { s.tone.from = s.tone.to = 0; });
        const auto light = f.b.derive();
        CHECK(ink_of(*light->part(f.b.part), f.id)->runs == 0);
    }
}

TEST_CASE("one line that cannot be as light as wished is told, and dots do instead") {
    // One line crosses a surface from end to end: 0.5 mm of 8 mm is 6 %, more than all that is wished.
    Filled f("<path fill='#a8832d' d='M20,20 h50 v40 h-50 Z'/>");
    f.set([](FillStep& s) {
        s.style = step_style("scribble");
        s.tone.by = FillTone::By::gradient, s.tone.from = 3, s.tone.to = 9;
    });
    auto derived = f.b.derive();
    const Finding told = get(derived->findings, "fill.tone-off");
    CHECK(told.remedy.code == "fill.stipple");
    must(apply(MendFinding{told}, f.b.project, catalog(), *derived));
    derived = f.b.derive();
    CHECK_FALSE(has(derived->findings, "fill.tone-off"));
    CHECK(std::string(ink_of(*derived->part(f.b.part), f.id)->style) == "stipple");
    f.set([](FillStep& s) {
        s.style = step_style("scribble");
        s.tone.from = 15, s.tone.to = 90;
    });
    CHECK_FALSE(has(f.b.derive()->findings, "fill.tone-off"));
}

TEST_CASE("the piece of foil: around what is foiled, one for what lies near, sides rounded up") {
    Filled f(
        "<path fill='#a8832d' d='M20,20 h32 v11 h-32 Z'/><path fill='#a8832d' d='M150,20 h10 v10 h-10 Z'/>");
    const auto derived = f.b.derive();
    const LineSetId strokes = find(*find(f.b.project, f.b.part), f.id)->result;
    StepWhat piece = step_kind("foil-piece")->fresh;
    const auto added =
        must(apply(AddStep{f.b.part, piece, {strokes}}, f.b.project, catalog(), *derived->part(f.b.part)));
    const auto again = f.b.derive();
    std::vector<Box> boxes;
    const LineSetId made = find(*find(f.b.project, f.b.part), added.step)->result;
    for (const FlatLine& line : again->part(f.b.part)->lines)
        if (line.set == made) boxes.push_back(line.box);
    REQUIRE(boxes.size() == 2);
    // Inset by half the tip, 6 mm around, up to the next 5 mm.
    CHECK(boxes[0].width() == Approx(45));
    CHECK(boxes[0].height() == Approx(25));
    CHECK(boxes[1].width() == Approx(25));
    CHECK(boxes[0].centre().x == Approx(16).margin(0.01)); // the part begins at its left edge
}

TEST_CASE("the piece of foil is drawn, not foiled, and lies over what is foiled when nothing is chosen") {
    Filled f("<path fill='#a8832d' d='M20,20 h32 v11 h-32 Z'/>");
    Project& project = f.b.project;
    const Step fill = *find(*find(project, f.b.part), f.id);
    Lane blade = *find(project, fill.lane); // that its outline is cut with
    blade.action = Action::cut, blade.tool = "fine-blade";
    const LaneId cut = add_lane(project, blade);
    must(set_lane(project, f.b.part, fill.of[0], cut));
    must(set_aside(project, f.b.part, fill.of[0], false));
    for (Lane& lane : project.lanes)
        if (lane.id == fill.lane) lane.action = Action::foil, lane.tool = "foil-tip-0.5";
    const auto derived = f.b.derive();
    const StepWhat piece = step_kind("foil-piece")->fresh;
    const auto added = must(apply(AddStep{f.b.part, piece}, project, catalog(), *derived->part(f.b.part)));
    const Step& step = *find(*find(project, f.b.part), added.step);
    CHECK(step.of == std::vector{fill.result}); // and not the outline, which is cut
    CHECK(find(project, step.lane)->action == Action::draw);
    Project plain = project;
    for (Lane& lane : plain.lanes)
        if (lane.action == Action::foil) lane.action = Action::draw, lane.tool = "pen-0.4";
    CHECK(apply(AddStep{f.b.part, piece}, plain, catalog(), *derived->part(f.b.part)).error().code ==
          "step.no-lines");
}

TEST_CASE("embossed lines that lie nearer than the ball is wide are told") {
    Filled f("<path fill='#a8832d' d='M20,20 h30 v30 h-30 Z'/>");
    const Tool* ball = catalog().tool("embossing-ball-1.5");
    REQUIRE(ball);
    for (Lane& l : f.b.project.lanes)
        if (l.id == find(*find(f.b.project, f.b.part), f.id)->lane)
            l.action = Action::emboss, l.tool = ball->id;
    f.set([](FillStep& s) { s.ends = FillEnds::apart, s.spacing = mm(1); });
    CHECK(has(f.b.derive()->findings, "lines.tear"));
    f.set([](FillStep& s) { s.spacing = mm(1.6); });
    CHECK_FALSE(has(f.b.derive()->findings, "lines.tear"));
    // What an embossing lane proposes keeps off by itself.
    FillStep fresh;
    fresh.suit(Action::emboss);
    CHECK(fresh.spaced(ball->tip) >= ball->tip);
}

TEST_CASE("a fill's time is that of the tool as it is set for the stock it lies on") {
    Filled f("<path fill='#a8832d' d='M10,10 h60 v40 h-60 Z'/>");
    f.set([](FillStep& s) { s.ends = FillEnds::apart; });
    const auto derived = f.b.derive();
    const EvaluatedPart& part = *derived->part(f.b.part);
    const RunSet& run = *ink_run(part, f.id);
    Catalog shelf = catalog();
    const Lane& lane = *find(f.b.project, run.lane);
    const Tool& tool = *shelf.tool(lane.tool);
    const auto time = [&] {
        return in_seconds(ink_time(f.b.project, shelf, {f.b.part, run.lane}, run.lines));
    };
    const auto passes = [&] {
        return passes_of(f.b.project, shelf, {f.b.part, run.lane}, *ink_of(part, f.id));
    };
    const double usual = time();
    CHECK(passes() == 1);
    Setting slow;
    slow.tool = tool.id, slow.stock = f.b.project.sheets.front().stock;
    slow.speed = tool.speed * 0.25, slow.passes = 3;
    shelf.settings.push_back(slow);
    CHECK(passes() == 3);
    // Ways of 60 mm at a quarter of the speed, three times: a little under twelve times as long, as lifts,
    // landings and speeding up take what they took.
    CHECK(time() > 6 * usual);
    CHECK(time() < 12 * usual);
    // On the first sheet that it lies on, whatever it was meant for.
    Sheet& sheet = f.b.project.sheets.front();
    const auto other = std::find_if(shelf.stocks.begin(), shelf.stocks.end(), [&](const Stock& s) {
        return s.id != slow.stock && s.kind != shelf.stock(slow.stock)->kind;
    });
    REQUIRE(other != shelf.stocks.end());
    sheet.stock = other->id;
    REQUIRE_FALSE(sheet.placements.empty());
    CHECK(passes() == 1);
    CHECK(time() < 2 * usual);
}
