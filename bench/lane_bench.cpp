// What an edit of a lane costs until its new plan is there, on the demo: each lane, each thing that a lane
// has.
#include <benchmark/benchmark.h>

#include "bench/goals.h"
#include "bench/work.h"
#include "core/derive/workshop.h"
#include "core/project/format.h"

using namespace dotlane;
using namespace dotlane::bench;

namespace {

using Edit = std::function<void(Lane&, const Catalog&)>;

/// Another tool for the same action, if there is one.
void another_tool(Lane& lane, const Catalog& catalog) {
    for (const Tool& tool : catalog.tools)
        if (std::count(tool.actions.begin(), tool.actions.end(), lane.action) > 0 && tool.id != lane.tool) {
            lane.tool = tool.id;
            return;
        }
}

const std::vector<std::pair<const char*, Edit>>& edits() {
    static const std::vector<std::pair<const char*, Edit>> all = {
        {"colour", [](Lane& lane, const Catalog&) { lane.colour.r ^= 0x40; }},
        {"name", [](Lane& lane, const Catalog&) { lane.name += "x"; }},
        {"passes", [](Lane& lane, const Catalog&) { lane.repeats = lane.repeats == 1 ? 2 : 1; }},
        {"tool", another_tool},
        {"overcut", [](Lane& lane, const Catalog&) { lane.run.overcut = mm(0.7); }},
        {"lead-in", [](Lane& lane, const Catalog&) { lane.run.lead_in = mm(1.5); }},
        {"dwell", [](Lane& lane, const Catalog&) { lane.run.dwell = seconds(0.2); }},
        {"start", [](Lane& lane, const Catalog&) { lane.run.start = LineStart::top; }},
        {"small pieces first", [](Lane& lane, const Catalog&) { lane.run.small_first ^= true; }},
    };
    return all;
}

void lane_edits(benchmark::State& state) {
    const auto demo = load_project(disk(), DOTLANE_SOURCE "/data/demo/saltmarsh.dotlane");
    if (!demo) return state.SkipWithError("no demo");
    for (auto _ : state) {
        Workshop workshop(*load_catalog(disk(), DOTLANE_SOURCE "/data/catalog"));
        // As in the window: better routes have been found before the hand comes back.
        (void)workshop.derive(std::make_shared<Project>(*demo), no_progress(), {}, {{}, Effort::best});
        double slowest = 0;
        for (const auto& [name, edit] : edits()) {
            double most = 0;
            for (std::size_t i = 0; i < demo->lanes.size(); ++i) {
                auto edited = std::make_shared<Project>(*demo);
                edit(edited->lanes[i], workshop.catalog());
                const Watch watch;
                (void)workshop.derive(edited);
                most = std::max(most, watch.seconds());
                (void)workshop.derive(std::make_shared<Project>(*demo));
            }
            state.counters[std::string(name) + "_ms"] = 1000 * most;
            slowest = std::max(slowest, most);
        }
        goal("demo: new plan after an edit of a lane, slowest, s", slowest, 0.1);
    }
}

} // namespace

BENCHMARK(lane_edits)->Name("lane edits")->Iterations(1)->Unit(benchmark::kMillisecond);
