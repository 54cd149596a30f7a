#include "core/plan/work.h"

#include "core/machine/simulator.h"
#include "core/plan/kept_blocks.h"

namespace dotlane {

RouteResult route_lines(const LaneLines& lines, const RouteOptions& options, LineStart start,
                        Progress& progress) {
    return routed_in_blocks(beginnings(lines.lines, start), lines.block, options, progress);
}

RoutedPass route_pass(const LaneLines& lines, const RouteResult& route, Point rest, const ToolPath& path,
                      int repeats) {
    const Beginnings from = beginnings(lines.lines, path.run.start);
    RoutedPass out{{}, travel_of(lines.lines, rest, repeats), route.outlines_waiting};
    out.strokes.reserve(route.order.size());
    for (const RoutedLine& line : route.order)
        out.strokes.push_back({run(from.lines[line.line], line), lines.of[line.line]});
    as_carriage(out.strokes, path, repeats);
    return out;
}

PassMove pass_move(const LaneWork& work, const ProgramSheet& sheet) {
    PassMove out;
    out.sheet = sheet.sheet, out.lane = work.lane.id, out.action = work.lane.action;
    out.lane_name = work.lane.name, out.plate = work.plate;
    out.colour = work.lane.colour;
    out.tip = work.tool->tip;
    out.speed = in_mm_per_second(work.speed) > 0 ? work.speed : work.tool->speed;
    out.repeats = work.repeats();
    out.dwell = work.lane.run.dwell;
    out.offset = work.tool->offset;
    out.setting = work.setting;
    out.strokes = work.routed->strokes;
    return out;
}

Duration machine_time(const LaneWork& work, const ProgramSheet& sheet, const Motion& motion) {
    Program alone;
    alone.sheets = {sheet};
    alone.motion = motion;
    StopMove loaded; // from where the carriage rests
    loaded.sheet = sheet.sheet;
    alone.moves = {loaded, pass_move(work, sheet)};
    return Timeline(alone).spans().back().time;
}

} // namespace dotlane
