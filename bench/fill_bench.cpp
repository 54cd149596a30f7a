// Hatching and coverage beside GEOS: parallel lines cut by a polygon; the area of buffered strokes.
#include <benchmark/benchmark.h>

#include "bench/goals.h"
#include "bench/process.h"
#include "bench/work.h"
#include "core/recipe/coverage.h"
#include "core/recipe/hatch.h"
#include "tests/reference/geos.h"

using namespace dotlane;
using namespace dotlane::bench;
using dotlane::test::Geos;

namespace {

constexpr double spacing = 0.4, tip = 0.5;

void hatch_ours(benchmark::State& state) {
    const Region region = gear(static_cast<int>(state.range(0)));
    for (auto _ : state)
        benchmark::DoNotOptimize(hatch(region, {mm(spacing), degrees(35), state.range(1) != 0, true}));
}

void hatch_geos(benchmark::State& state) {
    Geos geos;
    const Region region = gear(static_cast<int>(state.range(0)));
    const Affine turn = Affine::rotation(in_radians(degrees(35)));
    for (auto _ : state) {
        Polylines rows;
        for (double y = -63; y < 63; y += spacing)
            rows.push_back({{turn({-70, y}), turn({70, y})}, false});
        benchmark::DoNotOptimize(
            GEOSIntersection(Geos::lines(rows).release(), Geos::area_of(region).release()));
    }
}

void coverage_ours(benchmark::State& state) {
    const Region region = gear(static_cast<int>(state.range(0)));
    const auto lines = hatch(region, {mm(spacing), degrees(35), true, true}).lines;
    for (auto _ : state)
        benchmark::DoNotOptimize(coverage(region, lines, mm(tip), degrees(35)));
}

void coverage_geos(benchmark::State& state) {
    Geos geos;
    const Region region = gear(static_cast<int>(state.range(0)));
    const auto lines = hatch(region, {mm(spacing), degrees(35), true, true}).lines;
    for (auto _ : state) {
        const auto ink = Geos::Geometry(GEOSBuffer(Geos::lines(lines).get(), tip / 2, 8));
        benchmark::DoNotOptimize(
            Geos::area(Geos::Geometry(GEOSIntersection(ink.get(), Geos::area_of(region).get())).get()));
    }
}

/// A thousand rows to a gear, so that the region grows with the segments.
Region gears(int count) {
    Polylines outlines;
    const Region one = gear(100);
    for (int i = 0; i < count; ++i)
        for (const Ring& ring : one.rings) {
            Polyline& moved = outlines.emplace_back(Polyline{ring, true});
            for (Point& p : moved.points)
                p = p * 0.1 + Point{i % 32 * 13.0, i / 32 * 13.0};
        }
    return region_of(outlines, FillRule::evenodd);
}

/// All sizes in each round, and the median of the rounds' ratios: a machine that is faster for a while is so
/// for all sizes.
void hatch_flat(benchmark::State& state) {
    constexpr int sizes = 4, rounds = 9;
    const int counts[sizes] = {1, 10, 100, 1000};
    std::vector<Region> regions;
    for (const int n : counts)
        regions.push_back(gears(n));
    double each[rounds][sizes];
    for (auto _ : state)
        for (auto& round : each)
            for (int k = 0; k < sizes; ++k) {
                std::size_t segments = 0;
                const Watch watch;
                for (int n = 0; n < 1000 / counts[k]; ++n)
                    segments +=
                        hatch(regions[static_cast<std::size_t>(k)], {mm(0.0165), degrees(35), false, true})
                            .lines.size();
                round[k] = watch.seconds() / static_cast<double>(segments);
            }
    double ratio[sizes];
    for (int k = 0; k < sizes; ++k) {
        std::vector<double> ratios, times;
        for (const auto& round : each)
            ratios.push_back(round[k] / round[0]), times.push_back(round[k]);
        ratio[k] = median(ratios);
        state.counters["ns_at_" + std::to_string(counts[k]) + "_gears"] = 1e9 * median(times);
    }
    const auto [least, greatest] = std::minmax_element(ratio, ratio + sizes);
    goal("fill: greatest over least time per segment, 1e3 to 1e6", *greatest / *least, 1.5);
}

} // namespace

BENCHMARK(hatch_flat)->Name("hatch by segments")->Iterations(1)->Unit(benchmark::kMillisecond);
BENCHMARK(hatch_ours)->Name("hatch/ours")->Args({400, 0})->Args({4000, 0})->Unit(benchmark::kMillisecond);
BENCHMARK(hatch_geos)
    ->Name("hatch/reference")
    ->Args({400, 0})
    ->Args({4000, 0})
    ->Unit(benchmark::kMillisecond);
BENCHMARK(hatch_ours)->Name("hatch joined")->Args({400, 1})->Args({4000, 1})->Unit(benchmark::kMillisecond);
BENCHMARK(coverage_ours)->Name("coverage/ours")->Arg(400)->Unit(benchmark::kMillisecond);
BENCHMARK(coverage_geos)->Name("coverage/reference")->Arg(400)->Unit(benchmark::kMillisecond);
