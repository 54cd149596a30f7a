#include "core/derive/inking.h"

#include "core/machine/motion.h"
#include "core/recipe/seams.h"

namespace dotlane {

namespace {

/// A lane's tool as it is set; machine and tool are null where they are not known.
struct AsSet {
    const Lane* lane = nullptr;
    const Machine* machine = nullptr;
    const Tool* tool = nullptr;
    Speed speed;
    int repeats = 1;
};

AsSet as_set(const Project& project, const Catalog& catalog, InkedIn in) {
    AsSet out;
    out.lane = find(project, in.lane);
    if (!out.lane) return out;
    out.repeats = out.lane->repeats;
    out.machine = catalog.machine(project.machine);
    out.tool = catalog.tool(out.lane->tool);
    if (!out.tool || !out.machine) return out;
    out.speed = out.tool->speed;
    const Part* part = find(project, in.part);
    const auto sheet = std::find_if(project.sheets.begin(), project.sheets.end(), [&](const Sheet& each) {
        return std::any_of(each.placements.begin(), each.placements.end(),
                           [&](const Placement& p) { return p.part == in.part; });
    });
    const Stock* stock = catalog.stock(sheet != project.sheets.end() ? sheet->stock
                                       : part                        ? part->stock
                                                                     : std::string());
    if (const Setting* setting = stock ? catalog.setting(*out.tool, *stock, *out.machine) : nullptr) {
        out.speed = setting->speed.value_or(out.speed);
        out.repeats = std::max(out.repeats, setting->passes);
    }
    return out;
}

} // namespace

Duration ink_time(const Project& project, const Catalog& catalog, InkedIn in, const Polylines& strokes) {
    const AsSet set = as_set(project, catalog, in);
    if (!set.tool || !set.machine || strokes.empty()) return {};
    const Machine* machine = set.machine;
    const Motion motion{machine->travel_speed, machine->acceleration, machine->deviation, machine->lift,
                        machine->lower};
    Duration out = motion.lower + motion.lift;
    for (std::size_t i = 0; i < strokes.size(); ++i) {
        out += stroke_time(strokes[i], set.speed, motion);
        if (i == 0) continue;
        const Polyline& before = strokes[i - 1];
        const Point end = before.closed ? before.points.front() : before.points.back();
        out += motion.lift + motion.lower + travel_time(mm(distance(end, strokes[i].points.front())), motion);
    }
    out += set.lane->run.dwell * static_cast<double>(strokes.size());
    return out * static_cast<double>(set.repeats);
}

Landing landing_of(const Project& project, const Catalog& catalog, const InkReport& ink) {
    const Machine* machine = catalog.machine(project.machine);
    Landing out{machine ? machine->landing : Length(), 0, ink.spacing};
    out.gaps = visible_gaps(ink.seams, ink.spacing, ink.tip, out.scatter);
    if (out.gaps > 0) out.closer = spacing_without_gaps(ink.seams, ink.spacing, ink.tip, out.scatter);
    return out;
}

int passes_of(const Project& project, const Catalog& catalog, InkedIn in, const InkReport& ink) {
    return ink.repeats * as_set(project, catalog, in).repeats;
}

const RecipeChain::Link* fill_of(const EvaluatedPart& part, StepId step) {
    const RecipeChain::Link* link = link_of(part, step);
    return link && link->report && link->report->ink ? link : nullptr;
}

namespace {

InkTime time_in(const Project& project, const Catalog& catalog, InkedIn in) {
    return [&project, &catalog, in](const Polylines& strokes) {
        return ink_time(project, catalog, in, strokes);
    };
}

} // namespace

std::vector<FillOption> options_for(const Project& project, const Catalog& catalog, const EvaluatedPart& part,
                                    StepId step, Progress& progress) {
    const RecipeChain::Link* link = fill_of(part, step);
    if (!link) return {};
    return fill_options(link->step.what, input_of(link->given),
                        time_in(project, catalog, {part.part, link->step.lane}), progress);
}

std::optional<TriedAngles> angles_for(const Project& project, const Catalog& catalog,
                                      const EvaluatedPart& part, StepId step, Progress& progress) {
    const RecipeChain::Link* link = fill_of(part, step);
    if (!link) return std::nullopt;
    return try_angles(link->step.what, input_of(link->given),
                      time_in(project, catalog, {part.part, link->step.lane}), progress);
}

FillPlaces places_for(const EvaluatedPart& part, StepId step) {
    const RecipeChain::Link* link = fill_of(part, step);
    return link ? places_of(link->step.what, input_of(link->given)) : FillPlaces();
}

} // namespace dotlane
