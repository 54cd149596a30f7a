// Routes beside the plainest one, nearest neighbour by looking at all lines: its time, and how much travel is
// saved.
#include <benchmark/benchmark.h>

#include "bench/goals.h"
#include "bench/work.h"
#include "core/plan/route.h"

using namespace dotlane;
using namespace dotlane::bench;

namespace {

Polylines lines(int n) {
    Polylines out;
    for (const Point p : scattered(n))
        out.push_back({{p, {p.x + 2, p.y + 1}}, false});
    return out;
}

Polylines nearest_neighbour(Polylines todo) {
    Polylines out;
    Point at;
    while (!todo.empty()) {
        std::size_t best = 0;
        bool flip = false;
        double least = 1e300;
        for (std::size_t i = 0; i < todo.size(); ++i)
            for (const bool back : {false, true}) {
                const double d = distance2(at, back ? todo[i].points.back() : todo[i].points.front());
                if (d < least) least = d, best = i, flip = back;
            }
        Polyline next = std::move(todo[best]);
        todo[best] = std::move(todo.back());
        todo.pop_back();
        if (flip) std::reverse(next.points.begin(), next.points.end());
        at = next.points.back();
        out.push_back(std::move(next));
    }
    return out;
}

void route_ours(benchmark::State& state) {
    const Polylines work = lines(static_cast<int>(state.range(0)));
    RouteResult r;
    for (auto _ : state)
        r = route(work, {});
    state.counters["travel_m"] = in_mm(r.travel) / 1000;
}

void route_plain(benchmark::State& state) {
    const Polylines work = lines(static_cast<int>(state.range(0)));
    Polylines r;
    for (auto _ : state)
        r = nearest_neighbour(work);
    state.counters["travel_m"] = in_mm(travel_of(r, {})) / 1000;
}

/// Points alone, rest to rest, beside what an optimal tour of many random points has: 0.7124 sqrt(n A)
/// (Johnson and McGeoch 1996).
void route_points(benchmark::State& state) {
    const auto n = static_cast<int>(state.range(0));
    Polylines dots;
    for (const Point p : scattered(n))
        dots.push_back({{p}, false});
    RouteResult r;
    double seconds = 0;
    for (auto _ : state) {
        const Watch watch;
        r = route(dots, {dots.front().points.front(), false});
        seconds = watch.seconds();
    }
    const double expected = 0.7124 * std::sqrt(n * 300.0 * 300.0);
    state.counters["over_percent"] = 100 * (in_mm(r.travel) / expected - 1);
    if (n != 10000) return;
    goal("route: 10,000 random points over 0.7124 sqrt(n A), %", 100 * (in_mm(r.travel) / expected - 1), 7);
    goal("route: 10,000 random points, s", seconds, 5);
}

} // namespace

BENCHMARK(route_points)->Name("route points")->Arg(1000)->Arg(10000)->Unit(benchmark::kMillisecond);
BENCHMARK(route_ours)->Name("route/ours")->Arg(200)->Arg(2000)->Arg(20000)->Unit(benchmark::kMillisecond);
BENCHMARK(route_plain)
    ->Name("route/reference")
    ->Arg(200)
    ->Arg(2000)
    ->Arg(20000)
    ->Unit(benchmark::kMillisecond);
