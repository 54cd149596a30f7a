// Remedies of narrow places and of marks beyond what is cut out: ordinary edits of source values.
#include <algorithm>
#include <set>

#include "core/checks/piece_checks.h"
#include "core/commands/remedies.h"
#include "core/derive/workshop.h"
#include "core/project/edits.h"
#include "core/project/pieces_text.h"
#include "core/recipe/step.h"

namespace dotlane {
namespace {

Result<void> add(Project& project, const Finding& finding, StepWhat what, LaneId lane = {}) {
    std::vector<LineSetId> of;
    if (finding.place.line_set) of.push_back(finding.place.line_set);
    return add_step(project, finding.place.part, {{}, true, lane, std::move(what), of}).map([](StepId) {});
}
Error gone() {
    return {"remedy.none", say("The lines are gone.")};
}

} // namespace

Result<void> open_narrow(Project& project, const Finding& finding) {
    const auto least = number_argument(finding, "least_mm");
    const Part* part = find(project, finding.place.part);
    if (!part || !least) return tl::make_unexpected(gone());
    std::vector<LineSetId> of = {finding.place.line_set};
    if (!of.front()) { // many places: of everything that is cut
        of.clear();
        const auto cut = [&](LaneId id) {
            const Lane* lane = find(project, id);
            return lane && parts_material(lane->action);
        };
        for (const LineSet& set : part->sets)
            if (!set.set_aside && cut(set.lane)) of.push_back(set.id);
        for (const Step& step : part->steps)
            if (step.result && !step.aside && cut(step.lane)) of.push_back(step.result);
    }
    const CleanStep clean{{}, mm(*least), {}, {}, false};
    return add_step(project, part->id, {{}, true, {}, clean, of}).map([](StepId) {});
}

Result<void> thicken(Project& project, const Finding& finding) {
    const Part* part = find(project, finding.place.part);
    const LineSetId id = finding.place.line_set;
    if (!part || !id) return tl::make_unexpected(gone());
    const LineSet* set = find(*part, id);
    const Step* maker = maker_of(*part, id);
    if (!set && !maker) return tl::make_unexpected(gone());
    OutlineStep outline;
    outline.distance = mm(number_argument(finding, "thicker_mm").value_or(0.3));
    outline.outer_only = false;
    Project next = project;
    if (const auto ok = add(next, finding, outline, set ? set->lane : maker->lane); !ok) return ok;
    if (const auto ok = set_aside(next, finding.place.part, id, true); !ok) return ok;
    project = std::move(next);
    return {};
}

Result<void> drop_piece(Project& project, const Derived& derived, const Finding& finding) {
    const EvaluatedPart* part = derived.part(finding.place.part);
    if (!part || !finding.place.line_set) return tl::make_unexpected(gone());
    WorkSet set{finding.place.line_set};
    for (const FlatLine& line : part->lines)
        if (line.set == finding.place.line_set) set.lines.push_back(line);
    // The step numbers them itself: what it would do to nothing tells which is which.
    const StepOutcome tried = run_step(PiecesStep{}, {{&set}, {}, part->box, {}}, no_progress());
    const PlaceBox& place = finding.place.box;
    const Box wanted{place.x0, place.y0, place.x1, place.y1};
    std::set<int> drop;
    for (std::size_t i = 0; i < tried.report.pieces.size(); ++i) {
        const Box box = bounds(tried.report.pieces[i].region);
        if (wanted.grown(0.05).contains(Point{box.x0, box.y0}) &&
            wanted.grown(0.05).contains(Point{box.x1, box.y1}))
            drop.insert(static_cast<int>(i) + 1);
    }
    if (drop.empty())
        return fail("remedy.none",
                    say("It is what several lines leave between them: move or remove one of them."));
    return add(project, finding, PiecesStep{piece_text(drop)});
}

Result<void> bring_marks_in(Project& project, const Finding& finding) {
    const PartId id = finding.place.part;
    Part* part = find(project, id);
    if (!part) return fail("remedy.none", say("The part is gone."));
    const std::string& code = finding.remedy.code;
    const double factor = number_argument(finding, "factor").value_or(1);
    if (code == "beyond.wrap") return fail("remedy.none", say("There is no blank to break it at."));
    if (!finding.place.line_set) return tl::make_unexpected(gone());
    StepWhat what = TurnStep{degrees(90)};
    if (code == "beyond.smaller") what = ResizeStep{ResizeStep::By::percent, mm(100), factor * 100};
    return add(project, finding, std::move(what));
}

} // namespace dotlane
