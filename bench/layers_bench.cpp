// Stencils and layers: how long their bridges, webs and hidden parts take. Goals are seconds, as the maker
// waits for them, and for knocking out the time of the bare booleans that it needs.
#include <benchmark/benchmark.h>

#include <random>

#include "bench/goals.h"
#include "bench/process.h"
#include "bench/work.h"
#include "core/geometry/narrow.h"
#include "core/geometry/reshape.h"
#include "core/recipe/bridges.h"
#include "core/recipe/evaluate.h"
#include "core/recipe/hidden.h"
#include "core/recipe/webs.h"

using namespace dotlane;
using namespace dotlane::bench;

namespace {

Ring blob(std::mt19937& dice, Point at, double least, double most, int corners) {
    std::uniform_real_distribution<double> radius(least, most);
    Ring out;
    for (int i = 0; i < corners; ++i) {
        const double t = 2 * 3.14159265358979 * i / corners, r = radius(dice);
        out.push_back({at.x + r * std::cos(t), at.y + r * std::sin(t)});
    }
    return out;
}

Region region(const Ring& ring) {
    return region_of({Polyline{ring, true}}, FillRule::nonzero);
}

Ring star(Point at, double radius, int points) {
    Ring out;
    for (int i = 0; i < 2 * points; ++i) {
        const double t = 3.14159265358979 * (i + 0.25) / points, r = i % 2 ? radius / 2 : radius;
        out.push_back({at.x + r * std::cos(t), at.y + r * std::sin(t)});
    }
    return out;
}

/// 500 islands: each in an opening of its own, and all of them in one; round ones, and stars of thirty
/// points.
void bridges_time(benchmark::State& state) {
    const bool one = state.range(0) != 0, spiked = state.range(2) != 0;
    std::mt19937 dice(static_cast<unsigned>(state.range(1)));
    Polylines lines;
    for (int i = 0; i < 500; ++i) {
        const Point at{15.0 + 14 * (i % 25), 15.0 + 14 * (i / 25)};
        if (!one) lines.push_back({blob(dice, at, 5, 6.5, 40), true});
        lines.push_back({spiked ? star(at, 2.4, 30) : blob(dice, at, 2, 4, 40), true});
    }
    if (one) lines.push_back({{{0, 0}, {370, 0}, {370, 300}, {0, 300}}, true});
    const Region openings = region_of(lines, FillRule::evenodd);
    BridgeWishes wishes;
    wishes.width = mm(1);
    for (auto _ : state) {
        const Watch watch;
        const Bridged made = bridged(openings, wishes, no_progress());
        const double seconds = watch.seconds();
        state.counters["bridges"] = static_cast<double>(made.bridges.size());
        state.counters["loose"] = static_cast<double>(made.loose.size());
        goal(spiked ? "stencil: bridges for 500 spiked islands, s" : "stencil: bridges for 500 islands, s",
             seconds, 0.3);
    }
}

/// A sheet in one piece with some thousand narrow places, over two offsets of it, which are the least that
/// finding them takes: what is done at each place must not cost the whole.
void narrow_time(benchmark::State& state) {
    std::mt19937 dice(static_cast<unsigned>(state.range(0)));
    Polylines lines{{{{0, 0}, {290, 0}, {290, 290}, {0, 290}}, true}};
    for (int i = 0; i < 1200; ++i)
        lines.push_back({blob(dice, {8.0 + 8 * (i % 35), 8.0 + 8 * (i / 35)}, 2.5, 4.1, 24), true});
    const Region sheet = region_of(lines, FillRule::evenodd);
    for (auto _ : state) {
        const Watch ours;
        const auto found = narrow_places(sheet, mm(0.8), mm(0), 1'000'000);
        const double mine = ours.seconds();
        const Watch bare;
        const Region core = offset(sheet, mm(-0.39));
        benchmark::DoNotOptimize(offset(core, mm(0.39)));
        state.counters["places"] = static_cast<double>(found.places.size());
        state.counters["over_offsets"] = mine / bare.seconds();
    }
}

/// 2,000 openings on 12 x 12 in.
void webs_time(benchmark::State& state) {
    std::mt19937 dice(static_cast<unsigned>(state.range(0)));
    Polylines lines;
    for (int i = 0; i < 2000; ++i)
        lines.push_back({blob(dice, {4.0 + 6.6 * (i % 46), 4.0 + 6.6 * (i / 46)}, 1.5, 3, 24), true});
    const Region openings = region_of(lines, FillRule::nonzero);
    Box sheet = bounds(openings).grown(3);
    for (auto _ : state) {
        const Watch watch;
        const auto found = webs(openings, sheet, mm(1), no_progress());
        const double seconds = watch.seconds();
        state.counters["narrow"] = static_cast<double>(found.size());
        goal("stencil: webs of 2,000 openings, s", seconds, 0.5);
    }
}

/// 100 parts that overlap, each a layer: over the bare unions and differences, one after another.
void knock_out_time(benchmark::State& state) {
    std::mt19937 dice(static_cast<unsigned>(state.range(0)));
    std::uniform_real_distribution<double> place(0, 200);
    std::vector<Piled> pile;
    for (std::size_t i = 0; i < 100; ++i)
        pile.push_back({region(blob(dice, {place(dice), place(dice)}, 20, 40, 60)), i});
    for (auto _ : state) {
        const Watch ours;
        const auto seen = seen_of(pile, pile.size(), no_progress());
        const double mine = ours.seconds();
        const Watch theirs;
        Region above;
        double sum = 0;
        for (std::size_t i = pile.size(); i-- > 0;) {
            sum += in_square_mm(area(subtracted(pile[i].area, above)));
            above = united(above, pile[i].area);
        }
        const double bare = theirs.seconds();
        double mine_sum = 0;
        for (const Region& r : seen)
            mine_sum += in_square_mm(area(r));
        if (std::abs(sum - mine_sum) > 1e-3 * sum) state.SkipWithError("what is seen differs");
        goal("layers: 100 overlapping parts over bare booleans", mine / bare, 2);
    }
}

/// 5,000 pieces in 20 colours.
void many_pieces_time(benchmark::State& state) {
    std::mt19937 dice(static_cast<unsigned>(state.range(0)));
    std::uniform_real_distribution<double> place(0, 300);
    std::vector<Piled> pile;
    for (std::size_t i = 0; i < 5000; ++i)
        pile.push_back({region(blob(dice, {place(dice), place(dice)}, 1, 8, 20)), i / 250});
    for (auto _ : state) {
        const Watch watch;
        const auto seen = seen_of(pile, 20, no_progress());
        const double seconds = watch.seconds();
        state.counters["layers"] = static_cast<double>(seen.size());
        goal("layers: 5,000 pieces in 20 colours, s", seconds, 2);
    }
}

/// While 5,000 pieces in 20 layers are knocked out, or made a stencil with wide webs: from the hand's stop to
/// the end.
void cancel_time(benchmark::State& state) {
    std::mt19937 dice(static_cast<unsigned>(state.range(1)));
    std::uniform_real_distribution<double> place(0, 300);
    Part part;
    part.id = {1};
    auto drawing = std::make_shared<Drawing>();
    Step step;
    KnockOutStep knock;
    knock.mode = KnockOutStep::Mode::knock_out;
    step.id = {2}, step.what = knock;
    if (state.range(0) == 1) {
        StencilStep stencil;
        stencil.webs = StencilStep::Webs::widened;
        step.what = stencil, step.result = {999};
    }
    for (std::uint32_t i = 0; i < 20; ++i)
        part.sets.push_back({{i + 10}, "layer", {}, false, {}}), step.of.push_back({i + 10});
    for (std::uint32_t i = 0; i < 5000; ++i) {
        DrawnLine line;
        line.id = {i + 1};
        const Ring ring = blob(dice, {place(dice), place(dice)}, 1, 8, 20);
        Contour contour{ring.front(), {}, true};
        for (std::size_t k = 1; k < ring.size(); ++k)
            contour.line_to(ring[k]);
        line.shape.contours.push_back(std::move(contour));
        line.drawn.fill = Colour{};
        drawing->lines.push_back(std::move(line));
        part.sets[i / 250].lines.push_back({i + 1});
    }
    part.steps.push_back(step);
    RecipeInputs inputs;
    inputs.source.drawing = drawing;
    double longest = 0;
    for (auto _ : state) {
        const Watch all;
        benchmark::DoNotOptimize(evaluate(part, inputs));
        const double whole = all.seconds();
        state.counters["whole_s"] = whole;
        if (state.range(0) == 0) goal("layers: 5,000 pieces knocked out by the step, s", whole, 2);
        for (int i = 1; i <= 6; ++i)
            longest = std::max(longest, wait_for_end(whole * i / 9, [&](Progress& progress) {
                                   benchmark::DoNotOptimize(evaluate(part, inputs, nullptr, progress));
                               }));
    }
    goal(state.range(0) == 0 ? "layers: longest wait for a cancelled knock-out, s"
                             : "layers: longest wait for a cancelled stencil, s",
         longest, 0.1);
}

} // namespace

BENCHMARK(cancel_time)
    ->Name("layers: cancelled")
    ->Args({0, 1})
    ->Args({1, 2})
    ->Iterations(1)
    ->Unit(benchmark::kMillisecond);
BENCHMARK(bridges_time)
    ->Name("stencil: 500 islands")
    ->Args({0, 1, 0})
    ->Args({1, 1, 0})
    ->Args({0, 2, 0})
    ->Args({1, 2, 0})
    ->Args({0, 1, 1})
    ->Args({1, 1, 1})
    ->Iterations(1)
    ->Unit(benchmark::kMillisecond);
BENCHMARK(narrow_time)->Name("narrow places")->Arg(1)->Arg(2)->Unit(benchmark::kMillisecond);
BENCHMARK(webs_time)->Name("stencil: webs")->Arg(1)->Arg(2)->Unit(benchmark::kMillisecond);
BENCHMARK(knock_out_time)->Name("layers: 100 parts")->Arg(1)->Arg(2)->Unit(benchmark::kMillisecond);
BENCHMARK(many_pieces_time)->Name("layers: 5,000 pieces")->Arg(1)->Arg(2)->Unit(benchmark::kMillisecond);
