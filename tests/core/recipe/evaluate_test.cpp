#include "core/base/text.h"
#include "core/recipe/evaluate.h"

#include <numbers>
#include <thread>

#include "core/commands/apart.h"
#include "core/commands/filling.h"
#include "core/commands/making.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

const char* letters = // an O with its counter, and an i whose dot is apart
    "<path id='o' fill='#a8832d' d='M10,10 h30 v30 h-30 Z M18,18 v14 h14 v-14 Z'/>"
    "<path id='i' fill='#a8832d' d='M50,20 h6 v20 h-6 Z M50,10 h6 v6 h-6 Z'/>";

StepId filled(Bench& b) {
    return must(fill_lines(b.project, catalog(), b.part, b.lines()));
}

FillStep& step_of(Bench& b, StepId id) {
    for (Step& s : find(b.project, b.part)->steps)
        if (s.id == id) return std::get<FillStep>(s.what);
    FAIL("no step");
    throw 0;
}

} // namespace

TEST_CASE("a fill keeps its spacing when the part is scaled") {
    Bench b = bench(letters);
    const StepId step = filled(b);
    step_of(b, step).angle = {};
    step_of(b, step).ends = FillEnds::apart;
    const auto gaps = [&] {
        const auto d = b.derive();
        std::vector<double> rows;
        for (const RunSet& run : d->part(b.part)->runs)
            if (run.step == step)
                for (const Polyline& l : run.lines)
                    rows.push_back(l.points[0].y);
        std::sort(rows.begin(), rows.end());
        rows.erase(std::unique(rows.begin(), rows.end(), [](double x, double y) { return y - x < 1e-6; }),
                   rows.end());
        std::vector<double> out;
        for (std::size_t i = 1; i < rows.size(); ++i)
            out.push_back(rows[i] - rows[i - 1]);
        return out;
    };
    const double spacing = in_mm(ink_of(*b.derive()->part(b.part), step)->spacing);
    const auto before = gaps();
    must(scale_part(b.project, b.part, 2.5));
    const auto after = gaps();
    CHECK(after.size() == Approx(2.5 * static_cast<double>(before.size())).epsilon(0.05));
    for (const double g : after)
        CHECK(g == Approx(spacing).margin(1e-6)); // k times the old, had it been finished lines
}

TEST_CASE("counters stay open and nothing is inked outside by more than rounding") {
    Bench b = bench(letters);
    const StepId step = filled(b);
    const auto d = b.derive();
    const InkReport& report = *ink_of(*d->part(b.part), step);
    const Region counter = region_of({ring({{18, 18}, {32, 18}, {32, 32}, {18, 32}})}, FillRule::nonzero);
    for (const RunSet& run : d->part(b.part)->runs)
        if (run.step == step) CHECK(in_mm(length(clipped(run.lines, counter))) == Approx(0).margin(1e-3));
    CHECK(report.coverage.overspill_percent < 0.1);
    CHECK(report.coverage.covered_percent > 97); // 15 % overlap on blocks: only the corners stay bare
    CHECK(report.open_lines == 0);
    CHECK(report.inset == report.tip / 2);
}

TEST_CASE("without inset the ink runs over the edge, and a finding offers to mend it") {
    Bench b = bench(letters);
    const StepId step = filled(b);
    step_of(b, step).inset = mm(0);
    const auto d = b.derive();
    const InkReport& report = *ink_of(*d->part(b.part), step);
    // Half the tip runs over along the edges: perimeter x tip / 2 against the area (112 + 56 ... ends
    // included).
    CHECK(report.coverage.overspill_percent > 2);
    CHECK(get(d->findings, "fill.overspill").remedy.code == "fill.inset-auto");
}

TEST_CASE("open lines are left out of a fill and counted") {
    Bench b = bench("<rect id='r' x='5' y='5' width='30' height='20' fill='none' stroke='#a8462d'/>"
                    "<path id='open' d='M50,10 h30' fill='none' stroke='#a8462d'/>");
    const StepId step = must(add_maker(b.project, b.part, b.project.lanes.front().id, FillStep{},
                                       {find(b.project, b.part)->sets.front().id}, false));
    const auto d = b.derive();
    CHECK(ink_of(*d->part(b.part), step)->open_lines == 1);
    CHECK(get(d->findings, "fill.open-lines").grade == Grade::caution);
}

TEST_CASE("lines whose ends meet are closed, whatever the file says, filled shapes are areas") {
    Bench b = bench("<path d='M5,5 h20 v20 h-20 L5,5' fill='none' stroke='#a8462d'/>" // ends meet, no Z
                    "<path d='M40,5 h20 v20 h-20' fill='#a8832d'/>");                 // filled, not closed
    const StepId step = filled(b);
    const auto d = b.derive();
    CHECK(ink_of(*d->part(b.part), step)->open_lines == 0);
    CHECK(in_square_mm(ink_of(*d->part(b.part), step)->coverage.to_fill) == Approx(800).epsilon(1e-3));
}

TEST_CASE("too thin for the tip, or nothing at all: said, not silent") {
    Bench b = bench("<rect x='5' y='5' width='40' height='0.3' fill='#a8832d'/><rect x='5' y='15' width='40' "
                    "height='10' fill='#a8832d'/>");
    const StepId step = filled(b);
    step_of(b, step).centre_lines = false;
    auto d = b.derive();
    CHECK(ink_of(*d->part(b.part), step)->too_thin == 1);
    CHECK(has(d->findings, "fill.too-thin"));
    step_of(b, step).inset = mm(20);
    d = b.derive();
    CHECK(get(d->findings, "fill.empty").grade == Grade::error);
    CHECK_FALSE(ink_of(*d->part(b.part), step)->refused.empty());
}

TEST_CASE("a spacing wider than the tip is hinted at") {
    Bench b = bench(letters);
    const StepId step = filled(b);
    step_of(b, step).spacing = mm(2);
    CHECK(get(b.derive()->findings, "fill.wide").remedy.code == "fill.solid");
}

TEST_CASE("every line is run once: by its set, or not at all when set aside") {
    Bench b = bench(letters);
    const auto runs_of = [&](const Derived& d) {
        std::size_t n = 0;
        for (const RunSet& run : d.part(b.part)->runs)
            if (!run.step) n += run.lines.size();
        return n;
    };
    CHECK(runs_of(*b.derive()) == 4); // contours
    filled(b);
    const auto d = b.derive();
    CHECK(runs_of(*d) == 0); // outlines set aside for the fill
    CHECK(has(d->findings, "lines.set-aside"));
}

TEST_CASE("a line without a lane is an error with its place") {
    Bench b = bench(letters);
    must(assign(b.project, b.part, {b.lines().front()}, LaneId{}));
    const auto d = b.derive();
    const Finding& f = get(d->findings, "lane.none");
    CHECK(f.grade == Grade::error);
    CHECK(f.place.box.x0 == Approx(10).margin(1e-6));
    CHECK(f.place.box.x1 == Approx(40).margin(1e-6));
}

TEST_CASE("a change costs the step it is made in and those that work on what it made") {
    Bench b = bench(letters);
    filled(b);
    must(append_step(b.project, catalog(), b.part, TurnStep{degrees(10)}, {}));
    must(append_step(b.project, catalog(), b.part, MirrorStep{}, {}));
    EvaluatedPart last;
    const LaneTips tips{{b.lane(Action::foil), mm(0.5)}};
    Part part = *find(b.project, b.part);
    const auto run = [&](Progress& progress = no_progress()) {
        auto made = evaluate(part, {{part.source.drawing, {}, {}}, {}, tips}, &last, progress);
        if (!made.chain) return made.chain;
        last = std::move(made);
        return last.chain;
    };
    const auto first = run();
    REQUIRE(first->links.size() == 3);
    const auto link = [&](const auto& chain, std::size_t step) {
        return chain->links.at(part.steps[step].id);
    };
    part.steps[1].what = TurnStep{degrees(20)};
    const auto second = run();
    CHECK(second->base == first->base);
    CHECK(link(second, 0) == link(first, 0)); // the fill was not made again
    CHECK(link(second, 1) != link(first, 1));
    CHECK(link(second, 2) != link(first, 2));
    part.steps[0].lane = b.lane(Action::foil);
    part.sets[0].lane = {};
    CHECK(link(run(), 2) == link(second, 2)); // lanes change no line
    part.scale = 2;
    CHECK(run()->base != first->base);
    Progress cancelled;
    cancelled.cancel();
    part.scale = 3;
    CHECK_FALSE(run(cancelled)); // what was cut short is not kept
    CHECK(last.chain->scale == 2);
}

TEST_CASE("steps that work on the same lines do not wait for each other") {
    Bench b = bench(letters);
    const LineSetId set = find(b.project, b.part)->sets.front().id;
    for (const double distance : {1.0, 2.0})
        must(append_step(b.project, catalog(), b.part, OutlineStep{mm(distance)}, {set}));
    EvaluatedPart last;
    Part part = *find(b.project, b.part);
    const auto run = [&] {
        last = evaluate(part, {{part.source.drawing, {}, {}}, {}, {}}, &last);
        return last.chain;
    };
    const auto first = run();
    std::get<OutlineStep>(part.steps[0].what).distance = mm(3);
    const auto second = run();
    CHECK(second->links.at(part.steps[0].id) != first->links.at(part.steps[0].id));
    CHECK(second->links.at(part.steps[1].id) == first->links.at(part.steps[1].id));
    std::swap(part.steps[0], part.steps[1]); // nor does their order matter
    CHECK(run()->links == second->links);
}

TEST_CASE("a heavy step that is cancelled leaves nothing behind, and is done whole the next time") {
    Random random("cancelled steps");
    INFO("seed " << random.seed());
    std::string elements;
    for (int i = 0; i < 400; ++i)
        elements += "<circle cx='" + number(random.real(10, 190), 6) + "' cy='" +
                    number(random.real(10, 190), 6) + "' r='" + number(random.real(2, 9), 6) + "' fill='" +
                    (random.coin() ? "#111111" : "#a8462d") + "'/>";
    Bench b = bench(elements, 200, 200);
    Part& part = *find(b.project, b.part);
    must(gather_colours(b.project, b.part));
    must(append_step(b.project, catalog(), *b.derive()->part(b.part), KnockOutStep{}, {}));
    RecipeInputs inputs;
    inputs.source.drawing = part.source.drawing;
    const EvaluatedPart whole = evaluate(part, inputs);
    const StepId step = part.steps.back().id;
    REQUIRE(whole.reports.at(step)->refused.empty());
    for (int k = 0; k < 6; ++k) {
        Progress progress;
        std::thread hand([&] {
            std::this_thread::sleep_for(std::chrono::milliseconds(k * 5));
            progress.cancel();
        });
        const EvaluatedPart cut = evaluate(part, inputs, nullptr, progress);
        hand.join();
        // Begun anew from what it has, which may be nothing.
        const EvaluatedPart again = evaluate(part, inputs, &cut);
        REQUIRE(again.runs.size() == whole.runs.size());
        for (std::size_t r = 0; r < whole.runs.size(); ++r)
            CHECK(again.runs[r].lines == whole.runs[r].lines);
    }
}

TEST_CASE("steps that are begun before their turn make what they make at it") {
    Random random("steps begun early");
    INFO("seed " << random.seed());
    std::string elements; // two colours, each of more points than are worked on at once
    for (const char* colour : {"#111111", "#a8462d"})
        for (int i = 0; i < 4; ++i) {
            elements += std::string("<path stroke='") + colour + "' fill='none' d='M";
            const double x = random.real(30, 170), y = random.real(30, 170), waves = random.whole(3, 9);
            for (int k = 0; k < 700; ++k) {
                const double t = k * 2 * std::numbers::pi / 700, r = 12 + 3 * std::sin(waves * t);
                elements += number(x + r * std::cos(t), 6) + "," + number(y + r * std::sin(t), 6) + " ";
            }
            elements += "Z M" + number(x, 6) + "," + number(y, 6) + " h20'/>";
        }
    Bench b = bench(elements, 200, 200);
    must(gather_colours(b.project, b.part));
    const Part& there = *find(b.project, b.part);
    REQUIRE(there.sets.size() == 2);
    const LineSetId sets[] = {there.sets[0].id, there.sets[1].id};
    for (int round = 0; round < 8; ++round) {
        Project project = b.project;
        std::vector<LineSetId> known(sets, sets + 2);
        for (int k = 0; k < 6; ++k) {
            HingeStep hinge; // makes lines, and takes some of what it works on
            hinge.radius = mm(random.real(5, 20));
            CleanStep clean;
            clean.least_size = mm(random.real(0.5, 3));
            const StepWhat kinds[] = {OutlineStep{mm(random.real(0.2, 2))},
                                      OutlineStep{mm(random.real(-2, -0.2))},
                                      hinge,
                                      clean,
                                      TurnStep{degrees(random.real(1, 50))},
                                      FillHolesStep{mm(random.real(0.5, 5))},
                                      DashStep{}};
            // At first one whose guess is wrong: a hinge between two outlines.
            const bool fixed = round == 0;
            const StepWhat& what = kinds[fixed ? (k % 2 ? 2 : 0) : random.whole(0, 6)];
            const int of = fixed ? 0 : random.whole(0, static_cast<int>(known.size()) - 1);
            const StepId id =
                must(append_step(project, catalog(), b.part, what, {known[static_cast<std::size_t>(of)]}));
            if (kind_of(what).makes) known.push_back(find(*find(project, b.part), id)->result);
        }
        const Part& part = *find(project, b.part);
        RecipeInputs inputs;
        inputs.source.drawing = part.source.drawing;
        const EvaluatedPart together = evaluate(part, inputs);
        Part grown = part; // one more step at a time: none is there to be begun
        for (Step& step : grown.steps)
            step.on = false;
        EvaluatedPart alone;
        for (Step& step : grown.steps) {
            step.on = true;
            alone = evaluate(grown, inputs, &alone);
        }
        REQUIRE(together.lines.size() == alone.lines.size());
        for (std::size_t i = 0; i < alone.lines.size(); ++i) {
            CHECK(together.lines[i].id == alone.lines[i].id);
            CHECK(together.lines[i].contours == alone.lines[i].contours);
        }
        CHECK(together.findings.size() == alone.findings.size());
        for (const Step& step : part.steps)
            CHECK(together.reports.at(step.id)->refused == alone.reports.at(step.id)->refused);
    }
}
