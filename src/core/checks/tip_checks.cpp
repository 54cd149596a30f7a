#include "core/checks/tip_checks.h"

#include "core/checks/findings.h"
#include "core/checks/part_checks.h"
#include "core/recipe/seams.h"
#include "core/sources/make.h"

namespace dotlane {
namespace {

FindingPlace place(const EvaluatedPart& part, const RunSet& run) {
    return {part.part, {}, run.set, {}, place_of(bounds(run.lines))};
}

/// An E has three bars and two gaps: under five widths of the tip they run into each other.
void small_text(const Project& scope, const Catalog& catalog, const EvaluatedPart& made, Findings& out) {
    const Part* part = find(scope, made.part);
    const auto* spec = part ? std::get_if<Lettering>(&part->source.spec) : nullptr;
    if (!spec || resized(*part)) return;
    double capitals = 0;
    for (const Figure& f : made.figures)
        if (std::string_view(f.key) == "capitals") capitals = f.value;
    for (const RunSet& run : made.runs) {
        const Lane* lane = find(scope, run.lane);
        const Tool* tool = lane ? catalog.tool(lane->tool) : nullptr;
        if (run.step || !tool || lane->action == Action::cut || capitals <= 0) continue;
        const double least = 5 * in_mm(tool->tip);
        if (capitals >= least) continue;
        auto told = checks::text_small(place(made, run), {capitals}, {in_mm(tool->tip)}, {least});
        out.push_back(with_remedies_if(spec->sized_by == Lettering::SizedBy::capitals, std::move(told)));
    }
}

/// Where a dent lies beside a dent.
void tearing(const Project& scope, const Catalog& catalog, const EvaluatedPart& made, Findings& out) {
    for (const RunSet& run : made.runs) {
        const Lane* lane = find(scope, run.lane);
        const Tool* tool = lane && row(lane->action).keeps_off ? catalog.tool(lane->tool) : nullptr;
        if (!tool) continue;
        // Lines from a third of the tip to almost all of it apart; a fill knows its own spacing.
        const bool filled = run.ink != nullptr;
        if (filled && run.ink->spacing >= tool->tip) continue;
        const std::size_t places = seams(run.lines, filled ? run.ink->spacing : tool->tip * 0.62);
        if (places > 0)
            out.push_back(
                checks::lines_tear(place(made, run), Count{static_cast<int>(places)}, {in_mm(tool->tip)}));
    }
}

} // namespace

Findings check_tips(const Project& scope, const Catalog& catalog, const EvaluatedPart& part) {
    Findings out;
    small_text(scope, catalog, part, out);
    tearing(scope, catalog, part, out);
    return out;
}

} // namespace dotlane
