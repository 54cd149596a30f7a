#include "core/machine/simulator.h"

#include "tests/support/support.h"

using namespace dotlane;
using namespace dotlane::test;

namespace {

Bench job() {
    return bench("<rect x='2' y='2' width='80' height='50' fill='none' stroke='#22282c'/><path d='M10,10 "
                 "q10,10 20,0' fill='none' stroke='#a8462d'/>"
                 "<path d='M40,2 v50' fill='none' stroke='#5a6996' stroke-dasharray='4 2'/>");
}

} // namespace

TEST_CASE("the timeline is unbroken in time and in place") {
    const auto d = job().derive();
    const Timeline& timeline = d->plan->timeline;
    Duration at;
    Point where;
    SheetId sheet;
    for (const TimelineEntry& e : timeline.entries()) {
        CHECK(in_seconds(e.start) == Approx(in_seconds(at)).margin(1e-9));
        if (e.kind != TimelineEntry::Kind::stop && sheet) CHECK(distance(e.from, where) < 1e-9);
        at = e.start + e.time;
        where = e.to;
        sheet = SheetId{1};
    }
    CHECK(in_seconds(at) == Approx(in_seconds(timeline.total())));
    Duration sum;
    for (const MoveSpan& span : timeline.spans())
        sum += span.time;
    CHECK(in_seconds(sum) == Approx(in_seconds(timeline.total())));
}

TEST_CASE("the carriage never jumps and the tool is only down on strokes") {
    const auto d = job().derive();
    const Program& program = d->plan->program;
    const Timeline& timeline = d->plan->timeline;
    const double step = 0.02;
    MachineState before = timeline.at(program, {});
    for (double t = step; t < in_seconds(timeline.total()); t += step) {
        const MachineState now = timeline.at(program, seconds(t));
        if (now.sheet == before.sheet)
            CHECK(distance(before.at, now.at) <= in_mm_per_second(program.motion.travel) * step + 1e-6);
        CHECK(now.tool_down == (now.kind == TimelineEntry::Kind::stroke));
        CHECK(now.move >= before.move);
        if (now.move == before.move) CHECK(now.strokes_done >= before.strokes_done);
        before = now;
    }
}

TEST_CASE("while a stroke runs the carriage is on it") {
    const auto d = job().derive();
    const Program& program = d->plan->program;
    const Timeline& timeline = d->plan->timeline;
    int seen = 0;
    for (const TimelineEntry& e : timeline.entries()) {
        if (e.kind != TimelineEntry::Kind::stroke) continue;
        const MachineState s = timeline.at(program, e.start + e.time * 0.37);
        const Polyline& stroke = std::get<PassMove>(program.moves[e.move]).strokes[e.stroke];
        double least = 1e300;
        for (std::size_t i = 0; i + (stroke.closed ? 0 : 1) < stroke.points.size(); ++i)
            least = std::min(least, distance_to_segment(s.at, stroke.points[i],
                                                        stroke.points[(i + 1) % stroke.points.size()]));
        CHECK(least < 1e-6);
        CHECK(s.drawn > mm(0));
        CHECK(s.drawn < length(stroke));
        ++seen;
    }
    CHECK(seen == 3);
}

TEST_CASE("times outside the run are clamped, an empty program stands still") {
    const auto d = job().derive();
    CHECK(d->plan->timeline.at(d->plan->program, seconds(-5)).move == 0);
    const MachineState end = d->plan->timeline.at(d->plan->program, seconds(1e6));
    CHECK(end.move + 1 == d->plan->program.moves.size());
    CHECK(in_seconds(Timeline(Program{}).total()) == 0);
    CHECK_FALSE(Timeline(Program{}).at(Program{}, seconds(1)).tool_down);
}

TEST_CASE("the begun part of a stroke") {
    const Polyline square_line = ring({{0, 0}, {10, 0}, {10, 10}, {0, 10}});
    CHECK(started(square_line, mm(15)).points.back() == Point{10, 5});
    CHECK(in_mm(length(started(square_line, mm(40)))) == Approx(40));
    CHECK(started(square_line, mm(0)).points.size() == 1);
    CHECK(in_mm(length(started(line({{0, 0}, {10, 0}}), mm(99)))) == Approx(10));
}
