// What each step does to lines, by identities of plane geometry and by what it reports.
#include <numbers>

#include "tests/support/recipe.h"

using namespace dotlane;
using namespace dotlane::test;
using std::numbers::pi;

TEST_CASE("join: two 40 x 20 bars overlapping by 5 become one outline 75 x 20") {
    Recipe r(rect(10, 10, 40, 20) + rect(45, 10, 40, 20));
    const StepId join = r.add(JoinStep{}, {r.set()});
    CHECK(r.square(r.set()) == Approx(1500).margin(1e-3));
    CHECK(r.count(r.set()) == 1);
    CHECK(r.figure(join, "pieces_before") == 2);
    CHECK(r.figure(join, "pieces_after") == 1);
    Length cut;
    for (const RunSet& run : r.part().runs)
        cut += length(run.lines);
    CHECK(in_mm(cut) == Approx(190).margin(1e-3));
}

TEST_CASE("join tells of counters that are filled and of dots left behind") {
    Recipe r("<path d='M10,10h30v30h-30Z M18,18v14h14v-14Z' fill='#111'/>" + rect(15, 15, 20, 20) +
             rect(60, 10, 3, 3));
    const StepId join = r.add(JoinStep{}, {});
    CHECK(r.figure(join, "counters_before") == 1);
    CHECK(r.figure(join, "counters_after") == 0);
    CHECK(has(r.part().findings, "join.counters"));
    CHECK(get(r.part().findings, "join.left-behind").place.step == join);
}

TEST_CASE("cut out: a disc of 80 minus a 40 x 10 bar inside it") {
    Recipe r("<circle cx='60' cy='60' r='40' fill='none' stroke='#111'/>" + rect(40, 55, 40, 10));
    const LineSetId bar = r.line(1), disc = r.line(0);
    const StepId cut = r.add(CutOutStep{}, {disc}, {bar});
    CHECK(r.square(disc) == Approx(4626.55).margin(1.7)); // chords within 0.01 mm: 2/3 of it x 251.3 mm
    CHECK(r.count(bar) == 1);                             // what was cut out stays
    Step changed = *find(*find(r.b.project, r.b.part), cut);
    std::get<CutOutStep>(changed.what).keep = CutOutStep::Keep::overlap;
    must(change_step(r.b.project, r.b.part, changed));
    CHECK(r.square(disc) == Approx(400).margin(0.01));
    std::get<CutOutStep>(changed.what).margin = mm(5);
    must(change_step(r.b.project, r.b.part, changed));
    CHECK(r.square(disc) == Approx(400 + 100 * 5 + pi * 25).epsilon(2e-4)); // Steiner; chords within 0.005 mm
}

TEST_CASE("cut out splits open lines where the other area begins, and says when it misses") {
    Recipe r("<path d='M10,50h100' fill='none' stroke='#111'/>" + rect(40, 40, 20, 20) +
             rect(150, 150, 9, 9));
    const LineSetId line = r.line(0), box = r.line(1), far = r.line(2);
    r.add(CutOutStep{}, {line}, {box});
    Length left;
    for (const FlatLine& l : r.part().lines)
        if (l.set == line) left += length(l.contours);
    CHECK(in_mm(left) == Approx(80).margin(1e-3));
    r.add(CutOutStep{}, {box}, {far});
    CHECK(has(r.part().findings, "cut-out.misses"));
}

TEST_CASE("outline: a ring 50/20 by 4, all edges, outer only") {
    Recipe r("<path fill-rule='evenodd' fill='#111' d='M75,50A25,25 0 1 1 25,50A25,25 0 1 1 75,50Z"
             "M60,50A10,10 0 1 1 40,50A10,10 0 1 1 60,50Z'/>");
    OutlineStep by;
    by.distance = mm(4), by.outer_only = false;
    const StepId all = r.add(by, {r.set()});
    const Region ring = r.area_of(r.result(all));
    CHECK(bounds(ring).width() == Approx(58).margin(0.02));
    CHECK(in_square_mm(area(ring)) == Approx(pi * (29 * 29 - 6 * 6)).epsilon(1e-3));
    by.outer_only = true;
    const StepId outer = r.add(by, {r.set()});
    CHECK(r.square(r.result(outer)) == Approx(2642.08).epsilon(1e-3));
    CHECK(r.figure(outer, "holes_before") == 1);
    CHECK(r.figure(outer, "holes_after") == 0);
    CHECK(r.count(r.set()) == 1); // the source is kept
}

TEST_CASE("outlines lie behind what they go around, the later the further") {
    Recipe r(rect(20, 20, 60, 40));
    OutlineStep by;
    const LineSetId near = r.result(r.add(by, {r.set()}));
    by.distance = mm(8);
    const LineSetId far = r.result(r.add(by, {r.set()}));
    const EvaluatedPart& part = r.part();
    REQUIRE(part.lines.size() == 3);
    CHECK(part.lines[0].set == far);
    CHECK(part.lines[1].set == near);
    CHECK(part.lines[2].set == r.set());
    REQUIRE(part.runs.size() == 3);
    CHECK(part.runs[0].set == far); // painted first
    CHECK(part.runs[2].set == r.set());
}

TEST_CASE("outline: corners and several rings of a 60 x 40 rectangle") {
    Recipe r(rect(20, 20, 60, 40));
    OutlineStep by;
    const auto area_with = [&](OutlineStep::Corners corners) {
        by.corners = corners;
        return r.square(r.result(r.add(by, {r.set()})));
    };
    CHECK(area_with(OutlineStep::Corners::round) == Approx(3028.27).margin(0.1));
    CHECK(area_with(OutlineStep::Corners::mitred) == Approx(3036).margin(1e-3));
    CHECK(area_with(OutlineStep::Corners::bevelled) ==
          Approx(3036 - 4 * 4.5).margin(1e-3)); // half of 3 x 3 each
    by.distance = mm(-3);
    CHECK(area_with(OutlineStep::Corners::round) == Approx(54 * 34).margin(1e-3));
    CHECK(area_with(OutlineStep::Corners::bevelled) == Approx(54 * 34).margin(1e-3));
    by.rings = 8, by.gap = mm(4);
    const StepId rings = r.add(by, {r.set()});
    CHECK(r.figure(rings, "lines") == 5); // -3 -7 -11 -15 -19 leave something of 40
    CHECK(has(r.part().findings, "outline.empty"));
    by.distance = mm(-25);
    const StepId none = r.add(by, {r.set()});
    CHECK_FALSE(r.part().reports.at(none)->refused.empty());
    CHECK(get(r.part().findings, "step.refused").remedy.code == "step.off");
}

TEST_CASE("a later step works on what an earlier one made, the order and the removal are guarded") {
    Recipe r(rect(20, 20, 60, 40));
    const StepId outline = r.add(OutlineStep{}, {r.set()});
    const StepId dash = r.add(DashStep{}, {r.result(outline)});
    CHECK(r.figure(dash, "dashes") > 20);
    CHECK(move_step(r.b.project, r.b.part, dash, 0).error().code == "step.order");
    CHECK(remove_step(r.b.project, r.b.part, outline).error().code == "step.used");
    must(remove_step(r.b.project, r.b.part, dash));
    must(remove_step(r.b.project, r.b.part, outline));
    must(check_rules(r.b.project));
}

TEST_CASE("holes: all, or the small ones") {
    Recipe r("<path fill='#111' d='M0,0h100v100h-100Z M10,10v4h4v-4Z M40,40v30h30v-30Z'/>");
    FillHolesStep small;
    small.under = mm(10);
    const StepId one = r.add(small, {});
    CHECK(r.square(r.set()) == Approx(10000 - 900).margin(1e-3));
    r.add(FillHolesStep{}, {});
    CHECK(r.square(r.set()) == Approx(10000).margin(1e-3));
    CHECK(r.figure(one, "holes_after") == 1);
}

TEST_CASE("pieces are numbered from the left and dropped by number") {
    Recipe r("<path fill='#111' d='M0,0h5v5h-5Z M20,0h5v5h-5Z M40,0h5v5h-5Z M60,0h5v5h-5Z'/>");
    const StepId step = r.add(PiecesStep{"1, 3-4"}, {});
    CHECK(r.count(r.set()) == 1);
    CHECK(r.part().lines.front().box.x0 == Approx(20).margin(1e-5));
    CHECK(r.figure(step, "pieces_before") == 4);
    r.add(PiecesStep{"7"}, {});
    CHECK(has(r.part().findings, "pieces.none"));
    r.add(PiecesStep{"two"}, {});
    CHECK(has(r.part().findings, "step.refused"));
}

TEST_CASE("clean drops crumbs, opens slivers, keeps doubled lines once, drops needless points") {
    Recipe r(
        rect(10, 10, 40, 20) + rect(10, 10, 40, 20) + rect(80, 80, 0.3, 0.3) +
        "<path fill='none' stroke='#111' d='M100,10h30v30h-30Z M130,20h20v0.4h-20Z'/>"
        "<path fill='none' stroke='#111' d='M50,10L50,30L10,30L10,10Z'/>" // the first again, from elsewhere
        "<path fill='none' stroke='#111' d='M10,100 L20,100.001 L30,100 L40,99.999 L50,100'/>");
    CleanStep clean;
    clean.least_width = mm(1);
    const StepId step = r.add(clean, {});
    CHECK(r.figure(step, "doubled_dropped") == 2);
    CHECK(r.figure(step, "crumbs_dropped") == 1);
    CHECK(r.figure(step, "slivers_opened") == 1);
    CHECK(r.square(r.set()) == Approx(800 + 900).margin(0.01)); // corners stay sharp
    CHECK(r.figure(step, "points_after") < r.figure(step, "points_before"));
}

TEST_CASE("corners: rounded and chamfered rectangles (I)") {
    Recipe r(rect(10, 10, 60, 40));
    CornersStep round;
    round.radius = mm(5);
    const StepId step = r.add(round, {});
    CHECK(r.square(r.set()) == Approx(2400 - (4 - pi) * 25).margin(0.5)); // chords within 0.01 mm
    CHECK(r.figure(step, "corners") == 4);
    Recipe c(rect(10, 10, 60, 40));
    round.kind = CornersStep::Kind::chamfer;
    c.add(round, {});
    CHECK(c.square(c.set()) == Approx(2400 - 4 * 12.5).margin(1e-3));
    Recipe tight(rect(10, 10, 60, 6));
    tight.add(round, {});
    CHECK(has(tight.part().findings, "corners.short"));
    CHECK(tight.square(tight.set()) == Approx(360 - 4 * 4.5).margin(1e-3)); // 3 mm is what there is room for
    Recipe circle("<circle cx='50' cy='50' r='20' fill='none' stroke='#111'/>");
    const StepId none = circle.add(round, {});
    CHECK(circle.figure(none, "corners") == 0);
}

TEST_CASE("dash: open lines begin and end on a dash, closed ones come out even") {
    Recipe r("<path d='M10,10h100' fill='none' stroke='#111'/>");
    DashStep dash;
    dash.dash = mm(4), dash.gap = mm(2), dash.setback = mm(1);
    const StepId step = r.add(dash, {});
    const auto& contours = r.part().lines.front().contours;
    CHECK(contours.front().points.front().x == Approx(11));
    CHECK(contours.back().points.back().x == Approx(109));
    CHECK(contours.size() == 17); // (98 + 2) / 6 = 16.7
    for (const Polyline& c : contours)
        CHECK(in_mm(length(c)) == Approx(4).margin(1e-6));
    CHECK(r.figure(step, "gap_least") == Approx((98.0 - 17 * 4) / 16));
    Recipe square(rect(10, 10, 30, 30));
    const StepId even = square.add(dash, {});
    CHECK(square.figure(even, "dashes") == 20); // 120 / 6
    CHECK(square.figure(even, "gap_most") == Approx(2).margin(1e-6));
    Recipe tiny("<path d='M10,10h1.5' fill='none' stroke='#111'/>");
    tiny.add(dash, {});
    CHECK(has(tiny.part().findings, "step.refused"));
}

TEST_CASE("resize, mirror, turn and align move lines and keep them single") {
    Recipe r(rect(10, 20, 40, 10) + rect(100, 100, 20, 60));
    ResizeStep size;
    size.size = mm(220); // of 110 x 140
    r.add(size, {});
    Box box = r.part().box;
    CHECK(box.width() == Approx(220));
    CHECK(box.height() == Approx(280));
    CHECK(box.centre().x == Approx(65));
    CHECK(r.part().worked.empty()); // lines still stand for themselves
    r.add(TurnStep{degrees(90)}, {});
    CHECK(r.part().box.width() == Approx(280));
    r.add(MirrorStep{}, {});
    r.add(MirrorStep{}, {});
    const auto before = r.part().lines.front().contours;
    Recipe a(rect(10, 10, 100, 100) + rect(150, 150, 20, 10));
    const LineSetId small = a.line(1);
    a.add(AlignStep{}, {small});
    for (const FlatLine& l : a.part().lines)
        if (l.set == small) CHECK(l.box.centre().x == Approx(60));
    Recipe alone(rect(10, 10, 10, 10));
    alone.add(AlignStep{}, {});
    CHECK(has(alone.part().findings, "step.refused"));
}

TEST_CASE("copies in a grid and around a ring") {
    Recipe r(rect(10, 10, 20, 10));
    CopiesStep copies;
    copies.columns = 4, copies.rows = 3, copies.gap_across = mm(5), copies.gap_down = mm(1);
    r.add(copies, {});
    CHECK(r.count(r.set()) == 12);
    CHECK(r.part().box.width() == Approx(4 * 20 + 3 * 5));
    CHECK(r.part().box.height() == Approx(3 * 10 + 2 * 1));
    Recipe ring(rect(95, 98, 10, 4));
    copies.layout = CopiesStep::Layout::ring;
    copies.count = 4, copies.radius = mm(30);
    ring.add(copies, {});
    // Four bars looking outwards: above, right (upright), below, left.
    const Box box = ring.part().box;
    CHECK(box.height() == Approx(64));
    CHECK(box.width() == Approx(64));
    CHECK(box.centre().x == Approx(100).margin(1e-6));
    copies.layout = CopiesStep::Layout::grid;
    copies.columns = copies.rows = 100;
    ring.add(copies, {});
    ring.add(copies, {});
    CHECK(has(ring.part().findings, "step.refused")); // would not fit into memory
}

TEST_CASE("a fill of what an outline made, and steps switched off") {
    Recipe r(rect(20, 20, 60, 40));
    const StepId outline = r.add(OutlineStep{}, {r.set()});
    const StepId fill = r.add(FillStep{}, {r.result(outline)});
    CHECK(in_square_mm(ink_of(r.part(), fill)->coverage.to_fill) == Approx(3028.27).epsilon(1e-3));
    Step off = *find(*find(r.b.project, r.b.part), outline);
    CHECK(off.aside); // only the fill is run
    off.on = false;
    must(change_step(r.b.project, r.b.part, off));
    CHECK_FALSE(r.part().reports.contains(outline));
    CHECK(has(r.part().findings, "fill.empty"));
}

TEST_CASE(
    "computed parts: roles go to lanes, whole sets are sent, numbers change, results stay when refused") {
    Workshop workshop(catalog());
    Project project = workshop.new_project("x");
    FoldedCard card;
    const PartId id = must(make_part(project, catalog(), workshop.fonts(), card));
    const auto action_of = [&](const std::string& role) {
        for (const LineSet& s : find(project, id)->sets)
            if (s.role == role) return find(project, s.lane)->action;
        FAIL("no role " << role);
        return Action::print;
    };
    CHECK(action_of("outline") == Action::cut);
    CHECK(action_of("fold") == Action::score);
    auto d = workshop.derive(std::make_shared<Project>(project));
    CHECK(d->part(id)->box.width() == Approx(210));
    card.line = FoldedCard::Line::perforate; // a role comes up
    must(change_source(project, catalog(), workshop.fonts(), id, card));
    CHECK(action_of("perforated fold") == Action::perforate);
    d = workshop.derive(std::make_shared<Project>(project));
    CHECK_FALSE(has(d->findings, "lane.none"));
    std::vector<LineId> all;
    for (const FlatLine& l : d->part(id)->lines)
        all.push_back(l.id);
    const LaneId draw =
        add_lane(project, {{}, Action::draw, "pen", catalog().first_tool(Action::draw)->id, {}, 1});
    must(send_lines(project, *d->part(id), all, draw));
    CHECK(action_of("outline") == Action::draw);
    card.width = mm(20), card.tuck = mm(20), card.fold = FoldedCard::Fold::three;
    must(change_source(project, catalog(), workshop.fonts(), id,
                       card)); // on the way to numbers that go together
    d = workshop.derive(std::make_shared<Project>(project));
    CHECK(get(d->findings, "source.failed").grade == Grade::error);
    CHECK(d->part(id)->box.width() == Approx(210)); // the last that could be made
    CHECK(change_source(project, catalog(), workshop.fonts(), id, Badge{}).error().code == "source.kind");
    CHECK(must(make_part(project, catalog(), workshop.fonts(), FoldedCard{})) != id);
    CHECK(project.parts.back().name == "Folded card 2");
    must(check_rules(project));
}

TEST_CASE("lettering is called by its words until it is given a name") {
    Workshop workshop(catalog());
    Project project = workshop.new_project("x");
    Lettering spec;
    const PartId id = must(make_part(project, catalog(), workshop.fonts(), spec));
    CHECK(find(project, id)->name == "Lantern");
    std::string umlauts;
    for (int i = 0; i < 30; ++i)
        umlauts += "\u00fc";
    spec.text = "\n" + umlauts + "\nmore";
    must(change_source(project, catalog(), workshop.fonts(), id, spec));
    CHECK(find(project, id)->name == umlauts.substr(0, 40)); // whole characters
    must(rename_part(project, id, "Sign"));
    spec.text = "Harbour";
    must(change_source(project, catalog(), workshop.fonts(), id, spec));
    CHECK(find(project, id)->name == "Sign");
}

TEST_CASE("envelopes and stocks that take a card") {
    // A6 cards go into C6 envelopes (ISO 269), 5 x 7 in cards into US A7.
    const auto first = [](double w, double h) {
        const auto fits = envelopes_for(catalog(), mm(w), mm(h));
        return fits.empty() ? std::string("none") : fits.front().envelope->name;
    };
    CHECK(first(105, 148) == "C6");
    CHECK(first(148, 105) == "C6");
    CHECK(first(148, 210) == "C5");
    CHECK(first(127, 177.8) == "US A7");
    CHECK(first(99, 210) == "DL");
    CHECK(first(20, 20) == "none");
    const auto a2 = envelopes_for(catalog(), inches(4.25), inches(5.5));
    CHECK(std::any_of(a2.begin(), a2.end(),
                      [](const EnvelopeFit& f) { return f.envelope->name == "US A2" && f.tight; }));
}
