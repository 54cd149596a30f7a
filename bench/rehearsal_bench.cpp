// A rehearsal of a large program, set to moments at random: for an earlier one the run begins anew.
#include <benchmark/benchmark.h>

#include "bench/goals.h"
#include "bench/work.h"
#include "core/run/rehearsal.h"

using namespace dotlane;
using namespace dotlane::bench;

namespace {

Program large_program() {
    Program out;
    out.motion = {mm_per_second(200), mm_per_second2(2000), mm(0.05), seconds(0.1), seconds(0.1)};
    out.sheets.push_back({SheetId{1}, "sheet"});
    StopMove first, last;
    first.number = 1, first.sheet = SheetId{1}, first.time = seconds(60);
    last.number = 2, last.time = seconds(30);
    PassMove pass;
    pass.sheet = SheetId{1}, pass.lane = LaneId{1}, pass.speed = mm_per_second(100);
    std::uint32_t line = 0;
    for (const Point p : scattered(100'000)) {
        Stroke stroke;
        stroke.points = {p, {p.x + 2, p.y + 1}};
        stroke.of.line = LineId{++line};
        pass.strokes.push_back(std::move(stroke));
    }
    out.moves = {first, std::move(pass), last};
    return out;
}

void seek(benchmark::State& state) {
    const Program program = large_program();
    const Timeline timeline(program);
    Rehearsal rehearsal(program, timeline);
    std::mt19937 random(11);
    std::uniform_real_distribution<double> share(0, 1);
    double slowest = 0;
    for (auto _ : state)
        for (int i = 0; i < 40; ++i) {
            const Watch watch;
            rehearsal.to(timeline.total() * share(random));
            benchmark::DoNotOptimize(rehearsal.machine());
            slowest = std::max(slowest, watch.seconds());
        }
    goal("rehearsal: set to any moment of 100,000 strokes, slowest of 40, s", slowest, 0.05);
}

} // namespace

BENCHMARK(seek)->Name("rehearsal, any moment")->Iterations(1)->Unit(benchmark::kMillisecond);
