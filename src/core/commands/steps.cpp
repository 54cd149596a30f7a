#include "core/commands/steps.h"

#include "core/base/text.h"
#include "core/commands/lanes.h"
#include "core/commands/making.h"
#include "core/project/edits.h"

namespace dotlane {
namespace {

std::string name_of(const Part& part, const Step& step) {
    std::size_t place = 0;
    while (place < part.steps.size() && part.steps[place].id != step.id)
        ++place;
    return "step " + std::to_string(place + 1) + ", " + kind_of(step.what).name + ",";
}

std::string name_of(const Part& part, LineSetId id) {
    if (const LineSet* set = find(part, id)) return "\"" + set->name + "\"";
    const Step* maker = maker_of(part, id);
    return maker ? std::string("what ") + kind_of(maker->what).name + " makes"
                 : "line set " + std::to_string(id.value);
}

std::string listed(const Part& part, const std::vector<LineSetId>& sets) {
    std::string out;
    for (std::size_t i = 0; i < sets.size(); ++i)
        out += (i == 0 ? "" : i + 1 == sets.size() ? " and " : ", ") + name_of(part, sets[i]);
    return out;
}

/// What it works on and where its lines go.
std::string told(const Project& project, const Part& part, const Step& step) {
    const StepKind& kind = kind_of(step.what);
    std::string out;
    if (!kind.brings)
        out += " It works on " +
               (step.of.empty() ? std::string("all that is there") : listed(part, step.of)) +
               (step.by.empty() ? "" : ", with " + listed(part, step.by)) + ".";
    if (kind.makes)
        out += step.aside ? " Its lines are only for later steps."
                          : " Its lines go to " + lane_words(project, step.lane) + ".";
    return out;
}

struct Found {
    const Part* part = nullptr;
    const Step* step = nullptr;
};
Result<Found> found(const Project& project, PartId id, StepId step_id) {
    const Part* part = find(project, id);
    const Step* step = part ? find(*part, step_id) : nullptr;
    if (!step) return fail("edit.missing", "There is no such step.");
    return Found{part, step};
}

Done done(std::string said, PartId part, StepId step) {
    Done out{std::move(said), part};
    out.step = step;
    return out;
}

} // namespace

Result<Done> apply(const AddStep& command, Project& project, const Catalog& catalog,
                   const EvaluatedPart& evaluated) {
    const StepKind& kind = kind_of(command.what);
    Project next = project;
    std::vector<LineSetId> of = command.of, by = command.by;
    if (!command.lines.empty()) {
        std::vector<LineId> lines = command.lines;
        if (kind.inks) {
            std::erase_if(lines, [&](LineId id) {
                return std::none_of(evaluated.lines.begin(), evaluated.lines.end(),
                                    [id](const FlatLine& l) { return l.id == id && fillable(l); });
            });
            if (lines.empty())
                return fail("step.no-lines", "A fill needs closed lines, and none of the chosen ones is.");
        }
        const auto sets = sets_of_lines(next, evaluated, lines, kind.inks ? "filled lines" : "chosen lines");
        if (!sets) return tl::make_unexpected(sets.error());
        (kind.second == StepKind::Second::wanted && by.empty() ? by : of) = *sets;
    }
    if (kind.second == StepKind::Second::wanted && by.empty())
        return fail("step.no-lines", "Choose what is to be cut out of the other lines first.");
    const auto made = append_step(next, catalog, evaluated, command.what, of, by);
    if (!made) return tl::make_unexpected(made.error());
    project = std::move(next);
    return added_step(project, command.part, *made);
}

Done added_step(const Project& project, PartId id, StepId step_id) {
    const Part& part = *find(project, id);
    const Step& step = *find(part, step_id);
    return done("Added " + name_of(part, step) + " to \"" + part.name + "\"." +
                    (step.on ? "" : " It is switched off.") + told(project, part, step),
                part.id, step.id);
}

Result<Done> apply(const ChangeStep& command, Project& project) {
    const auto at = found(project, command.part, command.step);
    if (!at) return tl::make_unexpected(at.error());
    Step next = *at->step;
    next.what = command.what.value_or(next.what);
    next.on = command.on.value_or(next.on);
    next.aside = command.aside.value_or(next.aside);
    next.lane = command.lane.value_or(next.lane);
    next.of = command.of.value_or(next.of);
    next.by = command.by.value_or(next.by);
    const bool switched = next.on != at->step->on;
    if (const auto ok = change_step(project, command.part, next); !ok) return tl::make_unexpected(ok.error());
    const Part& part = *find(project, command.part);
    const Step& step = *find(part, command.step);
    return done((!switched ? std::string("Changed ")
                 : step.on ? std::string("Switched on ")
                           : std::string("Switched off ")) +
                    name_of(part, step) + " of \"" + part.name + "\"." + told(project, part, step),
                part.id, step.id);
}

Result<Done> apply(const RemoveStep& command, Project& project) {
    const auto at = found(project, command.part, command.step);
    if (!at) return tl::make_unexpected(at.error());
    const std::string name = name_of(*at->part, *at->step);
    std::vector<LineSetId> aside;
    for (const LineSet& set : at->part->sets)
        if (set.set_aside) aside.push_back(set.id);
    if (const auto ok = remove_maker(project, command.part, command.step); !ok)
        return tl::make_unexpected(ok.error());
    const Part& part = *find(project, command.part);
    Done out{"Removed " + name + " from \"" + part.name + "\".", part.id};
    for (const LineSetId id : aside)
        if (const LineSet* set = find(part, id); set && !set->set_aside)
            out.lost.push_back("\"" + set->name + "\" was set aside for it and is run again.");
    return out;
}

Result<Done> apply(const MoveStep& command, Project& project) {
    const auto at = found(project, command.part, command.step);
    if (!at) return tl::make_unexpected(at.error());
    if (const auto ok = move_step(project, command.part, command.step, command.to); !ok)
        return tl::make_unexpected(ok.error());
    const Part& part = *find(project, command.part);
    const Step& step = *find(part, command.step);
    return done(std::string(kind_of(step.what).name) + " of \"" + part.name + "\" is step " +
                    std::to_string(command.to + 1) + " of " + std::to_string(part.steps.size()) + " now.",
                part.id, step.id);
}

Result<Done> apply(const TreatSources& command, Project& project) {
    const auto at = found(project, command.part, command.step);
    if (!at) return tl::make_unexpected(at.error());
    const std::vector<LineSetId> of = at->step->of;
    Project next = project;
    for (const LineSetId set : of) {
        if (command.lane)
            if (const auto ok = set_lane(next, command.part, set, *command.lane); !ok)
                return tl::make_unexpected(ok.error());
        if (command.aside)
            if (const auto ok = set_aside(next, command.part, set, *command.aside); !ok)
                return tl::make_unexpected(ok.error());
    }
    project = std::move(next);
    const Part& part = *find(project, command.part);
    return done("What it works on, " + listed(part, of) + ", " +
                    (command.lane                    ? "goes to " + lane_words(project, *command.lane)
                     : command.aside.value_or(false) ? std::string("is set aside")
                                                     : std::string("is run")) +
                    ".",
                part.id, command.step);
}

} // namespace dotlane
