// Runs all benchmarks and prints, for each pair NAME/ours and NAME/reference, how the two compare.
#include <QApplication>
#include <benchmark/benchmark.h>
#include <cstdio>
#include <map>

#include "bench/goals.h"
#include "bench/project_bench.h"
#include "bench/window_bench.h"

#include "core/base/aside.h"
#include "core/base/heap.h"

namespace {

class Pairs : public benchmark::ConsoleReporter {
  public:
    void ReportRuns(const std::vector<Run>& runs) override {
        ConsoleReporter::ReportRuns(runs);
        for (const Run& run : runs)
            times_[run.benchmark_name()] = run.GetAdjustedRealTime();
    }
    void Finalize() override {
        std::printf("\nours against the reference (below 1: ours is faster)\n");
        for (const auto& [name, time] : times_) {
            const auto slash = name.find("/ours");
            if (slash == std::string::npos) continue;
            const std::string pair = name.substr(0, slash);
            const auto other = times_.find(pair + "/reference" + name.substr(slash + 5));
            if (other != times_.end())
                std::printf("  %-28s %8.3f\n", (pair + name.substr(slash + 5)).c_str(), time / other->second);
        }
    }

  private:
    std::map<std::string, double> times_;
};

} // namespace

int main(int argc, char** argv) {
    dotlane::keep_freed_memory(); // as the program's main does
    const dotlane::AwaitsAside last;
    qputenv("QT_QPA_PLATFORM", "offscreen");
    qputenv("DOTLANE_DATA", DOTLANE_SOURCE "/data");
    if (argc == 3 && std::string(argv[1]) == "--first-paint") return dotlane::bench::first_paint(argc, argv);
    if (const int done = dotlane::bench::open_large(argc, argv); done >= 0) return done;
    QApplication application(argc, argv);
    benchmark::Initialize(&argc, argv);
    Pairs reporter;
    benchmark::RunSpecifiedBenchmarks(&reporter);
    dotlane::bench::print_goals();
}
