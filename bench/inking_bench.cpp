// How long it takes to tell what fills would be. The goals are seconds, as the maker waits for them.
#include <benchmark/benchmark.h>

#include "bench/goals.h"
#include "bench/process.h"
#include "bench/work.h"
#include "core/lettering/outliner.h"
#include "core/recipe/fill_advice.h"
#include "core/recipe/hatch.h"
#include "core/recipe/heat.h"

using namespace dotlane;
using namespace dotlane::bench;

namespace {

Region letters(int rows, double size, const char* words) {
    static FontShelf shelf;
    Region all;
    for (int row = 0; row < rows; ++row) {
        const auto text = shelf.outline({"Lobster Two"}, mm(size), words);
        if (!text) continue;
        Shape shape;
        for (const auto& glyph : text->glyphs)
            shape.contours.insert(shape.contours.end(), glyph.shape.contours.begin(),
                                  glyph.shape.contours.end());
        all =
            united(all, transformed(region_of(shape, mm(0.01)), Affine::translation({0, row * size * 1.8})));
    }
    return all;
}

/// A title of 20 letters: all 180 angles, goal 1 s.
void angle_time(benchmark::State& state) {
    const Region title = letters(1, 12, "Saltmarsh Lantern Walk");
    WorkSet set{LineSetId{1}};
    FlatLine line;
    for (const Ring& ring : title.rings)
        line.contours.push_back({ring, true});
    line.box = bounds(title), line.rule = FillRule::evenodd;
    set.lines.push_back(std::move(line));
    StepInput in;
    in.of = {&set};
    in.tip = mm(0.4);
    const StepWhat fill = step_kind("fill")->fresh;
    for (auto _ : state) {
        const Watch watch;
        const auto found = try_angles(fill, in, [](const Polylines&) { return Duration(); });
        state.counters["seconds"] = watch.seconds();
        state.counters["angle"] = found ? in_degrees(best_of(*found, AngleGoal::no_corner).best.angle) : -1;
        goal("fill: all angles of a title of 20 letters, s", watch.seconds(), 1);
    }
}

/// A page of text, capitals of 4 mm, 36 lines, at 0.05 mm: goal 0.3 s.
void heat_time(benchmark::State& state) {
    const Region page = letters(36, 4,
                                "Along the long water, at dusk, bring a light and a friend, and mind the "
                                "reeds and the tide that comes in behind");
    const auto strokes = hatch(offset(page, mm(-0.1)), {mm(0.17), degrees(35), FillEnds::joined, true}).lines;
    for (auto _ : state) {
        const Watch watch;
        const Heat heat = heat_of(page, strokes, mm(0.2));
        state.counters["seconds"] = watch.seconds();
        state.counters["squares"] = static_cast<double>(heat.ink.size());
        goal("fill: heat of a page of text, s", watch.seconds(), 0.3);
    }
}

} // namespace

BENCHMARK(angle_time)->Name("angles of a title")->Iterations(3)->Unit(benchmark::kMillisecond);
BENCHMARK(heat_time)->Name("heat of a page")->Iterations(3)->Unit(benchmark::kMillisecond);
