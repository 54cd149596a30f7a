// Reading a large drawing beside the XML parser alone, which is the least that any reader must do.
#include <benchmark/benchmark.h>
#include <pugixml.hpp>

#include "bench/work.h"
#include "core/derive/workshop.h"
#include "core/formats/svg/reader.h"
#include "core/opening/opening.h"
#include "core/project/edits.h"
#include "core/project/format.h"

using namespace dotlane;
using namespace dotlane::bench;

namespace {

void read_ours(benchmark::State& state) {
    for (auto _ : state)
        benchmark::DoNotOptimize(read_svg(large_drawing(), {}));
}

void parse_only(benchmark::State& state) {
    for (auto _ : state) {
        pugi::xml_document document;
        benchmark::DoNotOptimize(document.load_buffer(large_drawing().data(), large_drawing().size()));
    }
}

/// From the opened drawing to the plan: evaluate, lay out, check, plan.
void derive(benchmark::State& state) {
    const Catalog catalog = *load_catalog(disk(), DOTLANE_SOURCE "/data/catalog");
    FontShelf fonts;
    const auto opened = open_drawing(large_drawing(), "large.svg", fonts);
    Project project = Workshop(catalog).new_project("large");
    const PartId part =
        apply(TakeIn{*opened, gather_lanes(*opened->source.drawing, catalog)}, project, catalog)->part;
    (void)place(project, add_sheet(project, "s", "cream-card-12x12", "mat-12x12-standard"),
                {{}, part, mm(3), mm(3), {}, false});
    for (auto _ : state) {
        Workshop workshop(catalog);
        benchmark::DoNotOptimize(workshop.derive(std::make_shared<Project>(project)));
    }
}

void save(benchmark::State& state) {
    const Catalog catalog = *load_catalog(disk(), DOTLANE_SOURCE "/data/catalog");
    FontShelf fonts;
    const auto opened = open_drawing(large_drawing(), "large.svg", fonts);
    Project project = Workshop(catalog).new_project("large");
    (void)apply(TakeIn{*opened, gather_lanes(*opened->source.drawing, catalog)}, project, catalog);
    for (auto _ : state)
        benchmark::DoNotOptimize(read_project(write_project(project)));
}

} // namespace

BENCHMARK(read_ours)->Name("open/ours")->Unit(benchmark::kMillisecond);
BENCHMARK(parse_only)->Name("open/reference")->Unit(benchmark::kMillisecond);
BENCHMARK(derive)->Name("derive 200,000 segments")->Unit(benchmark::kMillisecond);
BENCHMARK(save)->Name("save and load 200,000 segments")->Unit(benchmark::kMillisecond);
