// A recipe of ten steps on 200 letters: what a change of one number costs, beside GEOS uniting and outlining
// the same letters, which is the least that any picture of them needs.
#include <benchmark/benchmark.h>
#include <geos_c.h>

#include "bench/goals.h"
#include "bench/process.h"
#include "bench/work.h"
#include "core/commands/making.h"
#include "core/derive/workshop.h"

using namespace dotlane;
using namespace dotlane::bench;

namespace {

std::string words() {
    std::string out;
    for (int i = 0; i < 40; ++i)
        out += i % 8 == 7 ? "marsh\n" : "light";
    return out; // 200 letters
}

struct Ten {
    Workshop workshop;
    Project project;
    PartId part;
    std::vector<StepId> steps;

    Ten()
        : workshop(*load_catalog(disk(), DOTLANE_SOURCE "/data/catalog"))
        , project(workshop.new_project("bench")) {
        Lettering spec;
        spec.text = words(), spec.size = mm(12);
        part = apply(MakePart{spec}, project, workshop.catalog(), workshop.fonts())->part;
        const LineSetId letters = find(project, part)->sets.front().id;
        const auto add = [&](StepWhat what, std::vector<LineSetId> of) {
            steps.push_back(*append_step(project, workshop.catalog(), part, std::move(what), std::move(of)));
            return find(*find(project, part), steps.back())->result;
        };
        add(TurnStep{degrees(3)}, {});
        add(JoinStep{}, {letters});
        const LineSetId rim = add(OutlineStep{}, {letters});
        add(CleanStep{}, {rim});
        add(CornersStep{}, {rim});
        OutlineStep inner;
        inner.distance = mm(1);
        const LineSetId second = add(inner, {letters});
        add(DashStep{}, {second});
        add(MirrorStep{}, {});
        add(ResizeStep{}, {});
        add(FillHolesStep{mm(0.5)}, {letters});
    }
    void change(std::size_t which, int round) {
        Step step = *find(*find(project, part), steps[which]);
        if (auto* outline = std::get_if<OutlineStep>(&step.what))
            outline->distance = mm(2 + 0.01 * (round % 50));
        if (auto* turn = std::get_if<TurnStep>(&step.what)) turn->by = degrees(1 + 0.1 * (round % 50));
        if (auto* dash = std::get_if<DashStep>(&step.what)) dash->dash = mm(2 + 0.01 * (round % 50));
        if (auto* size = std::get_if<ResizeStep>(&step.what)) size->size = mm(200 + round % 50);
        if (auto* join = std::get_if<JoinStep>(&step.what)) join->fill_overlaps = round / 10 % 2 == 0;
        if (auto* clean = std::get_if<CleanStep>(&step.what))
            clean->least_size = mm(0.5 + 0.01 * (round % 50));
        if (auto* corners = std::get_if<CornersStep>(&step.what))
            corners->radius = mm(1 + 0.01 * (round % 50));
        if (auto* mirror = std::get_if<MirrorStep>(&step.what))
            mirror->way = static_cast<MirrorStep::Way>(round / 10 % 2);
        if (auto* holes = std::get_if<FillHolesStep>(&step.what))
            holes->under = mm(0.5 + 0.01 * (round % 50));
        (void)change_step(project, part, step);
    }
};

/// Seconds until the new picture can be drawn; checks and the plan come after it.
double seconds_to_picture(Ten& ten, std::size_t which, int round) {
    ten.change(which, round);
    const Watch watch;
    double seconds = -1;
    Progress progress;
    ten.workshop.derive(std::make_shared<Project>(ten.project), progress, [&](const auto&) {
        seconds = watch.seconds();
        progress.cancel();
    });
    return seconds;
}

/// One number of every step in turn.
void recipe_any(benchmark::State& state) {
    Ten ten;
    std::vector<double> all;
    std::vector<std::vector<double>> each(ten.steps.size());
    int round = 0;
    for (auto _ : state)
        for (int n = 0; n < 7; ++n)
            for (std::size_t k = 0; k < ten.steps.size(); ++k) {
                each[k].push_back(seconds_to_picture(ten, k, ++round));
                all.push_back(each[k].back());
            }
    double slowest = 0;
    for (std::size_t k = 0; k < ten.steps.size(); ++k) {
        state.counters["step_" + std::to_string(k + 1) + "_ms"] = 1000 * median(each[k]);
        slowest = std::max(slowest, median(each[k]));
    }
    goal("recipe: new picture after a change of any number of ten steps, median, s", median(all), 0.01);
    goal("recipe: the same for the slowest of the ten, s", slowest, 0.05);
}

void recipe_outline(benchmark::State& state) {
    Ten ten;
    int round = 0;
    for (auto _ : state)
        state.SetIterationTime(seconds_to_picture(ten, 2, ++round));
}

void recipe_geos(benchmark::State& state) {
    initGEOS(nullptr, nullptr);
    Workshop workshop(*load_catalog(disk(), DOTLANE_SOURCE "/data/catalog"));
    Project project = workshop.new_project("bench");
    Lettering spec;
    spec.text = words(), spec.size = mm(12);
    const PartId part = apply(MakePart{spec}, project, workshop.catalog(), workshop.fonts())->part;
    const auto derived = workshop.derive(std::make_shared<Project>(project));
    std::vector<GEOSGeometry*> letters;
    for (const FlatLine& line : derived->part(part)->lines)
        for (const Polyline& c : line.contours) {
            if (signed_area_mm2(c.points) <= 0 && line.contours.size() > 1) continue; // counters
            GEOSCoordSequence* s = GEOSCoordSeq_create(static_cast<unsigned>(c.points.size() + 1), 2);
            for (unsigned i = 0; i <= c.points.size(); ++i)
                GEOSCoordSeq_setXY(s, i, c.points[i % c.points.size()].x, c.points[i % c.points.size()].y);
            letters.push_back(GEOSGeom_createPolygon(GEOSGeom_createLinearRing(s), nullptr, 0));
        }
    GEOSGeometry* all =
        GEOSGeom_createCollection(GEOS_MULTIPOLYGON, letters.data(), static_cast<unsigned>(letters.size()));
    for (auto _ : state) {
        GEOSGeometry* joined = GEOSUnaryUnion(all);
        GEOSGeometry* rim = GEOSBuffer(joined, 3, 16);
        GEOSGeom_destroy(joined);
        GEOSGeom_destroy(rim);
    }
    GEOSGeom_destroy(all);
    finishGEOS();
}

} // namespace

BENCHMARK(recipe_any)->Name("recipe, any number")->Iterations(1)->Unit(benchmark::kMillisecond);
BENCHMARK(recipe_outline)->Name("recipe_outline/ours")->UseManualTime()->Unit(benchmark::kMillisecond);
BENCHMARK(recipe_geos)->Name("recipe_outline/reference")->Unit(benchmark::kMillisecond);
