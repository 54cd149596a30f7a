// Each remedy is an ordinary edit of source values, undoable like any other.
#include <algorithm>
#include <optional>
#include <set>

#include "core/checks/fit_checks.h"
#include "core/checks/piece_checks.h"
#include "core/checks/project_checks.h"
#include "core/commands/arranging.h"
#include "core/commands/drawn_parts.h"
#include "core/commands/filling.h"
#include "core/commands/placing.h"
#include "core/commands/remedies.h"
#include "core/commands/sheets.h"
#include "core/commands/steps.h"
#include "core/derive/workshop.h"
#include "core/project/edits.h"

namespace dotlane {
namespace {

/// A remedy of a finding that a step itself raised. Nothing when it is not one of those.
std::optional<Result<void>> mend_step(Project& project, const Finding& finding, const Derived& derived) {
    const Part* part = find(project, finding.place.part);
    const Step* found = part ? find(*part, finding.place.step) : nullptr;
    if (part && finding.place.step && !found)
        return fail("remedy.none", say("The step is gone; there is nothing to mend."));
    if (!found) return std::nullopt;
    const EvaluatedPart* evaluated = derived.part(part->id);
    Step step = *found;
    if (!mend(step.what, finding, evaluated ? ink_of(*evaluated, step.id) : nullptr)) return std::nullopt;
    return change_step(project, part->id, step);
}

Result<void> bring_in(Project& project, const Derived& derived, const Finding& finding) {
    const LaidSheet* laid = derived.sheet(finding.place.sheet);
    if (!laid) return fail("remedy.none", say("The sheet is gone."));
    for (const PlacedPart& p : laid->parts) {
        const Box& b = p.outline;
        if (b.x0 != finding.place.box.x0 || b.y0 != finding.place.box.y0 ||
            p.placement.part != finding.place.part)
            continue;
        Placement moved = p.placement;
        const auto shift = [](double lo, double hi, double a, double z) {
            return lo < a ? a - lo : hi > z ? z - hi : 0.0;
        };
        moved.left += mm(shift(b.x0, b.x1, laid->usable.x0, laid->usable.x1));
        moved.top += mm(shift(b.y0, b.y1, laid->usable.y0, laid->usable.y1));
        return change_placement(project, moved);
    }
    return fail("remedy.none", say("The part has been moved since."));
}

/// What lies on something else goes to a free place, with what is grouped with it, or to a further sheet.
Result<void> move_free(Project& project, const Catalog& catalog, const Derived& derived,
                       const Finding& finding) {
    const LaidSheet* laid = derived.sheet(finding.place.sheet);
    const PlaceBox& at = finding.place.box;
    const PlacedPart* mover = nullptr;
    if (laid)
        for (const PlacedPart& p : laid->parts) // the one placed last makes room
            if (p.placement.part == finding.place.part && p.box.meets({at.x0, at.y0, at.x1, at.y1}))
                mover = &p;
    if (!mover) return fail("remedy.none", say("The part has been moved since."));
    if (mover->placement.group != 0)
        return fail("remedy.none", say("It is grouped with others. Move the group, or ungroup it first."));
    const Placement old = mover->placement;
    Project next = project;
    if (const auto ok = remove_placement(next, old.id); !ok) return ok;
    const PlacePart free{laid->sheet, {old.part, old.piece, old.turn, old.mirrored}};
    if (const auto placed = apply(free, next, catalog, derived); !placed)
        return tl::make_unexpected(placed.error());
    project = std::move(next);
    return {};
}

/// Copies of the part that are mirrored where they lie are mirrored back, each in its place.
Result<void> mirror_once(Project& project, const Catalog& catalog, const Derived& derived,
                         const Finding& finding) {
    const LaidSheet* laid = derived.sheet(finding.place.sheet);
    Project next = project;
    bool some = false;
    if (laid)
        for (const PlacedPart& p : laid->parts)
            if (p.placement.part == finding.place.part && p.placement.mirrored) {
                some = true;
                const auto done = apply(MirrorPlaced{{{p.placement.id}}}, next, catalog, derived);
                if (!done) return tl::make_unexpected(done.error());
            }
    if (!some) return fail("remedy.none", say("It is mirrored once already."));
    project = std::move(next);
    return {};
}

Result<void> place_part(Project& project, const Catalog& catalog, const Derived& derived,
                        const Finding& finding) {
    if (project.sheets.empty())
        if (const auto added = apply(AddSheet{}, project, catalog); !added)
            return tl::make_unexpected(added.error());
    return apply(PlacePart{project.sheets.back().id, {finding.place.part}}, project, catalog, derived)
        .map([](const Done&) {});
}

/// The number stands in the finding: pieces that lie apart make a part only together.
Result<void> want_placed(Project& project, const Finding& finding) {
    const auto placed = number_argument(finding, "placed");
    if (!placed) return fail("remedy.none", say("There is nothing to count."));
    return set_quantity(project, finding.place.part, static_cast<int>(*placed));
}

Result<void> take_off_missing(Project& project, const Derived& derived, const Finding& finding) {
    Sheet* sheet = find(project, finding.place.sheet);
    const EvaluatedPart* part = derived.part(finding.place.part);
    if (!sheet || !part) return fail("remedy.none", say("The sheet or the part is gone."));
    std::erase_if(sheet->placements, [&](const Placement& p) {
        return p.part == finding.place.part && !is_there(*part, p.piece);
    });
    return {};
}

struct Mending {
    Project& project;
    const Catalog& catalog;
    const Derived& derived;
    const Finding& finding;
};

Result<void> add(const Mending& m, StepWhat what) {
    std::vector<LineSetId> of;
    if (m.finding.place.line_set) of.push_back(m.finding.place.line_set);
    return add_step(m.project, m.finding.place.part, {{}, true, {}, std::move(what), of}).map([](StepId) {});
}

Result<void> close_gaps(const Mending& m) {
    const auto widest = number_argument(m.finding, "widest_mm");
    if (!widest) return fail("remedy.none", say("The gap is gone."));
    return add(m, CleanStep{{}, {}, {}, mm(*widest * 1.05 + 0.01), false});
}

Result<void> make_legible(const Mending& m) {
    Part* part = find(m.project, m.finding.place.part);
    auto* spec = part ? std::get_if<Lettering>(&part->source.spec) : nullptr;
    if (!spec) return fail("remedy.none", say("The lettering is gone."));
    if (const auto least = number_argument(m.finding, "least_mm")) spec->size = mm(*least);
    return {};
}

/// The own rules that lead from one lane to another, through others too.
std::vector<LaneRule> rules_between(const std::vector<LaneRule>& rules, LaneId from, LaneId to) {
    const auto reached = [&](LaneId start, LaneId LaneRule::*enter, LaneId LaneRule::*leave) {
        std::set<LaneId> out{start};
        for (std::size_t before = 0; before != out.size();) {
            before = out.size();
            for (const LaneRule& rule : rules)
                if (out.contains(rule.*enter)) out.insert(rule.*leave);
        }
        return out;
    };
    const std::set<LaneId> after = reached(from, &LaneRule::before, &LaneRule::after),
                           before = reached(to, &LaneRule::after, &LaneRule::before);
    std::vector<LaneRule> out;
    for (const LaneRule& rule : rules)
        if (after.contains(rule.before) && before.contains(rule.after)) out.push_back(rule);
    return out;
}

/// Own rules go before the planner's: where nobody chose the order of passes, it is they that broke one.
/// Those that did go, the others stay; where they did it together with the planner's, those that touch either
/// lane.
Result<void> in_usual_order(const Mending& m) {
    if (!m.project.pass_order.empty()) return set_pass_order(m.project, {});
    LaneId early, late;
    for (const Lane& lane : m.project.lanes)
        for (const auto& [key, value] : m.finding.args)
            if (value == plate(m.project, lane.id)) (key == "late" ? late : early) = lane.id;
    PlanWishes wishes = m.project.wishes;
    std::vector<LaneRule> gone = rules_between(wishes.rules, early, late);
    if (gone.empty())
        for (const LaneRule& rule : wishes.rules)
            if (rule.before == early || rule.after == late) gone.push_back(rule);
    std::erase_if(wishes.rules, [&](const LaneRule& rule) {
        return gone.empty() || std::find(gone.begin(), gone.end(), rule) != gone.end();
    });
    return set_wishes(m.project, std::move(wishes));
}

Result<void> by_colour(const Mending& m) {
    return drawing_apart(m.project, m.finding.place.part, ApartBy::colour).map([](const auto&) {});
}

Result<void> switch_off(const Mending& m) {
    return apply(ChangeStep{m.finding.place.part, m.finding.place.step, {}, false}, m.project, m.catalog)
        .map([](const Done&) {})
        .map_error([](const Error&) {
            return Error{"remedy.none", say("The step is gone."), {}};
        });
}

Result<void> settle(const Mending& m) {
    return settle_strays(m.project, m.finding.place.part, *stray_choice(m.finding.remedy.code));
}

/// All that the findings of checks offer; what a step offers for its own findings it does itself.
const std::pair<std::string_view, Result<void> (*)(const Mending&)> remedies[] = {
    {"fill.anew",
     [](const Mending& m) {
         const EvaluatedPart* part = m.derived.part(m.finding.place.part);
         if (!part) return Result<void>(fail("remedy.none", say("The fill is gone.")));
         return fill_anew(m.project, m.catalog, *part, m.finding);
     }},
    {"set-aside",
     [](const Mending& m) {
         return set_aside(m.project, m.finding.place.part, m.finding.place.line_set, true);
     }},
    {"clean.doubled",
     [](const Mending& m) {
         return add(m, CleanStep{{}, {}, {}, {}, true});
     }},
    {"clean.narrow", [](const Mending& m) { return open_narrow(m.project, m.finding); }},
    {"clean.close", close_gaps},
    {"piece.thicken", [](const Mending& m) { return thicken(m.project, m.finding); }},
    {"piece.drop", [](const Mending& m) { return drop_piece(m.project, m.derived, m.finding); }},
    {"lines.join", [](const Mending& m) { return add(m, JoinStep{}); }},
    {"beyond.smaller", [](const Mending& m) { return bring_marks_in(m.project, m.finding); }},
    {"beyond.turn", [](const Mending& m) { return bring_marks_in(m.project, m.finding); }},
    {"beyond.wrap", [](const Mending& m) { return bring_marks_in(m.project, m.finding); }},
    {"text.legible", make_legible},
    {"step.off", switch_off},
    {"sheet.move-free",
     [](const Mending& m) { return move_free(m.project, m.catalog, m.derived, m.finding); }},
    {"apart.fabrics", by_colour},
    {"apart.colours", by_colour},
    {"sheet.unmirror",
     [](const Mending& m) { return mirror_once(m.project, m.catalog, m.derived, m.finding); }},
    {"sheet.bring-in", [](const Mending& m) { return bring_in(m.project, m.derived, m.finding); }},
    {"sheet.take-off", [](const Mending& m) { return take_off_missing(m.project, m.derived, m.finding); }},
    {"stray.drop", settle},
    {"stray.near", settle},
    {"stray.keep", settle},
    {"note.dismiss",
     [](const Mending& m) {
         return dismiss_note(m.project, m.finding.place.part, m.finding.code, m.finding.message);
     }},
    {"order.usual", in_usual_order},
    {"order.whole-sheets",
     [](const Mending& m) {
         PlanWishes wishes = m.project.wishes;
         wishes.school = School::sheets;
         return set_wishes(m.project, std::move(wishes));
     }},
    {"part.place", [](const Mending& m) { return place_part(m.project, m.catalog, m.derived, m.finding); }},
    {"part.want-placed", [](const Mending& m) { return want_placed(m.project, m.finding); }},
    {"part.lay-apart",
     [](const Mending& m) {
         return apply(LayOutPieces{m.finding.place.part}, m.project, m.catalog, m.derived)
             .map([](const Done&) {});
     }},
    {"part.turn-to-fit",
     [](const Mending& m) { return turn_to_fit(m.project, m.catalog, m.derived, m.finding); }},
    {"card.panels", [](const Mending& m) { return make_panels(m.project, m.finding); }},
};

Result<void> mend(Project& project, const Catalog& catalog, const Derived& derived, const Finding& finding) {
    const std::string& code = finding.remedy.code;
    if (code != "set-aside")
        if (auto mended = mend_step(project, finding, derived)) return std::move(*mended);
    for (const auto& [known, mend] : remedies)
        if (known == code) return mend({project, catalog, derived, finding});
    return fail("remedy.none", say("This finding has no remedy."));
}

} // namespace

Result<Done> apply(const MendFinding& command, Project& project, const Catalog& catalog,
                   const Derived& derived) {
    const Finding& finding = command.finding;
    Project next = project;
    const Result<void> mended = mend(next, catalog, derived, finding);
    if (!mended) return tl::make_unexpected(mended.error());
    project = std::move(next);
    return Done{finding.remedy.label, finding.place.part, finding.place.sheet, finding.place.step};
}

std::string owner_of(const Project& project, const Finding& finding) {
    const Part* part = find(project, finding.place.part);
    const Sheet* sheet = find(project, finding.place.sheet);
    if (!part && !sheet) return "";
    const std::string& name = part ? part->name : sheet->name;
    // Parts are named in quotes, sheets as they are.
    const bool named = finding.message.english().find(part ? '"' + name + '"' : name) != std::string::npos;
    return named ? "" : name;
}

bool has_remedy(std::string_view code) {
    return std::any_of(std::begin(remedies), std::end(remedies),
                       [code](const auto& row) { return row.first == code; });
}

} // namespace dotlane
