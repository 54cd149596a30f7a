// Runs: their states, what they tell the journal, how they go on after a failure; and the rehearsal, which is
// one.
#include "core/derive/workshop.h"
#include "core/project/format.h"
#include "core/run/rehearsal.h"
#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

struct ByHand final : Clock {
    Duration time;
    Duration now() const override { return time; }
};

/// Ends what it has begun when it is told to, or fails.
struct Puppet final : Device {
    std::vector<Operation> begun;
    bool done = false, broken = false, still = false;
    void begin(const Operation& operation) override { begun.push_back(operation), done = false; }
    Result<bool> ended() override {
        if (broken) return fail("device.jam", say("The mat has slipped."));
        return done && !still;
    }
    void hold(bool now) override { still = now; }
};

struct Pages final : Journal {
    std::vector<RunEvent> events;
    void write(const RunEvent& event) override { events.push_back(event); }
    std::size_t count(RunEvent::Kind kind) const {
        return static_cast<std::size_t>(
            std::count_if(events.begin(), events.end(), [&](const RunEvent& e) { return e.kind == kind; }));
    }
};

/// A stop, a pass of two strokes run twice, and the stop at the end.
Program small() {
    Program p;
    p.motion = {mm_per_second(100), mm_per_second2(1000), mm(0.05), seconds(0.1), seconds(0.1)};
    p.sheets.push_back({SheetId{1}, "sheet 1"});
    StopMove stop;
    stop.number = 1, stop.sheet = SheetId{1}, stop.time = seconds(30);
    PassMove pass;
    pass.number = 1, pass.sheet = SheetId{1}, pass.lane = LaneId{5}, pass.speed = mm_per_second(50),
    pass.repeats = 2;
    for (std::uint32_t n = 0; n < 2; ++n) {
        Stroke stroke;
        stroke.points = {{10.0 * (n + 1), 10}, {10.0 * (n + 1), 40}};
        stroke.of = {PartId{2}, PlacementId{3}, LineSetId{4}, {}, LineId{n + 1}, 0};
        pass.strokes.push_back(stroke);
    }
    StopMove last;
    last.number = 2, last.time = seconds(10);
    p.moves = {stop, pass, last};
    return p;
}

struct Workbench {
    Program program = small();
    ByHand clock;
    Puppet device;
    Pages journal;
    void end(Run& run) {
        device.done = true;
        run.tick(); // the next one is begun, and not done
    }
};

} // namespace

TEST_CASE("a run waits for hands, runs every stroke as often as its lane says, and is done") {
    Workbench b;
    Run run(b.program, b.clock, b.device, b.journal);
    REQUIRE(run.operations().size() == 6);
    CHECK(run.state() == RunState::loaded);
    CHECK(run.hands_done().error().code == "run.state");
    must(run.start());
    CHECK(run.state() == RunState::waiting);
    run.tick();
    CHECK(run.state() == RunState::waiting); // hands are told, not guessed
    CHECK(run.pause().error().code == "run.state");
    must(run.hands_done());
    for (int turn = 1; turn <= 2; ++turn)
        for (std::uint32_t line = 1; line <= 2; ++line) {
            CHECK(run.state() == RunState::running);
            CHECK(b.device.begun.back().id.of.line == LineId{line});
            CHECK(b.device.begun.back().id.turn == turn);
            run.tick();
            b.end(run);
        }
    CHECK(run.state() == RunState::waiting);
    CHECK(run.operations().at(run.at()).id.stop == 2);
    must(run.hands_done());
    CHECK(run.state() == RunState::done);
    CHECK(run.at() == run.operations().size());
    CHECK(b.journal.count(RunEvent::Kind::ended) == 4);
    CHECK(b.journal.events.back().kind == RunEvent::Kind::done);
    CHECK(run.start().error().code == "run.state");
}

TEST_CASE("a run that is paused holds the device, and goes on with the same stroke") {
    Workbench b;
    Run run(b.program, b.clock, b.device, b.journal);
    must(run.start());
    must(run.hands_done());
    must(run.pause());
    CHECK(b.device.still);
    b.end(run);
    CHECK(run.state() == RunState::paused);
    CHECK(b.device.begun.size() == 1);
    must(run.resume());
    CHECK_FALSE(b.device.still);
    run.tick();
    CHECK(b.device.begun.size() == 2);
}

TEST_CASE("a run that failed says why and begins that stroke again") {
    Workbench b;
    Run run(b.program, b.clock, b.device, b.journal);
    must(run.start());
    must(run.hands_done());
    b.end(run);
    b.device.broken = true;
    run.tick();
    CHECK(run.state() == RunState::failed);
    REQUIRE(run.failure());
    CHECK(run.failure()->code == "device.jam");
    CHECK(b.journal.events.back().message.english() == "The mat has slipped.");
    const OperationId failed = b.journal.events.back().operation;
    b.device.broken = false;
    must(run.resume());
    CHECK_FALSE(run.failure());
    CHECK(b.device.begun.back().id == failed);
    CHECK(b.device.begun.size() == 3);
}

TEST_CASE("a run goes on where another ended, but for the hands") {
    Workbench first;
    {
        Run run(first.program, first.clock, first.device, first.journal);
        must(run.start());
        must(run.hands_done());
        first.end(run);
        first.end(run);
    }
    const auto done = [&](const OperationId& id) {
        return std::any_of(first.journal.events.begin(), first.journal.events.end(), [&](const RunEvent& e) {
            return e.kind == RunEvent::Kind::ended && e.operation == id;
        });
    };
    Workbench b;
    std::swap(std::get<PassMove>(b.program.moves[1]).strokes[0],
              std::get<PassMove>(b.program.moves[1]).strokes[1]);
    Run run(b.program, b.clock, b.device, b.journal, done); // planned anew: another order
    must(run.start());
    CHECK(run.state() == RunState::waiting);
    must(run.hands_done());
    CHECK(b.device.begun.back().id.turn == 2);
    CHECK(b.device.begun.back().id.of.line == LineId{2});
    b.end(run);
    b.end(run);
    CHECK(run.state() == RunState::waiting);
    CHECK(b.device.begun.size() == 2);
}

TEST_CASE("an empty program is done at once") {
    Program none;
    ByHand clock;
    Puppet device;
    Pages journal;
    Run run(none, clock, device, journal);
    must(run.start());
    CHECK(run.state() == RunState::done);
}

TEST_CASE("the demo's operations have names of their own, and its rehearsal is where its timeline is") {
    const Project project = must(read_project(file(DOTLANE_SOURCE "/data/demo/saltmarsh.dotlane")));
    Workshop workshop(catalog());
    const auto derived = workshop.derive(std::make_shared<Project>(project));
    REQUIRE(derived->plan);
    const Program& program = derived->plan->program;
    const Timeline& timeline = derived->plan->timeline;
    Rehearsal rehearsal(program, timeline);
    const Operations operations(program);
    std::vector<OperationId> all;
    for (std::size_t i = 0; i < operations.size(); ++i)
        all.push_back(operations.at(i).id);
    const auto key = [](const OperationId& id) {
        return std::tuple(id.sheet.value, id.lane.value, id.of.part.value, id.of.placement.value,
                          id.of.line_set.value, id.of.step.value, id.of.line.value, id.of.contour, id.turn,
                          id.stop);
    };
    std::sort(all.begin(), all.end(), [&](const auto& a, const auto& b) { return key(a) < key(b); });
    CHECK(std::adjacent_find(all.begin(), all.end()) == all.end());
    Random random("moments");
    for (int i = 0; i < 300; ++i) {
        const Duration t = timeline.total() * random.real(-0.01, 1.01);
        rehearsal.to(t);
        const MachineState state = rehearsal.machine();
        const Run& run = rehearsal.run();
        INFO("at " << in_seconds(t) << " s");
        CHECK(state.at == timeline.at(program, t).at);
        if (run.state() == RunState::done) {
            CHECK(t >= timeline.total());
            continue;
        }
        const Operation now = operations.at(run.at());
        CHECK(now.move == state.move);
        CHECK((run.state() == RunState::waiting) == (state.kind == TimelineEntry::Kind::stop));
        if (run.state() == RunState::running && state.kind == TimelineEntry::Kind::stroke)
            CHECK(now.run == state.strokes_done);
    }
    rehearsal.to(timeline.total());
    CHECK(rehearsal.run().state() == RunState::done);
    rehearsal.to({});
    CHECK(rehearsal.run().state() == RunState::waiting);
}
