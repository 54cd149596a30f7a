// A large job: 200 parts on 60 sheets. What an edit of each kind takes until it is shown, what opening takes,
// and the memory of it all.
#include <benchmark/benchmark.h>

#include "bench/goals.h"
#include "bench/process.h"
#include "bench/project_bench.h"
#include "bench/work.h"
#include "core/commands/making.h"
#include "core/commands/placing.h"
#include "core/derive/workshop.h"
#include "core/project/format.h"

using namespace dotlane;
using namespace dotlane::bench;

namespace {

constexpr int parts = 200, sheets = 60, a_sheet = 10;

/// A drawing of wobbly rings, as a file would hold it.
std::shared_ptr<const Drawing> rings(std::mt19937& random) {
    auto out = std::make_shared<Drawing>();
    std::uniform_real_distribution<double> wobble(0.8, 1.2);
    for (std::uint32_t n = 1; n <= 6; ++n) {
        Contour ring{{}, {}, true};
        for (int i = 0; i < 60; ++i) {
            const double a = 2 * 3.14159265358979 * i / 60, r = 2.5 * n * wobble(random) / 1.2;
            const Point at{15 + r * std::cos(a), 15 + r * std::sin(a)};
            if (i == 0)
                ring.start = at;
            else
                ring.line_to(at);
        }
        DrawnLine line;
        line.id = LineId{n};
        line.shape = Shape{{ring}};
        out->lines.push_back(std::move(line));
    }
    return out;
}

/// Lettering with a rim, labels with words and a fill, badges, patterns, drawings: as a stall would have.
Project large_project(Workshop& workshop, unsigned seed) {
    std::mt19937 random(seed);
    const auto real = [&](double low, double high) {
        return std::uniform_real_distribution<double>(low, high)(random);
    };
    const char* words[] = {"Heron", "Quay", "Lamp", "Tide", "Reed", "Marsh", "Boat", "Dusk"};
    const char* fonts[] = {"Lobster Two", "Cabin", "EB Garamond", "Dancing Script"};
    Project project = workshop.new_project("Large");
    const Catalog& catalog = workshop.catalog();
    for (int n = 0; n < parts; ++n) {
        const std::string name = "Part " + std::to_string(n + 1);
        Lettering lettering;
        lettering.text = words[random() % 8], lettering.font = fonts[random() % 4];
        lettering.size = mm(real(8, 14));
        const auto add = [&](SourceSpec spec) {
            return *make_part(project, catalog, workshop.fonts(), std::move(spec), name);
        };
        switch (n % 5) {
        case 0: {
            const PartId part = add(lettering);
            (void)*append_step(project, catalog, part, OutlineStep{}, {find(project, part)->sets[0].id});
            break;
        }
        case 1: {
            Label label;
            label.width = mm(real(40, 70)), label.height = mm(real(25, 40)), label.border = mm(2);
            const PartId part = add(label);
            WordsStep words_on;
            words_on.lettering = lettering;
            const StepId step = *append_step(project, catalog, part, words_on, {});
            (void)append_step(project, catalog, part, FillStep{}, {find(*find(project, part), step)->result});
            break;
        }
        case 2: {
            Badge badge;
            add(badge);
            break;
        }
        case 3: {
            Source source;
            source.drawing = rings(random);
            const PartId part = add_part(project, name, source);
            std::vector<LineId> lines;
            for (const DrawnLine& line : find(project, part)->source.drawing->lines)
                lines.push_back(line.id);
            (void)assign(project, part, lines, project.lanes.front().id, "rings");
            break;
        }
        default: {
            RepeatPattern pattern;
            pattern.width = mm(60), pattern.height = mm(40);
            add(pattern);
        }
        }
    }
    int placed = 0;
    for (int s = 0; s < sheets; ++s) {
        const Stock& stock = catalog.stocks.front();
        const auto sheet = add_sheet(project, "Sheet " + std::to_string(s + 1), stock.id,
                                     catalog.machine(project.machine)->mats.front());
        std::vector<Placement> places;
        for (int k = 0; k < a_sheet; ++k) {
            Placement p;
            p.part = project.parts[static_cast<std::size_t>(placed++ % parts)].id;
            p.left = mm(20 + k % 3 * 95), p.top = mm(25 + k / 3 * 70);
            places.push_back(p);
        }
        (void)place_all(project, sheet, places);
    }
    return project;
}

using Edit = std::function<void(Project&, int round)>;

const std::vector<std::pair<const char*, Edit>>& edits() {
    static const std::vector<std::pair<const char*, Edit>> all = {
        {"a number of a source",
         [](Project& p, int round) { std::get<Label>(p.parts[1].source.spec).width = mm(50 + round); }},
        {"a number of a step",
         [](Project& p, int round) {
             std::get<OutlineStep>(p.parts[0].steps[0].what).distance = mm(2 + 0.1 * round);
         }},
        {"a name", [](Project& p, int round) { p.parts[7].name = "Named " + std::to_string(round); }},
        {"how many are wanted", [](Project& p, int round) { p.parts[9].quantity = 1 + round; }},
        {"where a part lies",
         [](Project& p, int round) { p.sheets[30].placements[2].left = mm(200 + round); }},
        {"a part is taken off",
         [](Project& p, int round) { p.sheets[static_cast<std::size_t>(10 + round)].placements.pop_back(); }},
        {"a lane's colour",
         [](Project& p, int round) {
             p.lanes[0].colour = Colour{static_cast<std::uint8_t>(round), 80, 90};
         }},
        {"a sheet's name",
         [](Project& p, int round) { p.sheets[3].name = "Front " + std::to_string(round); }},
        {"the order of passes",
         [](Project& p, int round) {
             p.pass_order.clear();
             for (const Lane& lane : p.lanes)
                 p.pass_order.push_back(lane.id);
             if (round % 2) std::reverse(p.pass_order.begin(), p.pass_order.end());
         }},
    };
    return all;
}

void large(benchmark::State& state) {
    for (auto _ : state) {
        Workshop workshop(*load_catalog(disk(), DOTLANE_SOURCE "/data/catalog"));
        Project project = large_project(workshop, 11);
        (void)workshop.derive(std::make_shared<Project>(project));
        double slowest_shown = 0, slowest_all = 0;
        for (const auto& [name, edit] : edits()) {
            std::vector<double> shown, whole;
            for (int round = 1; round <= 5; ++round) {
                const Watch watch;
                auto next = std::make_shared<Project>(project); // as the window does
                edit(*next, round);
                double seconds = 0;
                (void)workshop.derive(next, no_progress(), [&](const auto&) { seconds = watch.seconds(); });
                shown.push_back(seconds), whole.push_back(watch.seconds());
                project = *next;
            }
            state.counters[std::string(name) + " shown_ms"] = 1000 * median(shown);
            state.counters[std::string(name) + " planned_ms"] = 1000 * median(whole);
            slowest_shown = std::max(slowest_shown, median(shown));
            slowest_all = std::max(slowest_all, median(whole));
        }
        goal("large project: an edit of any kind shown, slowest, s", slowest_shown, 0.1);
        goal("large project: the same with its passes routed and planned, slowest, s", slowest_all, 2);
        const auto text = write_project(project);
        if (const auto read = read_project(text, "large"); !read)
            return state.SkipWithError(read.error().message.c_str());
        double opened = 0;
        std::vector<double> all;
        for (int round = 0; round < 3; ++round) {
            const Watch watch;
            Workshop fresh(*load_catalog(disk(), DOTLANE_SOURCE "/data/catalog"));
            auto read = std::make_shared<Project>(*read_project(text, "large"));
            (void)fresh.derive(read, no_progress(), [&](const auto&) { opened = watch.seconds(); });
            all.push_back(opened);
            state.counters["opened and planned_s"] = watch.seconds();
        }
        goal("large project: opened, s", median(all), 1.5);
        // Memory of a process that opens it and makes one edit.
        const std::string file = "/tmp/dotlane-bench-large.dotlane";
        (void)disk().write_atomically(file, text);
        goal("large project: memory, MB", megabytes_of({"/proc/self/exe", "--open-large", file}), 400);
        (void)disk().remove(file);
    }
}

} // namespace

namespace dotlane::bench {

int open_large(int argc, char** argv) {
    if (argc < 3 || std::string_view(argv[1]) != "--open-large") return -1;
    Workshop workshop(*load_catalog(disk(), DOTLANE_SOURCE "/data/catalog"));
    Project project = *load_project(disk(), argv[2]);
    const auto first = workshop.derive(std::make_shared<Project>(project));
    edits().front().second(project, 3);
    const auto second = workshop.derive(std::make_shared<Project>(project)); // both are there meanwhile
    return first && second ? 0 : 1;
}

} // namespace dotlane::bench

BENCHMARK(large)->Name("large project")->Iterations(1)->Unit(benchmark::kMillisecond);
