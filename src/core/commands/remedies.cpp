// Each remedy is an ordinary edit of source values, undoable like any other.
#include <algorithm>
#include <optional>

#include "core/checks/fit_checks.h"
#include "core/checks/piece_checks.h"
#include "core/checks/project_checks.h"
#include "core/commands/drawn_parts.h"
#include "core/commands/placing.h"
#include "core/commands/remedies.h"
#include "core/commands/sheets.h"
#include "core/derive/workshop.h"
#include "core/project/edits.h"

namespace dotlane {
namespace {

/// A remedy of a finding that a step itself raised. Nothing when it is not one of those.
std::optional<Result<void>> mend_step(Project& project, const Finding& finding, const Derived& derived) {
    const Part* part = find(project, finding.place.part);
    const Step* found = part ? find(*part, finding.place.step) : nullptr;
    if (part && finding.place.step && !found)
        return fail("remedy.none", "The step is gone; there is nothing to mend.");
    if (!found) return std::nullopt;
    const EvaluatedPart* evaluated = derived.part(part->id);
    Step step = *found;
    if (!mend(step.what, finding, evaluated ? ink_of(*evaluated, step.id) : nullptr)) return std::nullopt;
    return change_step(project, part->id, step);
}

Result<void> bring_in(Project& project, const Derived& derived, const Finding& finding) {
    const LaidSheet* laid = derived.sheet(finding.place.sheet);
    if (!laid) return fail("remedy.none", "The sheet is gone.");
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
    return fail("remedy.none", "The part has been moved since.");
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
    if (!mover) return fail("remedy.none", "The part has been moved since.");
    if (mover->placement.group != 0)
        return fail("remedy.none", "It is grouped with others. Move the group, or ungroup it first.");
    const Placement old = mover->placement;
    Project next = project;
    if (const auto ok = remove_placement(next, old.id); !ok) return ok;
    const auto placed =
        place_free(next, catalog, derived, laid->sheet, {old.part, old.piece, old.turn, old.mirrored});
    if (!placed) return tl::make_unexpected(placed.error());
    project = std::move(next);
    return {};
}

Result<void> place_part(Project& project, const Catalog& catalog, const Derived& derived,
                        const Finding& finding) {
    if (project.sheets.empty())
        if (const auto added = apply(AddSheet{}, project, catalog); !added)
            return tl::make_unexpected(added.error());
    const SheetId sheet = project.sheets.back().id;
    if (const EvaluatedPart* part = derived.part(finding.place.part))
        if (const auto missing = missing_pieces(project, *part); !missing.empty())
            return place_pieces(project, catalog, derived, sheet, part->part, missing).map([](const auto&) {
            });
    return place_free(project, catalog, derived, sheet, {finding.place.part}).map([](const auto&) {});
}

/// The number stands in the finding: pieces that lie apart make a part only together.
Result<void> want_placed(Project& project, const Finding& finding) {
    const auto placed = number_argument(finding, "placed");
    if (!placed) return fail("remedy.none", "There is nothing to count.");
    return set_quantity(project, finding.place.part, static_cast<int>(*placed));
}

Result<void> take_off_missing(Project& project, const Derived& derived, const Finding& finding) {
    Sheet* sheet = find(project, finding.place.sheet);
    const EvaluatedPart* part = derived.part(finding.place.part);
    if (!sheet || !part) return fail("remedy.none", "The sheet or the part is gone.");
    std::erase_if(sheet->placements, [&](const Placement& p) {
        return p.part == finding.place.part && !is_there(*part, p.piece);
    });
    return {};
}

} // namespace

Result<void> apply_remedy(Project& project, const Catalog& catalog, const Derived& derived,
                          const Finding& finding) {
    const std::string& code = finding.remedy.code;
    if (code == "set-aside") return set_aside(project, finding.place.part, finding.place.line_set, true);
    if (auto mended = mend_step(project, finding, derived)) return std::move(*mended);
    if (code == "clean.doubled")
        return add_step(project, finding.place.part,
                        {{}, true, {}, CleanStep{{}, {}, {}, {}, true}, {finding.place.line_set}})
            .map([](StepId) {});
    if (code == "clean.narrow") return open_narrow(project, finding);
    if (code == "piece.thicken") return thicken(project, finding);
    if (code == "lines.join")
        return add_step(project, finding.place.part, {{}, true, {}, JoinStep{}, {finding.place.line_set}})
            .map([](StepId) {});
    if (code == "piece.drop") return drop_piece(project, derived, finding);
    if (code.starts_with("beyond.")) return bring_marks_in(project, finding);
    if (code == "clean.close") {
        const auto widest = number_argument(finding, "widest_mm");
        if (!widest) return fail("remedy.none", "The gap is gone.");
        const CleanStep close{{}, {}, {}, mm(*widest * 1.05 + 0.01), false};
        const auto of =
            finding.place.line_set ? std::vector{finding.place.line_set} : std::vector<LineSetId>{};
        return add_step(project, finding.place.part, {{}, true, {}, close, of}).map([](StepId) {});
    }
    if (code == "text.legible") {
        Part* part = find(project, finding.place.part);
        auto* spec = part ? std::get_if<Lettering>(&part->source.spec) : nullptr;
        if (!spec) return fail("remedy.none", "The lettering is gone.");
        if (const auto least = number_argument(finding, "least_mm")) spec->size = mm(*least);
        return {};
    }
    if (code == "step.off") {
        const Part* part = find(project, finding.place.part);
        const Step* step = part ? find(*part, finding.place.step) : nullptr;
        if (!step) return fail("remedy.none", "The step is gone.");
        Step off = *step;
        off.on = false;
        return change_step(project, part->id, off);
    }
    if (code == "sheet.move-free") return move_free(project, catalog, derived, finding);
    if (code == "sheet.bring-in") return bring_in(project, derived, finding);
    if (const auto choice = stray_choice(code)) return settle_strays(project, finding.place.part, *choice);
    if (code == "note.dismiss")
        return dismiss_note(project, finding.place.part, finding.code, finding.message);
    if (code == "order.usual") return set_pass_order(project, {});
    if (code == "part.want-placed") return want_placed(project, finding);
    if (code == "sheet.take-off") return take_off_missing(project, derived, finding);
    if (code == "part.lay-apart") return lay_out_pieces(project, catalog, derived, finding.place.part);
    if (code == "part.turn-to-fit") return turn_to_fit(project, catalog, derived, finding);
    if (code == "card.panels") return make_panels(project, finding);
    if (code == "part.place") return place_part(project, catalog, derived, finding);
    return fail("remedy.none", "This finding has no remedy.");
}

} // namespace dotlane
