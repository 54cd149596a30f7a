// A large job: 200 parts on 60 sheets. What an edit of each kind takes until it is shown, what opening takes,
// and the memory of it all.
#include <benchmark/benchmark.h>
#include <filesystem>

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
            return apply(MakePart{std::move(spec), name}, project, catalog, workshop.fonts())->part;
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
        for (int k = 0; k < a_sheet; ++k) {
            Placement p;
            p.part = project.parts[static_cast<std::size_t>(placed++ % parts)].id;
            p.left = mm(20 + k % 3 * 95), p.top = mm(25 + k / 3 * 70);
            (void)place(project, sheet, p);
        }
    }
    return project;
}

/// `at`: of the five parts that follow one another of each kind, and of the sheets, which.
using Edit = std::function<void(Project&, std::size_t at, int round)>;

const std::vector<std::pair<const char*, Edit>>& edits() {
    static const std::vector<std::pair<const char*, Edit>> all = {
        {"a number of a source",
         [](Project& p, std::size_t at, int round) {
             std::get<Label>(p.parts[5 * at + 1].source.spec).width = mm(50 + round);
         }},
        {"a number of a step",
         [](Project& p, std::size_t at, int round) {
             std::get<OutlineStep>(p.parts[5 * at].steps[0].what).distance = mm(2 + 0.1 * round);
         }},
        {"a name", [](Project& p, std::size_t at,
                      int round) { p.parts[5 * at + 2].name = "Named " + std::to_string(round); }},
        {"how many are wanted",
         [](Project& p, std::size_t at, int round) { p.parts[5 * at + 4].quantity = 1 + round; }},
        {"where a part lies", [](Project& p, std::size_t at,
                                 int round) { p.sheets[at + 5].placements[2].left = mm(200 + round); }},
        {"a part is taken off",
         [](Project& p, std::size_t at, int round) {
             p.sheets[at + static_cast<std::size_t>(round)].placements.pop_back();
         }},
        {"a lane's colour",
         [](Project& p, std::size_t at, int round) {
             p.lanes[at % p.lanes.size()].colour = Colour{static_cast<std::uint8_t>(round), 80, 90};
         }},
        {"a sheet's name",
         [](Project& p, std::size_t at, int round) { p.sheets[at].name = "Front " + std::to_string(round); }},
        {"a lane's tool",
         [](Project& p, std::size_t, int round) {
             for (Lane& lane : p.lanes)
                 if (lane.action == Action::draw) lane.tool = round % 2 ? "pen-0.8" : "pen-0.4";
         }},
        {"a sheet's stock",
         [](Project& p, std::size_t at, int round) {
             p.sheets[at].stock = round % 2 ? "white-card-a4" : "cream-card-12x12";
         }},
        {"the machine",
         [](Project& p, std::size_t, int round) { p.machine = round % 2 ? "one-slot" : "two-slot"; }},
        {"the order of passes",
         [](Project& p, std::size_t, int round) {
             p.pass_order.clear();
             for (const Lane& lane : p.lanes)
                 p.pass_order.push_back(lane.id);
             if (round % 2) std::reverse(p.pass_order.begin(), p.pass_order.end());
         }},
    };
    return all;
}

struct Worst {
    double shown = 0, planned = 0, opened = 0, megabytes = 0;
};

void edit_all(Workshop& workshop, Project& project, std::size_t at, benchmark::State& state, Worst& worst) {
    for (const auto& [name, edit] : edits())
        for (int round = 1; round <= 5; ++round) {
            const Watch watch;
            auto next = std::make_shared<Project>(project); // as the window does
            edit(*next, at, round);
            double shown = 0;
            (void)workshop.derive(next, no_progress(), [&](const auto&) { shown = watch.seconds(); });
            const double planned = watch.seconds();
            auto& counter = state.counters[std::string(name) + " planned_ms"];
            counter = std::max<double>(counter, 1000 * planned);
            auto& seen = state.counters[std::string(name) + " shown_ms"];
            seen = std::max<double>(seen, 1000 * shown);
            worst.shown = std::max(worst.shown, shown), worst.planned = std::max(worst.planned, planned);
            project = *next;
        }
}

void open_again(const std::string& text, Worst& worst) {
    for (int round = 0; round < 3; ++round) {
        const Watch watch;
        Workshop fresh(*load_catalog(disk(), DOTLANE_SOURCE "/data/catalog"));
        auto read = std::make_shared<Project>(*read_project(text, "large"));
        Progress progress;
        (void)fresh.derive(read, progress, [&](const auto&) {
            worst.opened = std::max(worst.opened, watch.seconds());
            progress.cancel();
        });
    }
    // Memory of a process that opens it and makes one edit.
    const std::string file = std::filesystem::temp_directory_path() / "dotlane-bench-large.dotlane";
    (void)disk().write_atomically(file, text);
    worst.megabytes = std::max(worst.megabytes, megabytes_of({"/proc/self/exe", "--open-large", file}));
    disk().remove(file);
}

/// Other words, sizes and drawings, other parts and sheets edited: the worst counts.
void large(benchmark::State& state) {
    for (auto _ : state) {
        Worst worst;
        for (const unsigned seed : {11U, 47U}) {
            Workshop workshop(*load_catalog(disk(), DOTLANE_SOURCE "/data/catalog"));
            Project project = large_project(workshop, seed);
            (void)workshop.derive(std::make_shared<Project>(project));
            edit_all(workshop, project, seed % 29, state, worst);
            const std::string text = write_project(project);
            if (const auto read = read_project(text, "large"); !read)
                return state.SkipWithError(read.error().message.english().c_str());
            open_again(text, worst);
        }
        goal("large project: an edit of any kind shown, slowest, s", worst.shown, 0.1);
        goal("large project: opened, slowest, s", worst.opened, 1.5);
        goal("large project: memory, MB", worst.megabytes, 400);
        state.counters["planned_slowest_s"] = worst.planned;
    }
}

} // namespace

namespace dotlane::bench {

int open_large(int argc, char** argv) {
    if (argc < 3 || std::string_view(argv[1]) != "--open-large") return -1;
    Workshop workshop(*load_catalog(disk(), DOTLANE_SOURCE "/data/catalog"));
    Project project = *load_project(disk(), argv[2]);
    const auto first = workshop.derive(std::make_shared<Project>(project));
    edits().front().second(project, 0, 3);
    const auto second = workshop.derive(std::make_shared<Project>(project)); // both are there meanwhile
    return first && second ? 0 : 1;
}

} // namespace dotlane::bench

BENCHMARK(large)->Name("large project")->Iterations(1)->Unit(benchmark::kMillisecond);
