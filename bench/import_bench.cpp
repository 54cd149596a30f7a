// Importing the files of tests/reference/svg_cases.txt beside rsvg-convert rendering them: whole processes
// both, `dot-lane-cli import` to a project file, rsvg-convert to a picture of 400 pixels across.
#include <benchmark/benchmark.h>
#include <filesystem>
#include <fstream>

#include "bench/goals.h"
#include "bench/process.h"

using namespace dotlane::bench;

namespace {

std::vector<std::string> drawings() {
    std::vector<std::string> out;
    std::ifstream list(DOTLANE_SOURCE "/tests/reference/svg_cases.txt");
    for (std::string line; std::getline(list, line);) {
        if (line.empty() || line[0] == '#' || line.rfind("bad", 0) == 0) continue;
        const auto a = line.find('\t'), b = line.find('\t', a + 1);
        out.push_back(line.substr(a + 1, b - a - 1));
    }
    return out;
}

void import_beside_rsvg(benchmark::State& state) {
    const std::string folder = std::filesystem::temp_directory_path() / "dotlane-bench-import";
    std::vector<double> ratios;
    for (auto _ : state)
        for (const std::string& path : drawings()) {
            std::vector<double> ours, theirs;
            for (int round = 0; round < 5; ++round) {
                std::filesystem::remove_all(folder);
                std::filesystem::create_directories(folder);
                ours.push_back(
                    seconds_of({DOTLANE_CLI, "import", path, folder + "/x.dotlane", "--per-inch", "96"}));
                theirs.push_back(
                    seconds_of({"rsvg-convert", "-w", "400", "-a", path, "-o", folder + "/x.png"}));
            }
            const double a = median(ours), b = median(theirs);
            if (a > 0 && b > 0) ratios.push_back(a / b);
        }
    std::filesystem::remove_all(folder);
    state.counters["files"] = static_cast<double>(ratios.size());
    state.counters["median"] = median(ratios);
    state.counters["worst"] = *std::max_element(ratios.begin(), ratios.end());
    goal("import: time of rsvg-convert's, median of the files", median(ratios), 1);
}

} // namespace

BENCHMARK(import_beside_rsvg)
    ->Name("import beside rsvg-convert")
    ->Iterations(1)
    ->Unit(benchmark::kMillisecond);
