#include "core/machine/simulator.h"

#include <algorithm>

namespace dotlane {

Point rest_position(const Program& program, SheetId sheet) {
    for (const ProgramSheet& s : program.sheets)
        if (s.sheet == sheet) return {s.usable.x0, s.usable.y0};
    return {};
}

Length length(const std::vector<Stroke>& strokes) {
    Length out;
    for (const Stroke& stroke : strokes)
        out += length(static_cast<const Polyline&>(stroke));
    return out;
}

void Timeline::add(TimelineEntry entry) {
    entry.start = total_;
    total_ += entry.time;
    entries_.push_back(entry);
}

Timeline::Timeline(const Program& program) {
    using Kind = TimelineEntry::Kind;
    Point at;
    SheetId sheet;
    for (std::size_t m = 0; m < program.moves.size(); ++m) {
        const Duration begin = total_;
        if (const auto* stop = std::get_if<StopMove>(&program.moves[m])) {
            if (stop->sheet && stop->sheet != sheet) at = rest_position(program, stop->sheet);
            sheet = stop->sheet;
            add({Kind::stop, m, 0, {}, stop->time, at, at});
        } else {
            const auto& pass = std::get<PassMove>(program.moves[m]);
            for (std::size_t s = 0; s < runs(pass); ++s) {
                const Stroke& stroke = stroke_of(pass, s);
                const Point first = stroke.points.front(),
                            last = stroke.closed ? first : stroke.points.back();
                if (first != at)
                    add({Kind::travel,
                         m,
                         s,
                         {},
                         travel_time(mm(distance(at, first)), program.motion),
                         at,
                         first});
                add({Kind::lower, m, s, {}, program.motion.lower + pass.dwell, first, first});
                add({Kind::stroke, m, s, {}, stroke_time(stroke, pass.speed, program.motion), first, last});
                add({Kind::lift, m, s, {}, program.motion.lift, last, last});
                at = last;
            }
            const Point rest = rest_position(program, pass.sheet);
            if (at != rest)
                add({Kind::travel,
                     m,
                     runs(pass),
                     {},
                     travel_time(mm(distance(at, rest)), program.motion),
                     at,
                     rest});
            at = rest;
        }
        spans_.push_back({begin, total_ - begin});
    }
}

Polyline started(const Polyline& stroke, Length drawn) {
    Polyline out{{stroke.points.front()}, false};
    double left = in_mm(drawn);
    const std::size_t n = stroke.points.size();
    for (std::size_t i = 0; i < (stroke.closed ? n : n - 1); ++i) {
        const Point a = stroke.points[i], b = stroke.points[(i + 1) % n];
        const double l = distance(a, b);
        if (l >= left) {
            if (l > 0 && left > 0) out.points.push_back(mix(a, b, left / l));
            return out;
        }
        left -= l;
        out.points.push_back(b);
    }
    return out;
}

const Stroke* stroke_at(const Program& program, const MachineState& state, Point at, Length reach) {
    const Stroke* found = nullptr;
    double least = in_mm(reach);
    for (std::size_t m = 0; m <= state.move && m < program.moves.size(); ++m) {
        const auto* pass = std::get_if<PassMove>(&program.moves[m]);
        if (!pass || pass->sheet != state.sheet) continue;
        const bool now = m == state.move;
        const std::size_t there =
            now ? std::min(pass->strokes.size(), state.strokes_done + (state.tool_down ? 1 : 0))
                : pass->strokes.size();
        for (std::size_t s = 0; s < there; ++s) {
            const Stroke& stroke = pass->strokes[s];
            const double d = distance_to(stroke, at);
            if (d <= least) least = d, found = &stroke;
        }
    }
    return found;
}

MachineState Timeline::at(const Program& program, Duration t) const {
    using Kind = TimelineEntry::Kind;
    MachineState state;
    if (entries_.empty()) return state;
    t = std::clamp(t, Duration{}, total_);
    const auto it = std::upper_bound(entries_.begin(), entries_.end(), t,
                                     [](Duration v, const TimelineEntry& e) { return v < e.start; });
    const TimelineEntry& e = it == entries_.begin() ? entries_.front() : *(it - 1);
    state.entry = static_cast<std::size_t>(&e - entries_.data());
    state.kind = e.kind;
    state.move = e.move;
    state.at = e.from;
    const Duration into = t - e.start;
    if (const auto* stop = std::get_if<StopMove>(&program.moves[e.move])) {
        state.sheet = stop->sheet;
        return state;
    }
    const auto& pass = std::get<PassMove>(program.moves[e.move]);
    state.sheet = pass.sheet;
    state.strokes_done = e.stroke + (e.kind == Kind::lift ? 1 : 0);
    state.tool_down = e.kind == Kind::stroke;
    if (e.kind == Kind::travel) {
        const Length way = mm(distance(e.from, e.to));
        const Length done = run_distance(way, program.motion.travel, program.motion.acceleration, into);
        state.at = in_mm(way) > 0 ? mix(e.from, e.to, done / way) : e.to;
    } else if (e.kind == Kind::stroke) {
        state.drawn = StrokeMotion(stroke_of(pass, e.stroke), pass.speed, program.motion).at(into);
        state.at = started(stroke_of(pass, e.stroke), state.drawn).points.back();
    }
    return state;
}

} // namespace dotlane
