// Routes beside the plainest one, nearest neighbour by looking at all lines: its time, and how much travel is
// saved; and how near they come to the best.
#include <benchmark/benchmark.h>

#include "bench/goals.h"
#include "bench/work.h"
#include "core/base/parallel.h"
#include "core/plan/route.h"
#include "core/plan/sequence.h"

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

/// Points in 36 heaps some 20 mm wide, as small things on a sheet lie; ten columns of hatching at 0.6 mm.
Polylines gathered(const std::string& kind, int n) {
    std::mt19937 random(29);
    std::normal_distribution<double> near(0, 5);
    std::uniform_int_distribution<int> sixth(0, 5);
    std::uniform_real_distribution<double> off(0, 3);
    Polylines out;
    for (int i = 0; i < n; ++i) {
        const double x = 25 + 50 * sixth(random), y = 25 + 50 * sixth(random);
        const double left = i % 10 * 30 + off(random), down = i / 10 * 0.6;
        if (kind == "clusters")
            out.push_back({{{x + near(random), y + near(random)}}, false});
        else
            out.push_back({{{left, down}, {left + 25, down + 2}}, false});
    }
    return out;
}

/// Over a square of 300 mm: points, lines of 0.01 mm and of 5 mm, closed ones.
Polylines spread(const std::string& kind, int n) {
    if (kind == "clusters" || kind == "hatching") return gathered(kind, n);
    std::mt19937 random(23);
    std::uniform_real_distribution<double> turn(0, 6.2832);
    Polylines out;
    for (const Point p : scattered(n)) {
        const double t = turn(random), reach = kind == "short lines" ? 0.01 : 5;
        if (kind == "points") {
            out.push_back({{p}, false});
        } else if (kind == "closed lines") {
            Polyline ring{{}, true};
            for (int k = 0; k < 12; ++k)
                ring.points.push_back(
                    {p.x + 1.5 * std::cos(t + k * 0.5236), p.y + 1.5 * std::sin(t + k * 0.5236)});
            out.push_back(std::move(ring));
        } else {
            out.push_back({{p, {p.x + reach * std::cos(t), p.y + reach * std::sin(t)}}, false});
        }
    }
    return out;
}

/// The shortest of ten long runs, each with the lines in another order.
double best_of_ten(const Polylines& lines, Point rest) {
    std::vector<double> travel(10);
    in_parallel(travel.size(), 1 << 20, [&](std::size_t i) {
        Polylines mixed = lines;
        std::shuffle(mixed.begin(), mixed.end(), std::mt19937(static_cast<unsigned>(i) + 1));
        travel[i] = in_mm(route(mixed, {rest, false, Effort::best}).travel);
    });
    return *std::min_element(travel.begin(), travel.end());
}

/// 10,000 points, and lines that are hardly longer, beside what the best tours of random points have:
/// 0.7168 sqrt(n A) (Johnson and McGeoch 1996). What has no such constant, and 1,000 of each, beside the best
/// of ten long runs.
void route_kinds(benchmark::State& state, const std::string& kind) {
    const auto n = static_cast<int>(state.range(0));
    const Polylines lines = spread(kind, n);
    const Point rest = lines.front().points.front();
    double seconds[2] = {}, travel[2] = {};
    for (auto _ : state)
        for (const Effort effort : {Effort::first, Effort::best}) {
            const Watch watch;
            travel[effort == Effort::best] = in_mm(route(lines, {rest, false, effort}).travel);
            seconds[effort == Effort::best] = watch.seconds();
        }
    const bool constant = n == 10000 && (kind == "points" || kind == "short lines");
    const double of =
        constant ? 0.7168 * std::sqrt(n * 300.0 * 300.0) : std::min(best_of_ten(lines, rest), travel[1]);
    const double first = 100 * (travel[0] / of - 1), best = 100 * (travel[1] / of - 1);
    state.counters["first_over_percent"] = first, state.counters["best_over_percent"] = best;
    state.counters["first_s"] = seconds[0], state.counters["best_s"] = seconds[1];
    const std::string what = "route: " + std::to_string(n) + " " + kind,
                      over = constant ? ", % over the constant" : ", % over the best of ten";
    goal(what + ", first, s", seconds[0], 0.5);
    goal(what + ", best, s", seconds[1], n == 1000 ? 2 : 10);
    goal(what + ", best" + over, best, n == 1000 ? 1 : 3);
    if (n == 10000) goal(what + ", first" + over, first, constant ? 5 : 3);
}

/// Which tools fit where, and what waits for what.
enum class Fit {
    mixed, ///< the blade in the last holder alone; of three and more each tool in three of four
    alike, ///< every tool in every holder
    alone, ///< the same, but most tools in one holder alone, and passes that wait for others
};

/// Sheets whose last pass cuts and whose others mark with any of so many tools, one of them hot.
Job random_job(std::mt19937& random, int sheets, int lanes, int tools, int slots, Fit fit) {
    const auto below = [&](int n) { return std::uniform_int_distribution<int>(0, n - 1)(random); };
    Job job;
    job.swap = 45;
    for (int t = 0; t < tools; ++t) {
        std::vector<bool> fits(static_cast<std::size_t>(slots), t != 1 || fit != Fit::mixed);
        for (std::size_t s = 0; fit == Fit::mixed && slots > 2 && t > 1 && s < fits.size(); ++s)
            fits[s] = below(4) > 0;
        if (fit == Fit::mixed) fits.back() = true;
        if (fit == Fit::alone && below(10) < 6) {
            std::fill(fits.begin(), fits.end(), false);
            fits[static_cast<std::size_t>(below(slots))] = true;
        }
        job.fits.push_back(std::move(fits));
    }
    for (int s = 0; s < sheets; ++s) {
        JobSheet sheet;
        for (int p = 0; p < lanes; ++p) {
            sheet.passes.push_back(p + 1 == lanes ? JobPass{1, p, (1U << p) - 1}
                                                  : JobPass{below(tools), p, 0});
            for (int before = 0; fit == Fit::alone && before < p; ++before)
                if (below(10) < 3) sheet.passes.back().after |= 1U << before;
        }
        sheet.hands = [passes = sheet.passes](std::uint32_t mask) {
            bool hot = false;
            for (std::size_t p = 0; p < passes.size(); ++p)
                hot |= (mask >> p & 1U) && passes[p].tool == 0;
            return hot ? 250.0 : 0.0;
        };
        job.sheets.push_back(std::move(sheet));
    }
    return job;
}

void order_of(benchmark::State& state, int sheets, int lanes, int slots, Fit fit = Fit::mixed) {
    std::mt19937 random(11);
    double first = 0, slowest = 0, over = 0;
    int proven = 0;
    for (auto _ : state)
        for (int round = 0; round < 6; ++round) {
            const Job job = random_job(random, sheets, lanes, 9 + round % 4, slots, fit);
            const Watch watch;
            if (sheets > 12) (void)least_hands(job, no_progress(), Effort::first);
            first = std::max(first, watch.seconds());
            const Watch again;
            const auto found = least_hands(job, no_progress());
            slowest = std::max(slowest, again.seconds());
            over = std::max(over, 100 * (found->hands / found->least - 1));
            proven += found->proven;
        }
    state.counters["slowest_s"] = slowest, state.counters["over_bound_percent"] = over;
    state.counters["proven_of_6"] = proven;
    const std::string what = "order: " + std::to_string(sheets) + " sheets of " + std::to_string(lanes) +
                             " lanes, " + std::to_string(slots) + " holders" +
                             (fit == Fit::alike   ? " alike, "
                              : fit == Fit::alone ? ", most tools in one, "
                                                  : ", ");
    if (sheets > 12) {
        goal(what + "first plan, slowest of six, s", first, 0.2);
        goal(what + "% over the bound", over, 3);
    } else {
        goal(what + "slowest of six, s", slowest, 2);
        goal(what + "not proven, of six", 6 - proven, 0);
    }
}

} // namespace

BENCHMARK_CAPTURE(order_of, 12 sheets 2 holders, 12, 4, 2)->Iterations(1)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(order_of, 12 sheets 3 holders, 12, 4, 3)->Iterations(1)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(order_of, 12 sheets 4 holders, 12, 4, 4)->Iterations(1)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(order_of, 12 sheets 4 alike, 12, 4, 4, Fit::alike)
    ->Iterations(1)
    ->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(order_of, 40 sheets 2 holders, 40, 8, 2)->Iterations(1)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(order_of, 40 sheets 2 holders alone, 40, 8, 2, Fit::alone)
    ->Iterations(1)
    ->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(order_of, 40 sheets 3 holders alone, 40, 8, 3, Fit::alone)
    ->Iterations(1)
    ->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(route_kinds, points, "points")
    ->Arg(1000)
    ->Arg(10000)
    ->Iterations(1)
    ->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(route_kinds, short, "short lines")
    ->Arg(1000)
    ->Arg(10000)
    ->Iterations(1)
    ->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(route_kinds, long, "long lines")
    ->Arg(1000)
    ->Arg(10000)
    ->Iterations(1)
    ->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(route_kinds, closed, "closed lines")
    ->Arg(1000)
    ->Arg(10000)
    ->Iterations(1)
    ->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(route_kinds, clusters, "clusters")
    ->Arg(1000)
    ->Arg(10000)
    ->Iterations(1)
    ->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(route_kinds, hatching, "hatching")
    ->Arg(1000)
    ->Arg(10000)
    ->Iterations(1)
    ->Unit(benchmark::kMillisecond);
BENCHMARK(route_ours)->Name("route/ours")->Arg(200)->Arg(2000)->Arg(20000)->Unit(benchmark::kMillisecond);
BENCHMARK(route_plain)
    ->Name("route/reference")
    ->Arg(200)
    ->Arg(2000)
    ->Arg(20000)
    ->Unit(benchmark::kMillisecond);
