// Hatching and coverage beside GEOS: parallel lines cut by a polygon; the area of buffered strokes.
#include <algorithm>
#include <benchmark/benchmark.h>
#include <map>

#include "bench/goals.h"
#include "bench/process.h"
#include "bench/work.h"
#include "core/recipe/coverage.h"
#include "core/recipe/fill.h"
#include "core/recipe/hatch.h"
#include "core/recipe/strewn.h"
#include "tests/reference/geos.h"

using namespace dotlane;
using namespace dotlane::bench;
using dotlane::test::Geos;

namespace {

constexpr double spacing = 0.4, tip = 0.5;

void hatch_ours(benchmark::State& state) {
    const Region region = gear(static_cast<int>(state.range(0)));
    for (auto _ : state)
        benchmark::DoNotOptimize(
            hatch(region, {mm(spacing), degrees(35), static_cast<FillEnds>(state.range(1)), true}));
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
    const auto lines = hatch(region, {mm(spacing), degrees(35), FillEnds::joined, true}).lines;
    for (auto _ : state)
        benchmark::DoNotOptimize(coverage(region, lines, mm(tip), degrees(35)));
}

void coverage_geos(benchmark::State& state) {
    Geos geos;
    const Region region = gear(static_cast<int>(state.range(0)));
    const auto lines = hatch(region, {mm(spacing), degrees(35), FillEnds::joined, true}).lines;
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
                    segments += hatch(regions[static_cast<std::size_t>(k)],
                                      {mm(0.0165), degrees(35), FillEnds::apart, true})
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

/// Styles that draw lines of a pattern, which GEOS can cut as well.
constexpr const char* cut_styles[] = {"parallel", "cross",     "grid",     "ruled",  "waves",
                                      "bricks",   "triangles", "hexagons", "scales", "sunburst"};

FillLines fill_of(const FillKind& kind, const Region& region, FillEnds ends, double pitch) {
    return filled(kind.fresh,
                  {region, mm(pitch), degrees(20), ends, mm(0.4), FillPhase::centre, bounds(region)},
                  no_progress());
}

/// Each style on a gear, beside GEOS cutting the same lines, which it is given whole. Small and large gears,
/// nine rounds: of three, which take a millisecond or two each, one late thread was the median now and then.
void styles_by_geos(benchmark::State& state) {
    Geos geos;
    std::map<std::string, double> least;
    for (auto _ : state)
        for (const int teeth : {60, 700})
            for (const FillKind& kind : fill_kinds()) {
                if (std::find(std::begin(cut_styles), std::end(cut_styles), std::string(kind.key)) ==
                    std::end(cut_styles))
                    continue;
                const Region region = gear(teeth);
                const Box box = bounds(region).grown(1);
                const Region plate = region_of(
                    {{{{box.x0, box.y0}, {box.x1, box.y0}, {box.x1, box.y1}, {box.x0, box.y1}}, true}},
                    FillRule::nonzero);
                const double pitch = kind.open_mm > 0 ? 1.5 : 0.5;
                const auto whole = Geos::lines(fill_of(kind, plate, FillEnds::apart, pitch).lines);
                const auto area = Geos::area_of(region);
                std::vector<double> ratios;
                for (int round = 0; round < 9; ++round) {
                    const Watch ours;
                    benchmark::DoNotOptimize(fill_of(kind, region, FillEnds::apart, pitch));
                    const double mine = ours.seconds();
                    const Watch theirs;
                    benchmark::DoNotOptimize(Geos::Geometry(GEOSIntersection(whole.get(), area.get())).get());
                    ratios.push_back(theirs.seconds() / mine);
                }
                const auto [it, fresh] = least.try_emplace(kind.key, median(ratios));
                it->second = std::min(it->second, median(ratios));
            }
    for (const auto& [key, ratio] : least) {
        state.counters[key] = ratio;
        goal("fill " + key + ": its time over that of GEOS cutting the same lines", 1 / ratio, 0.1);
    }
}

/// One stroke a piece beside the bare lines of the same fill: gears of many pieces, and a large one.
void one_stroke_time(benchmark::State& state) {
    std::vector<double> worst;
    for (auto _ : state)
        for (const auto& [region, pitch] :
             {std::pair{gears(30), 0.1}, std::pair{gear(60), 0.05}, std::pair{gear(700), 0.02}}) {
            std::vector<double> ratios;
            for (int round = 0; round < 9; ++round) {
                double seconds[2];
                int k = 0;
                for (const FillEnds ends : {FillEnds::apart, FillEnds::one_stroke}) {
                    const Watch watch;
                    benchmark::DoNotOptimize(hatch(region, {mm(pitch), degrees(35), ends, true}));
                    seconds[k++] = watch.seconds();
                }
                ratios.push_back(seconds[1] / seconds[0]);
            }
            worst.push_back(median(ratios));
        }
    state.counters["pieces"] = worst[0], state.counters["coarse"] = worst[1],
    state.counters["fine"] = worst[2];
    goal("fill: one stroke a piece over the bare lines", *std::max_element(worst.begin(), worst.end()), 3);
}

void stipple_time(benchmark::State& state) {
    const Region region = gear(200);
    std::size_t dots = 0;
    for (auto _ : state) {
        const Watch watch;
        dots = strewn(region, 20'000, 1, no_progress()).size();
        state.counters["seconds"] = watch.seconds();
    }
    state.counters["dots"] = static_cast<double>(dots);
}

} // namespace

BENCHMARK(styles_by_geos)->Name("styles by GEOS")->Iterations(1)->Unit(benchmark::kMillisecond);
BENCHMARK(one_stroke_time)->Name("one stroke a piece")->Iterations(1)->Unit(benchmark::kMillisecond);
BENCHMARK(stipple_time)->Name("stipple of 20,000")->Unit(benchmark::kMillisecond);
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
