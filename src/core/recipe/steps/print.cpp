#include "core/project/steps/print.h"

#include "core/recipe/areas.h"
#include "core/recipe/plies.h"

namespace dotlane {

StepOutcome run(const PrintStep& step, const StepInput& in, Progress& progress) {
    const Plies plies = plies_of(in.of, {}, progress);
    if (progress.cancelled()) return {};
    if (plies.by_rank.empty()) return refused(say("There are no closed lines to print."));
    const bool pictured = step.art == PrintStep::Art::picture;
    if (pictured && !in.traced)
        return refused(
            say("There is no picture to be printed: these lines were not traced from one, or a step "
                "before this one has changed them. Drag this step above that one."));
    std::vector<Region> all;
    for (const Ply& ply : plies.layers)
        all.push_back(ply.seen);
    const Region art = united(all);
    StepOutcome out;
    out.made.emplace();
    double bled = 0;
    const bool bleeds = in_mm(step.border) <= 0 && in_mm(step.bleed) > 0;
    // A hair of white between two colours is none of the cut's: what runs on begins at the edge that is cut.
    const Region body = step.holes ? art : without_holes(art);
    for (const Ply& ply : plies.layers) {
        if (pictured || !bleeds || ply.seen.empty()) continue;
        if (progress.cancelled()) return {};
        const Region beyond = subtracted(offset(ply.seen, step.bleed), body);
        if (beyond.empty()) continue;
        bled += in_square_mm(area(beyond));
        auto next = copy_of(*ply.set);
        std::erase_if(next->lines, [](const FlatLine& line) { return !area_of(line).empty(); });
        for (const Region& piece : pieces(united(ply.whole, beyond)))
            next->lines.push_back(line_of(piece, *ply.foremost));
        out.changed.push_back(std::move(next));
    }
    if (pictured) {
        const Region whole = bleeds ? united(art, subtracted(offset(art, step.bleed), body)) : art;
        bled = in_square_mm(area(whole)) - in_square_mm(area(art));
        out.report.printed = StepReport::Printed{art, whole};
    }
    const Region cut = in_mm(step.border) > 0 ? offset(body, step.border) : body;
    const std::vector<Region> made = pieces(cut);
    for (const Region& piece : made) {
        FlatLine line = line_of(piece, *plies.layers[plies.by_rank.front()].foremost);
        line.filled = false;
        out.made->lines.push_back(std::move(line));
    }
    out.report.figures = {figure("colours", plies.by_rank.size()),
                          figure("pieces", made.size()),
                          {"bleed", "mm2", bled},
                          {"cut", "mm", in_mm(perimeter(cut))}};
    tell_open(out.report, plies.open, say("given a bleed"));
    return out;
}

} // namespace dotlane
