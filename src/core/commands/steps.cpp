#include "core/commands/steps.h"

#include "core/base/text.h"
#include "core/commands/lanes.h"
#include "core/commands/making.h"
#include "core/project/edits.h"

namespace dotlane {
namespace {

Phrase name_of(const Part& part, const Step& step) {
    std::size_t place = 0;
    while (place < part.steps.size() && part.steps[place].id != step.id)
        ++place;
    return say("step %1, %2,", place + 1, word(kind_of(step.what)));
}

Phrase name_of(const Part& part, LineSetId id) {
    if (const LineSet* set = find(part, id)) return say("\"%1\"", set->name);
    const Step* maker = maker_of(part, id);
    return maker ? say("what %1 makes", word(kind_of(maker->what))) : say("line set %1", id.value);
}

Phrase listed(const Part& part, const std::vector<LineSetId>& sets) {
    Phrase out;
    for (std::size_t i = 0; i < sets.size(); ++i) {
        const Phrase next = name_of(part, sets[i]);
        out = i == 0 ? next : i + 1 == sets.size() ? say("%1 and %2", out, next) : say("%1, %2", out, next);
    }
    return out;
}

/// What it works on and where its lines go.
Phrase told(const Project& project, const Part& part, const Step& step) {
    const StepKind& kind = kind_of(step.what);
    std::vector<Phrase> out;
    if (!kind.brings) {
        const Phrase of = step.of.empty() ? say("all that is there") : listed(part, step.of);
        out.push_back(step.by.empty() ? say(" It works on %1.", of)
                                      : say(" It works on %1, with %2.", of, listed(part, step.by)));
    }
    if (kind.makes)
        out.push_back(step.aside ? say(" Its lines are only for later steps.")
                                 : say(" Its lines go to %1.", lane_words(project, step.lane)));
    for (const char* role : roles_of(step.what))
        if (const LineSet* set = set_of(part, step.id, role))
            out.push_back(set->set_aside
                              ? say(" \"%1\" is set aside.", set->name)
                              : say(" \"%1\" goes to %2.", set->name, lane_words(project, set->lane)));
    return joined(out, "");
}

struct Found {
    const Part* part = nullptr;
    const Step* step = nullptr;
};
Result<Found> found(const Project& project, PartId id, StepId step_id) {
    const Part* part = find(project, id);
    const Step* step = part ? find(*part, step_id) : nullptr;
    if (!step) return fail("edit.missing", say("There is no such step."));
    return Found{part, step};
}

Done done(Phrase said, PartId part, StepId step) {
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
                return fail("step.no-lines",
                            say("A fill needs closed lines, and none of the chosen ones is."));
        }
        const auto sets = sets_of_lines(next, evaluated, lines, kind.inks ? "filled lines" : "chosen lines");
        if (!sets) return tl::make_unexpected(sets.error());
        (kind.second == StepKind::Second::wanted && by.empty() ? by : of) = *sets;
    }
    if (kind.second == StepKind::Second::wanted && by.empty())
        return fail("step.no-lines", say("Choose what is to be cut out of the other lines first."));
    const auto made = append_step(next, catalog, evaluated, command.what, of, by);
    if (!made) return tl::make_unexpected(made.error());
    project = std::move(next);
    return added_step(project, command.part, *made);
}

Done added_step(const Project& project, PartId id, StepId step_id) {
    const Part& part = *find(project, id);
    const Step& step = *find(part, step_id);
    return done(say("Added %1 to \"%2\".%3%4", name_of(part, step), part.name,
                    (step.on ? Phrase() : say(" It is switched off.")), told(project, part, step)),
                part.id, step.id);
}

Result<Done> apply(const ChangeStep& command, Project& project, const Catalog& catalog) {
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
    const std::vector<LineSet> known = at->part->sets;
    const bool other =
        kind_of(next.what).by_role && std::string_view(role_of(next.what)) != role_of(at->step->what);
    if (const auto ok = change_step(project, command.part, next); !ok) return tl::make_unexpected(ok.error());
    if (other && !command.lane) { // what it makes is for something else now
        next.lane = lane_by_role(project, catalog, next.what, next.lane);
        if (const auto ok = change_step(project, command.part, next); !ok)
            return tl::make_unexpected(ok.error());
    }
    propose_lanes(project, catalog, command.part, command.step, known);
    const Part& part = *find(project, command.part);
    const Step& step = *find(part, command.step);
    return done(say(!switched ? to_say("Changed %1 of \"%2\".%3")
                    : step.on ? to_say("Switched on %1 of \"%2\".%3")
                              : to_say("Switched off %1 of \"%2\".%3"),
                    name_of(part, step), part.name, told(project, part, step)),
                part.id, step.id);
}

Result<Done> apply(const PressStep& command, Project& project, const Catalog& catalog,
                   const EvaluatedPart& evaluated) {
    const auto at = found(project, command.part, command.step);
    if (!at) return tl::make_unexpected(at.error());
    StepWhat next = at->step->what;
    const RecipeChain::Link* link = link_of(evaluated, command.step);
    if (!link || !press_place(next, input_of(link->given), command.at))
        return fail("step.no-place", say("There is nothing at %1, %2 mm that this step could change.",
                                         number(command.at.x, 2), number(command.at.y, 2)));
    return apply(ChangeStep{command.part, command.step, next}, project, catalog);
}

Result<Done> apply(const RemoveStep& command, Project& project) {
    const auto at = found(project, command.part, command.step);
    if (!at) return tl::make_unexpected(at.error());
    const Phrase name = name_of(*at->part, *at->step);
    std::vector<LineSetId> aside;
    for (const LineSet& set : at->part->sets)
        if (set.set_aside) aside.push_back(set.id);
    if (const auto ok = remove_maker(project, command.part, command.step); !ok)
        return tl::make_unexpected(ok.error());
    const Part& part = *find(project, command.part);
    Done out{say("Removed %1 from \"%2\".", name, part.name), part.id};
    for (const LineSetId id : aside)
        if (const LineSet* set = find(part, id); set && !set->set_aside)
            out.lost.push_back(say("\"%1\" was set aside for it and is run again.", set->name));
    return out;
}

Result<Done> apply(const MoveStep& command, Project& project) {
    const auto at = found(project, command.part, command.step);
    if (!at) return tl::make_unexpected(at.error());
    if (const auto ok = move_step(project, command.part, command.step, command.to); !ok)
        return tl::make_unexpected(ok.error());
    const Part& part = *find(project, command.part);
    const Step& step = *find(part, command.step);
    return done(say("%1 of \"%2\" is step %3 of %4 now.", word(kind_of(step.what)), part.name, command.to + 1,
                    part.steps.size()),
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
    return done(command.lane                    ? say("What it works on, %1, goes to %2.", listed(part, of),
                                                      lane_words(project, *command.lane))
                : command.aside.value_or(false) ? say("What it works on, %1, is set aside.", listed(part, of))
                                                : say("What it works on, %1, is run.", listed(part, of)),
                part.id, command.step);
}

} // namespace dotlane
