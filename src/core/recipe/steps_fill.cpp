// The fill: hatching with its figures.
#include "core/recipe/hatch.h"
#include "core/recipe/step.h"

namespace dotlane {

StepOutcome run(const FillStep& step, const StepInput& in, Progress& progress) {
    StepOutcome out;
    FillReport& report = out.report.fill.emplace();
    report.tip = in.tip;
    report.inset = step.inset.value_or(in.tip / 2);
    std::vector<Region> areas;
    bool any = false;
    for (const WorkSet* set : in.of)
        for (const FlatLine& line : set->lines) {
            any = true;
            Region area = area_of(line);
            if (area.empty())
                ++report.open_lines;
            else
                areas.push_back(std::move(area));
        }
    for (const Region& area : areas) {
        if (progress.cancelled()) return out;
        if (offset(area, -report.inset).empty()) ++report.too_thin;
    }
    const Region whole = areas.size() == 1 ? areas.front() : united(areas);
    const Region inner = offset(whole, -report.inset);
    auto hatched = hatch(inner, {step.spacing, step.angle, step.joined, step.alternate}, progress);
    report.rows = hatched.rows;
    report.pieces = hatched.pieces;
    report.runs = hatched.lines.size();
    report.lifts = hatched.lines.empty() ? 0 : hatched.lines.size() - 1;
    report.length = length(hatched.lines);
    report.coverage = coverage(whole, hatched.lines, in.tip, step.angle, progress);
    if (hatched.lines.empty())
        report.refused = any ? "Nothing is wide enough for this tip and inset." : "Its lines are gone.";
    out.made.emplace();
    out.made->strokes = std::move(hatched.lines);
    return out;
}

} // namespace dotlane
