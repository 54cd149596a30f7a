#include "core/project/edits.h"

#include <algorithm>
#include <unordered_set>
#include <utility>

#include "core/project/edit_checks.h"

namespace dotlane {
namespace {

/// Each role of the step has a line set, without a lane at first. Sets of roles that it does not make any
/// longer stay, so that their lanes are found again.
void settle_roles(Project& project, Part& part, const Step& step) {
    for (const char* role : roles_of(step.what))
        if (!set_of(part, step.id, role))
            part.sets.push_back({fresh_id<LineSetId>(project), role, {}, false, {}, role, step.id});
}

/// Whether a step of the part works on the line set.
bool uses(const Part& part, LineSetId set) {
    return std::any_of(part.steps.begin(), part.steps.end(), [set](const Step& step) {
        return std::find(step.of.begin(), step.of.end(), set) != step.of.end() ||
               std::find(step.by.begin(), step.by.end(), set) != step.by.end();
    });
}

void drop_empty_sets(Part& part) {
    std::erase_if(part.sets, [&](const LineSet& set) {
        return set.lines.empty() && set.role.empty() && !uses(part, set.id);
    });
}

void take_out(Part& part, const std::unordered_set<LineId>& lines) {
    for (LineSet& set : part.sets)
        std::erase_if(set.lines, [&](LineId id) { return lines.contains(id); });
}

Result<std::unordered_set<LineId>> known_lines(const Part& part, const std::vector<LineId>& lines) {
    for (const LineId id : lines)
        if (!find(*part.source.drawing, id)) return no_such(to_say("line"));
    return std::unordered_set<LineId>(lines.begin(), lines.end());
}

} // namespace

PartId add_part(Project& project, std::string name, Source source) {
    auto drawing = std::make_shared<Drawing>(*source.drawing);
    Part part;
    part.id = fresh_id<PartId>(project);
    part.name = std::move(name);
    LineSet all{fresh_id<LineSetId>(project), "all lines", {}, false, {}};
    all.lines.reserve(drawing->lines.size());
    for (DrawnLine& line : drawing->lines) {
        line.id = fresh_id<LineId>(project);
        all.lines.push_back(line.id);
    }
    source.drawing = std::move(drawing);
    part.source = std::move(source);
    part.sets.push_back(std::move(all));
    project.parts.push_back(std::move(part));
    return project.parts.back().id;
}

Result<void> remove_part(Project& project, PartId part) {
    if (!find(project, part)) return no_such(to_say("part"));
    for (const Part& other : project.parts) {
        const auto from = borrows_from(other);
        if (std::find(from.begin(), from.end(), part) != from.end())
            return fail(
                "part.used",
                say("\"%1\" takes lines of \"%2\". Remove that part first, or let it take them from another.",
                    other.name, find(project, part)->name));
    }
    std::erase_if(project.parts, [part](const Part& p) { return p.id == part; });
    for (Sheet& sheet : project.sheets)
        std::erase_if(sheet.placements, [part](const Placement& p) { return p.part == part; });
    return {};
}

Result<void> scale_part(Project& project, PartId id, double factor) {
    Part* part = find(project, id);
    if (!part) return no_such(to_say("part"));
    if (!(factor >= 1e-4 && factor <= 1e4))
        return fail("part.scale", say("The scale must lie between 0.0001 and 10,000."));
    part->scale = factor;
    return {};
}

Result<void> dismiss_note(Project& project, PartId id, const std::string& code, const Phrase& message) {
    Part* part = find(project, id);
    if (!part) return no_such(to_say("part"));
    const auto same = [&](const Finding& note) { return note.code == code && note.message == message; };
    if (std::erase_if(part->source.notes, same) == 0) return no_such(to_say("note"));
    return {};
}

Result<void> rename_part(Project& project, PartId id, std::string name) {
    Part* part = find(project, id);
    if (!part) return no_such(to_say("part"));
    if (name.empty()) return fail("part.name", say("A part needs a name."));
    part->name = std::move(name);
    return {};
}

Result<void> set_quantity(Project& project, PartId id, int quantity) {
    Part* part = find(project, id);
    if (!part) return no_such(to_say("part"));
    if (quantity < 1 || quantity > 9999)
        return fail("part.quantity", say("The quantity must lie between 1 and 9999."));
    part->quantity = quantity;
    return {};
}

LaneId add_lane(Project& project, Lane lane) {
    lane.id = fresh_id<LaneId>(project);
    project.lanes.push_back(std::move(lane));
    return project.lanes.back().id;
}

Result<void> change_lane(Project& project, const Lane& lane) {
    Lane* old = find(project, lane.id);
    if (!old) return no_such(to_say("lane"));
    if (lane.repeats < 1 || lane.repeats > 8)
        return fail("lane.repeats", say("The lines of a lane are run one to eight times."));
    if (const auto ok = check_run(lane.run); !ok) return ok;
    *old = lane;
    return {};
}

Result<void> set_pass_order(Project& project, std::vector<LaneId> order) {
    for (std::size_t i = 0; i < order.size(); ++i) {
        if (!find(project, order[i])) return no_such(to_say("lane"));
        if (std::find(order.begin(), order.begin() + static_cast<std::ptrdiff_t>(i), order[i]) !=
            order.begin() + static_cast<std::ptrdiff_t>(i))
            return fail("lane.twice", say("A lane stands twice in the order."));
    }
    project.pass_order = std::move(order);
    return {};
}

Result<void> remove_lane(Project& project, LaneId lane) {
    if (!find(project, lane)) return no_such(to_say("lane"));
    std::erase_if(project.lanes, [lane](const Lane& l) { return l.id == lane; });
    std::erase(project.pass_order, lane);
    std::erase_if(project.wishes.rules,
                  [lane](const LaneRule& r) { return r.before == lane || r.after == lane; });
    for (Part& part : project.parts) {
        for (LineSet& set : part.sets)
            if (set.lane == lane) set.lane = {};
        for (Step& step : part.steps)
            if (step.lane == lane) step.lane = {};
    }
    return {};
}

Result<void> assign(Project& project, PartId id, const std::vector<LineId>& lines, LaneId lane,
                    std::string set_name) {
    Part* part = find(project, id);
    if (!part) return no_such(to_say("part"));
    if (lane && !find(project, lane)) return no_such(to_say("lane"));
    const auto moving = known_lines(*part, lines);
    if (!moving) return tl::make_unexpected(moving.error());
    if (lines.empty()) return {};
    // A line set that moves whole keeps its identity, so that steps which use it go on working.
    std::unordered_set<LineId> rest = *moving;
    for (LineSet& set : part->sets) {
        const bool whole = !set.lines.empty() && std::all_of(set.lines.begin(), set.lines.end(),
                                                             [&](LineId l) { return rest.contains(l); });
        const bool named = set_name.empty() || set.name == set_name;
        if (!whole || !named) continue;
        if (!uses(*part, set.id) && set.lane != lane && set_name.empty())
            continue; // merges into the lane's own set below
        for (const LineId l : set.lines)
            rest.erase(l);
        set.lane = lane;
        set.set_aside = false;
    }
    if (rest.empty()) return {};
    take_out(*part, rest);
    auto target = std::find_if(part->sets.begin(), part->sets.end(), [&](const LineSet& s) {
        return s.lane == lane && !s.set_aside && (set_name.empty() || s.name == set_name);
    });
    if (target == part->sets.end()) {
        const Lane* l = find(project, lane);
        std::string name = !set_name.empty() ? set_name : l ? l->name : "no lane";
        part->sets.push_back({fresh_id<LineSetId>(project), std::move(name), lane, false, {}});
        target = part->sets.end() - 1;
    }
    target->lines.insert(target->lines.end(), rest.begin(), rest.end());
    std::sort(target->lines.begin(), target->lines.end());
    drop_empty_sets(*part);
    return {};
}

Result<void> change_drawing(Project& project, PartId id, std::shared_ptr<const Drawing> drawing) {
    Part* part = find(project, id);
    if (!part || is_made(*part)) return no_such(to_say("drawing"));
    if (const auto ok = check_numbers(*drawing); !ok) return ok;
    std::unordered_set<LineId> gone;
    for (const DrawnLine& line : part->source.drawing->lines)
        gone.insert(line.id);
    for (const DrawnLine& line : drawing->lines)
        if (gone.erase(line.id) == 0) return no_such(to_say("line"));
    part->source.drawing = std::move(drawing);
    take_out(*part, gone);
    drop_empty_sets(*part);
    return {};
}

Result<LineSetId> gather(Project& project, PartId id, const std::vector<LineId>& lines, std::string name) {
    Part* part = find(project, id);
    if (!part) return no_such(to_say("part"));
    const auto moving = known_lines(*part, lines);
    if (!moving) return tl::make_unexpected(moving.error());
    if (lines.empty()) return fail("step.no-lines", say("Choose lines first."));
    LaneId lane;
    for (const LineSet& set : part->sets) {
        if (std::find(set.lines.begin(), set.lines.end(), lines.front()) == set.lines.end()) continue;
        lane = set.lane;
        if (set.lines.size() == moving->size() &&
            std::all_of(set.lines.begin(), set.lines.end(), [&](LineId l) { return moving->contains(l); }))
            return set.id; // already a set of its own
    }
    take_out(*part, *moving);
    LineSet set{fresh_id<LineSetId>(project), std::move(name), lane, false, lines};
    std::sort(set.lines.begin(), set.lines.end());
    set.lines.erase(std::unique(set.lines.begin(), set.lines.end()), set.lines.end());
    const LineSetId made = set.id;
    part->sets.push_back(std::move(set));
    drop_empty_sets(*part);
    return made;
}

Result<void> set_aside(Project& project, PartId id, LineSetId set_id, bool aside) {
    Part* part = find(project, id);
    if (!part) return no_such(to_say("part"));
    if (LineSet* set = find(*part, set_id)) {
        set->set_aside = aside;
        return {};
    }
    for (Step& step : part->steps)
        if (step.result == set_id && set_id) {
            step.aside = aside;
            return {};
        }
    return no_such(to_say("line set"));
}

Result<StepId> add_step(Project& project, PartId id, Step step) {
    Part* part = find(project, id);
    if (!part) return no_such(to_say("part"));
    if (step.lane && !find(project, step.lane)) return no_such(to_say("lane"));
    if (const auto ok = check_step(*part, step, part->steps.size()); !ok)
        return tl::make_unexpected(ok.error());
    step.id = fresh_id<StepId>(project);
    step.result = kind_of(step.what).makes ? fresh_id<LineSetId>(project) : LineSetId{};
    part->steps.push_back(std::move(step));
    if (const auto ok = check_borrowing(project, id); !ok) {
        part->steps.pop_back();
        return tl::make_unexpected(ok.error());
    }
    settle_roles(project, *part, part->steps.back());
    return part->steps.back().id;
}

Result<void> change_step(Project& project, PartId id, const Step& step) {
    Part* part = find(project, id);
    if (!part) return no_such(to_say("part"));
    if (step.lane && !find(project, step.lane)) return no_such(to_say("lane"));
    for (std::size_t i = 0; i < part->steps.size(); ++i)
        if (part->steps[i].id == step.id) {
            if (const auto ok = check_step(*part, step, i); !ok) return ok;
            Step old = std::exchange(part->steps[i], step);
            const auto ok = check_borrowing(project, id);
            if (!ok)
                part->steps[i] = std::move(old);
            else
                settle_roles(project, *part, step);
            return ok;
        }
    return no_such(to_say("step"));
}

Result<void> remove_step(Project& project, PartId id, StepId step_id) {
    Part* part = find(project, id);
    const Step* step = part ? find(*part, step_id) : nullptr;
    if (!step) return no_such(to_say("step"));
    const auto of_it = [&](const LineSet& set) { return set.step == step_id; };
    if ((step->result && uses(*part, step->result)) ||
        std::any_of(part->sets.begin(), part->sets.end(),
                    [&](const LineSet& set) { return of_it(set) && uses(*part, set.id); }))
        return fail("step.used", say("A later step works on the lines of this one. Remove that step first."));
    std::erase_if(part->sets, of_it);
    std::erase_if(part->steps, [step_id](const Step& s) { return s.id == step_id; });
    drop_empty_sets(*part);
    return {};
}

Result<void> move_step(Project& project, PartId id, StepId step, int to) {
    Part* part = find(project, id);
    if (!part || !find(*part, step)) return no_such(to_say("step"));
    std::vector<Step> order = part->steps;
    const auto from = std::find_if(order.begin(), order.end(), [&](const Step& s) { return s.id == step; });
    const auto moved = *from;
    order.erase(from);
    order.insert(order.begin() + std::clamp<std::ptrdiff_t>(to, 0, std::ssize(order)), moved);
    std::swap(part->steps, order);
    if (const auto ok = check_steps(*part); !ok) {
        std::swap(part->steps, order);
        return fail("step.order", say("A step must stand below the one whose lines it works on."));
    }
    return {};
}

Result<StepId> add_maker(Project& project, PartId part, LaneId lane, StepWhat what,
                         const std::vector<LineSetId>& of, bool keep_sources) {
    const auto added = add_step(project, part, {{}, true, lane, std::move(what), of});
    if (!added || keep_sources) return added;
    for (const LineSetId set : of)
        if (const auto ok = set_aside(project, part, set, true); !ok) return tl::make_unexpected(ok.error());
    return added;
}

Result<void> remove_maker(Project& project, PartId id, StepId step_id) {
    Part* part = find(project, id);
    const Step* step = part ? find(*part, step_id) : nullptr;
    if (!step) return no_such(to_say("step"));
    const std::vector<LineSetId> of = step->of;
    const bool makes = kind_of(step->what).makes;
    if (const auto ok = remove_step(project, id, step_id); !ok) return ok;
    if (makes)
        for (const LineSetId set : of)
            if (!uses(*part, set)) (void)set_aside(project, id, set, false); // it may have gone with the step
    return {};
}

PartId add_made_part(Project& project, std::string name, SourceSpec spec) {
    Part part;
    part.id = fresh_id<PartId>(project);
    part.name = std::move(name);
    part.source.spec = std::move(spec);
    project.parts.push_back(std::move(part));
    return project.parts.back().id;
}

Result<void> change_spec(Project& project, PartId id, SourceSpec spec) {
    Part* part = find(project, id);
    if (!part) return no_such(to_say("part"));
    if (part->source.spec.index() != spec.index())
        return fail("source.kind", say("A part keeps the kind of source that it was made with."));
    RangeCheck ranges;
    fields(spec, ranges);
    if (const auto ok = ranges.result(); !ok) return ok;
    std::swap(part->source.spec, spec);
    const auto ok = check_borrowing(project, id);
    if (!ok) std::swap(part->source.spec, spec);
    return ok;
}

Result<LineSetId> add_role(Project& project, PartId id, std::string role, LaneId lane, bool aside) {
    Part* part = find(project, id);
    if (!part) return no_such(to_say("part"));
    if (const LineSet* set = set_of(*part, {}, role)) return set->id;
    part->sets.push_back({fresh_id<LineSetId>(project), role, lane, aside, {}, role});
    return part->sets.back().id;
}

Result<void> set_lane(Project& project, PartId id, LineSetId set_id, LaneId lane) {
    Part* part = find(project, id);
    if (!part) return no_such(to_say("part"));
    if (lane && !find(project, lane)) return no_such(to_say("lane"));
    if (LineSet* set = find(*part, set_id)) {
        set->lane = lane;
        set->set_aside = false;
        return {};
    }
    for (Step& step : part->steps)
        if (step.result == set_id && set_id) {
            step.lane = lane;
            step.aside = false;
            return {};
        }
    return no_such(to_say("line set"));
}

Result<void> check_borrowing(const Project& project, PartId id) {
    // Depth first along what is taken: back at the part means that it waits for itself.
    std::vector<PartId> waiting{id}, seen;
    while (!waiting.empty()) {
        const Part* part = find(project, waiting.back());
        waiting.pop_back();
        if (!part) return no_such(to_say("part"));
        for (const PartId from : borrows_from(*part)) {
            if (from == id)
                return fail("part.circle", say("\"%1\" would take lines of a part that takes lines of it.",
                                               find(project, id)->name));
            if (std::find(seen.begin(), seen.end(), from) != seen.end()) continue;
            seen.push_back(from), waiting.push_back(from);
        }
    }
    return {};
}

} // namespace dotlane
