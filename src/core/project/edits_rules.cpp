// What holds for every project, whoever made it.
#include <cmath>
#include <unordered_set>

#include "core/project/edit_checks.h"
#include "core/project/edits.h"
#include "core/project/found_marks.h"

namespace dotlane {
namespace {

/// Whether a step at this position of the recipe may name the set: a line set of the source, or the result of
/// a step before it.
bool may_name(const Part& part, LineSetId id, std::size_t position) {
    const LineSet* set = find(part, id);
    if (set && !set->step) return true;
    for (std::size_t i = 0; i < position; ++i)
        if (id && (part.steps[i].result == id || (set && set->step == part.steps[i].id))) return true;
    return false;
}

} // namespace

Result<void> check_step(const Part& part, const Step& step, std::size_t position) {
    RangeCheck ranges;
    StepWhat what = step.what;
    fields(what, ranges);
    if (const auto ok = ranges.result(); !ok) return fail("step.range", ok.error().message);
    const StepKind& kind = kind_of(step.what);
    if (kind.makes && step.of.empty() && !kind.brings)
        return fail("step.no-lines", say("%1 needs lines: choose closed lines first.", word(kind)));
    if (kind.second == StepKind::Second::wanted && step.by.empty())
        return fail("step.no-lines", say("%1 needs a second choice of lines.", word(kind)));
    for (const auto* list : {&step.of, &step.by})
        for (const LineSetId id : *list)
            if (!may_name(part, id, position)) return no_such(to_say("line set before this step"));
    return {};
}

Result<void> check_steps(const Part& part) {
    for (std::size_t i = 0; i < part.steps.size(); ++i)
        if (const auto ok = check_step(part, part.steps[i], i); !ok) return ok;
    return {};
}

Result<void> check_found(const std::vector<Point>& found) {
    if (!found.empty() && found.size() != 6)
        return fail("sheet.marks", say("Three marks that were printed are found in three places."));
    for (const Point p : found)
        if (!(std::abs(p.x) <= 5000 && std::abs(p.y) <= 5000))
            return fail("sheet.marks", say("A mark lies off every mat."));
    return {};
}

Result<void> check_numbers(const Project& project) {
    const auto wrong = [](const std::string& where, const Phrase& what) {
        return fail("project.number", say("\"%1\" cannot be kept: %2", where, what));
    };
    for (const Part& part : project.parts) {
        const auto numbers = check_numbers(*part.source.drawing);
        if (!numbers) return wrong(part.name, numbers.error().message);
        if (!std::isfinite(part.scale)) return wrong(part.name, say("its scale is not a number."));
    }
    for (const Sheet& sheet : project.sheets)
        for (const Placement& p : sheet.placements)
            if (const auto ok = check_placement(project, p); !ok)
                return wrong(sheet.name, ok.error().message);
    return {};
}

Result<void> check_rules(const Project& project) {
    std::unordered_set<std::uint32_t> ids;
    const auto take = [&](auto id) {
        return id.value > 0 && id.value < project.next_id && ids.insert(id.value).second;
    };
    const auto broken = [](const Phrase& what) {
        return fail("project.rules", say("The project is damaged: %1.", what));
    };
    for (const Lane& lane : project.lanes) {
        if (!take(lane.id)) return broken(say("a lane's number is used twice"));
        if (lane.repeats < 1 || lane.repeats > 8) return broken(say("a lane's repeats are out of range"));
        if (!check_run(lane.run)) return broken(say("how a lane's lines are run is out of range"));
    }
    for (const LaneId lane : project.pass_order)
        if (!find(project, lane)) return broken(say("the pass order names a lane that does not exist"));
    if (!check_wishes(project, project.wishes)) return broken(say("its wished order cannot be kept"));
    for (const Part& part : project.parts) {
        if (!take(part.id)) return broken(say("a part's number is used twice"));
        if (!(part.one_colour >= 0 && part.one_colour <= 50))
            return broken(say("colours that count as one are out of range"));
        if (!(part.scale >= 1e-4 && part.scale <= 1e4)) return broken(say("a part's scale is out of range"));
        if (part.quantity < 1 || part.quantity > 9999)
            return broken(say("a part's quantity is out of range"));
        if (!check_borrowing(project, part.id))
            return broken(say("\"%1\" takes lines of no part", part.name));
        LineId last;
        for (const DrawnLine& line : part.source.drawing->lines) {
            if (!take(line.id) || line.id < last)
                return broken(say("the lines of \"%1\" are out of order", part.name));
            last = line.id;
        }
        std::unordered_set<LineId> assigned;
        RangeCheck ranges;
        SourceSpec spec = part.source.spec;
        fields(spec, ranges);
        if (const auto ok = ranges.result(); !ok) return broken(ok.error().message);
        for (const LineSet& set : part.sets) {
            if (set.step && (set.role.empty() || !find(part, set.step)))
                return broken(say("a line set is of a step that does not exist"));
            if (!set.role.empty() && !set.step && !is_made(part))
                return broken(say("a line set of a drawing names a role"));
            if (!take(set.id)) return broken(say("a line set's number is used twice"));
            if (set.lane && !find(project, set.lane))
                return broken(say("a line set names a lane that does not exist"));
            for (const LineId line : set.lines)
                if (!find(*part.source.drawing, line) || !assigned.insert(line).second)
                    return broken(say("a line of \"%1\" is in two line sets or in none", part.name));
        }
        if (assigned.size() != part.source.drawing->lines.size())
            return broken(say("a line of \"%1\" is in no line set", part.name));
        for (const Step& step : part.steps) {
            if (!take(step.id)) return broken(say("a step's number is used twice"));
            if (step.lane && !find(project, step.lane))
                return broken(say("a step names a lane that does not exist"));
            if (step.result && !take(step.result)) return broken(say("a line set's number is used twice"));
            const auto roles = roles_of(step.what);
            if (kind_of(step.what).makes != static_cast<bool>(step.result) ||
                std::any_of(roles.begin(), roles.end(),
                            [&](const char* role) { return !set_of(part, step.id, role); }))
                return broken(say("a step has no line set for its lines"));
        }
        if (const auto ok = check_steps(part); !ok) return ok;
    }
    for (const Sheet& sheet : project.sheets) {
        if (!take(sheet.id)) return broken(say("a sheet's number is used twice"));
        if (const auto ok = check_found(sheet.found); !ok) return broken(ok.error().message);
        for (const Placement& p : sheet.placements) {
            if (!take(p.id)) return broken(say("a placement's number is used twice"));
            if (const auto ok = check_placement(project, p); !ok) return ok;
        }
    }
    return {};
}

} // namespace dotlane
