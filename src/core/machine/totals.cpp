#include "core/machine/totals.h"

#include "core/base/text.h"

namespace dotlane {

ProgramTotals totals(const Program& program, const Timeline& timeline) {
    ProgramTotals out;
    for (std::size_t m = 0; m < program.moves.size(); ++m) {
        const Duration time = timeline.spans()[m].time;
        if (const auto* pass = std::get_if<PassMove>(&program.moves[m])) {
            out.machine += time, ++out.passes;
            out.strokes += runs(*pass);
            out.tool_down += length(pass->strokes) * pass->repeats;
        } else {
            const Duration meanwhile = std::get<StopMove>(program.moves[m]).meanwhile;
            out.hands += time + meanwhile, out.meanwhile += meanwhile, ++out.stops;
        }
    }
    for (const TimelineEntry& e : timeline.entries())
        if (e.kind == TimelineEntry::Kind::travel) out.travel += mm(distance(e.from, e.to));
    return out;
}

std::map<PartId, Duration> times_of_parts(const Program& program, const Timeline& timeline) {
    std::map<PartId, Duration> out;
    for (const TimelineEntry& e : timeline.entries())
        if (const auto* pass = std::get_if<PassMove>(&program.moves[e.move]); pass && e.stroke < runs(*pass))
            out[stroke_of(*pass, e.stroke).of.part] += e.time;
    return out;
}

Phrase words(const PassSetting& setting) {
    std::vector<Phrase> out;
    if (setting.pressure) out.push_back(say("pressure %1", number(*setting.pressure, 1)));
    if (setting.depth) out.push_back(say("tip out %1 mm", number(in_mm(*setting.depth), 2)));
    if (out.empty()) return {};
    const Phrase whence = setting.from == "swatch"  ? say("from a swatch")
                          : setting.from == "maker" ? say("set by you")
                                                    : say("from the catalog");
    return say("%1 (%2)", joined(out, ", "), whence);
}

Phrase spoken(const Program& program, const StrokeOf& of) {
    for (const ProgramPart& part : program.parts) {
        if (part.part != of.part) continue;
        const auto set = part.line_sets.find(of.line_set);
        const auto line = of.line.step ? part.lines.end() : part.lines.find(of.line.value);
        Phrase out = line != part.lines.end()      ? say("%1 of %2", line->second, part.name)
                     : set != part.line_sets.end() ? say("%1 of %2", set->second, part.name)
                                                   : as_is(part.name);
        for (std::size_t copy = 0; part.placements.size() > 1 && copy < part.placements.size(); ++copy)
            if (part.placements[copy] == of.placement) out = say("%1, copy %2", out, copy + 1);
        return out;
    }
    return {};
}

} // namespace dotlane
