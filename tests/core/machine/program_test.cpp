// What a program knows of its strokes, and its text form.
#include "core/machine/program_text.h"

#include "core/machine/totals.h"
#include "core/project/format.h"
#include "core/recipe/evaluate.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

std::shared_ptr<const Derived> demo() {
    static const auto derived = [] {
        Workshop workshop(catalog());
        return workshop.derive(std::make_shared<Project>(
            must(load_project(disk(), DOTLANE_SOURCE "/data/demo/saltmarsh.dotlane"))));
    }();
    return derived;
}

/// The stroke is that contour, perhaps run backwards or begun elsewhere.
bool same_run(const Polyline& stroke, const Polyline& made) {
    if (stroke.closed != made.closed || stroke.points.size() != made.points.size()) return false;
    const std::size_t n = made.points.size();
    const auto alike = [&](std::size_t from, bool back) {
        for (std::size_t i = 0; i < n; ++i)
            if (distance(stroke.points[i], made.points[back ? n - 1 - i : (from + i) % n]) > 1e-9)
                return false;
        return true;
    };
    if (!made.closed) return alike(0, false) || alike(0, true);
    for (std::size_t from = 0; from < n; ++from)
        if (alike(from, false)) return true;
    return false;
}

const PlacedPart* placed(const Derived& d, SheetId sheet, PlacementId id) {
    for (const PlacedPart& p : d.sheet(sheet)->parts)
        if (p.placement.id == id) return &p;
    return nullptr;
}

template<class Visit>
void each_stroke(const Program& program, Visit&& visit) {
    for (const Move& move : program.moves)
        if (const auto* pass = std::get_if<PassMove>(&move))
            for (const Stroke& stroke : pass->strokes)
                visit(*pass, stroke);
}

} // namespace

TEST_CASE(
    "each stroke is the contour of the line that it names, where its placement lies, and each is run once") {
    const auto d = demo();
    std::set<std::string> seen;
    std::size_t of_lines = 0, of_fills = 0, of_pieces = 0, of_steps = 0;
    each_stroke(d->plan->program, [&](const PassMove& pass, const Stroke& stroke) {
        const StrokeOf& of = stroke.of;
        INFO(spoken(d->plan->program, of));
        const PlacedPart* there = placed(*d, pass.sheet, of.placement);
        REQUIRE(there);
        REQUIRE(there->placement.part == of.part);
        const EvaluatedPart& part = *d->part(of.part);
        const Polyline* made = nullptr;
        if (of.line) {
            ++of_lines;
            for (const FlatLine& line : part.lines)
                if (line.id == of.line && line.set == of.line_set && of.contour < line.contours.size())
                    made = &line.contours[of.contour];
        } else {
            ++of_fills;
            for (const RunSet& run : part.runs)
                if (run.set == of.line_set && of.contour < run.lines.size()) made = &run.lines[of.contour];
        }
        REQUIRE(made);
        CHECK(same_run(stroke, transformed(*made, there->to_sheet)));
        of_steps += of.step ? 1 : 0;
        of_pieces += there->placement.piece > 0 ? 1 : 0;
        CHECK(seen.insert(std::to_string(of.placement.value) + "/" + std::to_string(of.line_set.value) + "/" +
                          std::to_string(of.line.step.value) + "/" + std::to_string(of.line.value) + "/" +
                          std::to_string(of.contour) + "/" + std::to_string(pass.lane.value))
                  .second);
    });
    CHECK(of_lines > 100);
    CHECK(of_fills > 10);
    CHECK(of_pieces > 5); // letters of the bunting lie apart
    CHECK(of_steps > 20);
}

TEST_CASE("what is being run is said in words") {
    const auto d = demo();
    std::set<std::string> said;
    each_stroke(d->plan->program, [&](const PassMove&, const Stroke& s) {
        said.insert(spoken(d->plan->program, s.of).english());
    });
    CHECK(said.contains("heron of Invitation, copy 2"));
    CHECK(said.contains("Fill of Invitation, copy 4"));
    CHECK(said.contains("window of Lantern sleeve, copy 1"));
    CHECK(said.contains("outline of Tide stencil")); // there is one
    CHECK(spoken(d->plan->program, {}).empty());
}

TEST_CASE("the machine's time is told part by part, ways home are nobody's") {
    const auto d = demo();
    const Program& program = d->plan->program;
    const Timeline& timeline = d->plan->timeline;
    Duration sum, home;
    for (const auto& [part, time] : times_of_parts(program, timeline))
        sum += time;
    using What = TimelineEntry::Kind;
    const auto& entries = timeline.entries();
    for (std::size_t e = 0; e < entries.size(); ++e) // a way that no landing follows
        if (entries[e].kind == What::travel &&
            (e + 1 == entries.size() || entries[e + 1].kind != What::lower))
            home += entries[e].time;
    CHECK(in_seconds(sum + home) == Approx(in_seconds(d->plan->totals.machine)).margin(1e-6));
    std::set<PartId> lying; // the big heron lies on no sheet
    for (const Sheet& sheet : d->project->sheets)
        for (const Placement& p : sheet.placements)
            lying.insert(p.part);
    CHECK(times_of_parts(program, timeline).size() == lying.size());
}

namespace {

/// As it is read: the text form is English.
Program in_english(Program p) {
    const auto say_in_english = [](Phrase& phrase) { phrase = as_is(phrase.english()); };
    say_in_english(p.machine);
    for (Phrase& slot : p.slots)
        say_in_english(slot);
    for (ProgramPart& part : p.parts)
        for (auto& [id, name] : part.line_sets)
            say_in_english(name);
    std::vector<ProgramSheet*> sheets;
    for (ProgramSheet& sheet : p.sheets)
        sheets.push_back(&sheet);
    for (PrintSheet& print : p.prints)
        sheets.push_back(&print.sheet);
    for (ProgramSheet* sheet : sheets)
        say_in_english(sheet->stock), say_in_english(sheet->mat);
    for (Move& move : p.moves)
        if (auto* stop = std::get_if<StopMove>(&move)) {
            for (HandStep& step : stop->steps)
                say_in_english(step.text);
            for (Phrase& held : stop->holds)
                say_in_english(held);
        } else {
            auto& pass = std::get<PassMove>(move);
            say_in_english(pass.tool), say_in_english(pass.slot);
        }
    return p;
}

} // namespace

TEST_CASE("the text form gives the same program back, to the last digit") {
    const auto d = demo();
    const std::string text = program_text(d->plan->program);
    CHECK((must(program_from_text(text)) == in_english(d->plan->program))); // too long to be printed
    CHECK(program_text(must(program_from_text(text))) == text);

    Random random("programs");
    INFO("seed " << random.seed());
    for (int round = 0; round < 40; ++round) {
        Program p = d->plan->program;
        p.project = "naïve \"job\" \n\t, \\u0000 " + std::to_string(round);
        p.motion.lift = seconds(std::exp(random.real(-20, 3)));
        if (round % 2)
            p.prints.push_back({p.sheets.front(), {}, {}, {line({{1, 2}, {3, 4}})}, Box{1, 2, 3, 4}});
        if (round % 2)
            p.prints.back().shapes.push_back(
                {{ring({{0, 0}, {9, 0}, {random.real(0, 9), 9}})}, FillRule::evenodd, {}});
        if (round % 2) p.prints.back().shapes.back().drawn.fill = Colour{1, 2, 3};
        if (round % 4 == 1)
            p.prints.back().pictures.push_back({std::make_shared<const std::string>("\x89 any\0 bytes"),
                                                mm(random.real(1, 900)),
                                                {random.real(-2, 2), 1, 2, random.real(-2, 2), 3, 4},
                                                {ring({{0, 0}, {9, 0}, {random.real(0, 9), 9}})},
                                                {ring({{-1, -1}, {19, 0}, {0, 19}})},
                                                7});
        for (Move& move : p.moves)
            if (auto* pass = std::get_if<PassMove>(&move)) {
                pass->repeats = random.whole(1, 8);
                pass->strokes.resize(static_cast<std::size_t>(random.whole(0, 3)), {line({{0, 0}}), {}});
                for (Stroke& s : pass->strokes) {
                    s.of = {{1},
                            {2},
                            {3},
                            {static_cast<std::uint32_t>(random.whole(0, 5))},
                            {static_cast<std::uint32_t>(random.whole(0, 1 << 30)), {7}},
                            4294967295U};
                    for (Point& point : s.points) // of all sizes
                        point = {random.real(-1, 1) * std::exp(random.real(-30, 12)), random.real(-400, 400)};
                }
            }
        CHECK((must(program_from_text(program_text(p))) == in_english(p)));
    }
}

TEST_CASE("a program that was cut short, changed or is none is refused with its line") {
    const std::string text = program_text(demo()->plan->program);
    const auto all = static_cast<std::size_t>(std::count(text.begin(), text.end(), '\n'));
    std::size_t lines = 0;
    for (std::size_t at = text.find('\n'); at + 1 < text.size(); at = text.find('\n', at + 1)) {
        if (lines++ % (all / 40) != 0) continue; // whole lines, which only the count at the end can tell
        const auto read = program_from_text(text.substr(0, at + 1), "p");
        REQUIRE_FALSE(read);
        CHECK(read.error().code == "program.damaged");
        CHECK(read.error().place.line == static_cast<int>(lines));
    }
    CHECK(lines > 300);
    CHECK(program_from_text("").error().code == "program.not-ours");
    CHECK(program_from_text("{}\n").error().code == "program.not-ours");
    CHECK(program_from_text(file(DOTLANE_SOURCE "/data/demo/saltmarsh.dotlane")).error().code ==
          "program.not-ours");
    CHECK(program_from_text("{\"dot_lane_program\":3}\n").error().code == "program.newer");
    CHECK(program_from_text("{\"dot_lane_program\":0}\n").error().code == "program.damaged");
    CHECK(program_from_text(text + text).error().code == "program.damaged");

    // One change anywhere: taken as a program that can be timed, or refused.
    Random random("damaged programs");
    INFO("seed " << random.seed());
    const std::string head = text.substr(0, text.find('\n', text.size() / 60) + 1) + "{\"end\":99}\n";
    for (int round = 0; round < 400; ++round) {
        std::string bytes = head;
        for (int n = random.whole(1, 3); n > 0; --n)
            bytes[static_cast<std::size_t>(random.whole(0, static_cast<int>(bytes.size()) - 1))] =
                static_cast<char>(random.whole(0, 255));
        if (const auto read = program_from_text(bytes))
            CHECK(in_seconds(Timeline(*read).total()) >= 0);
        else
            CHECK(read.error().code.starts_with("program."));
    }
}

TEST_CASE("a press in the rehearsal finds the stroke that is there by then") {
    const auto d = demo();
    const Program& program = d->plan->program;
    const Timeline& timeline = d->plan->timeline;
    for (std::size_t m = 0; m < program.moves.size(); ++m) {
        const auto* pass = std::get_if<PassMove>(&program.moves[m]);
        if (!pass) continue;
        const MoveSpan span = timeline.spans()[m];
        const Stroke& last = pass->strokes.back();
        const Point on = last.points[last.points.size() / 2];
        const MachineState before = timeline.at(program, span.start + seconds(1e-6)),
                           after = timeline.at(program, span.start + span.time - seconds(1e-6));
        const Stroke* found = stroke_at(program, after, on, mm(1e-6));
        REQUIRE(found);
        CHECK(found->of == last.of);
        const Stroke* early = stroke_at(program, before, on, mm(1e-6));
        CHECK((pass->strokes.size() == 1 || !early || early->of != last.of));
        CHECK_FALSE(stroke_at(program, after, {-50, -50}, mm(5)));
    }
}
