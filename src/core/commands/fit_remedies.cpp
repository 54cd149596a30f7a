// Remedies of what does not fit: turned, placed anew, made of panels.
#include <algorithm>

#include "core/checks/fit_checks.h"
#include "core/commands/remedies.h"
#include "core/project/edits.h"

namespace dotlane {
namespace {

/// The placement turned so, its outline in the middle of the area.
Placement in_the_middle(Placement p, const EvaluatedPart& part, Angle turn, const Box& area) {
    p.turn = turn;
    const Affine to_sheet = placement_transform(p, extent_of(part, p.piece));
    Box box;
    for (const Point corner : outline_hull(part, p.piece))
        box.add(to_sheet(corner));
    p.left += mm(area.centre().x - box.centre().x), p.top += mm(area.centre().y - box.centre().y);
    return p;
}

} // namespace

Result<void> turn_to_fit(Project& project, const Catalog& catalog, const Derived& derived,
                         const Finding& finding) {
    const EvaluatedPart* part = derived.part(finding.place.part);
    if (!part) return fail("remedy.none", say("The part is gone."));
    bool placed = false, turned = false;
    for (const LaidSheet& laid : derived.sheets) {
        if (finding.place.sheet && finding.place.sheet != laid.sheet) continue;
        for (const PlacedPart& p : laid.parts) {
            if (p.placement.part != part->part) continue;
            placed = true;
            // Only what runs out, and of a finding on a sheet the one that it tells of.
            if (laid.usable.grown(1e-6).contains(p.outline) || p.placement.group != 0) continue;
            if (finding.place.sheet && place_of(p.outline) != finding.place.box) continue;
            const auto fit =
                fit_within(mirrored(outline_hull(*part, p.placement.piece), p.placement.mirrored),
                           laid.usable.width(), laid.usable.height());
            if (!fit) continue;
            const Placement now = in_the_middle(p.placement, *part, fit->best, laid.usable);
            if (const auto ok = change_placement(project, now); !ok) return ok;
            turned = true;
        }
    }
    if (turned) return {};
    if (placed)
        return fail("remedy.none", say("It does not fit the sheet it lies on, or is grouped with others: "
                                       "take it off and place it anew."));
    const auto fits = fits_of(project, catalog, *part);
    if (fits.empty()) return fail("remedy.none", say("It fits no sheet any more."));
    const SheetFit& fit = fits.front();
    const SheetId sheet =
        add_sheet(project, "sheet " + std::to_string(project.sheets.size() + 1), fit.stock->id, fit.mat->id);
    Placement p;
    p.part = part->part;
    return place(project, sheet, in_the_middle(p, *part, fit.turned.best, usable_area(*fit.mat, *fit.stock)))
        .map([](PlacementId) {});
}

Result<void> make_panels(Project& project, const Finding& finding) {
    const Part* part = find(project, finding.place.part);
    const auto* card = part ? std::get_if<FoldedCard>(&part->source.spec) : nullptr;
    if (!card) return fail("remedy.none", say("The card is gone."));
    FoldedCard hinged = *card;
    hinged.hinge = usual_hinge;
    Project next = project;
    if (const auto ok = change_spec(next, part->id, hinged); !ok) return ok;
    const auto lies_apart = [](const Step& s) { return std::holds_alternative<ApartStep>(s.what); };
    if (std::none_of(part->steps.begin(), part->steps.end(), lies_apart))
        if (const auto step = add_step(next, part->id, {{}, true, {}, ApartStep{}}); !step)
            return tl::make_unexpected(step.error());
    project = std::move(next);
    return {};
}

} // namespace dotlane
