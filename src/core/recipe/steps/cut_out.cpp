#include "core/project/steps/cut_out.h"

#include <algorithm>

#include "core/base/finding_kind.h"
#include "core/recipe/areas.h"

namespace dotlane {
namespace {

constexpr FindingKind<> misses{
    "cut-out.misses", Grade::caution, to_say("What is to be cut out touches none of the lines."), {}};

} // namespace

StepOutcome run(const CutOutStep& step, const StepInput& in, Progress& progress) {
    const Areas cutters = areas_of(in.by);
    if (cutters.each.empty()) return refused(say("What is to be cut out has no closed lines."));
    const Region cutter = offset(united(cutters.each), step.margin);
    StepOutcome out;
    int gone = 0, touched = 0;
    for (const WorkSet* set : in.of) {
        if (progress.cancelled()) return out;
        if (std::find(in.by.begin(), in.by.end(), set) != in.by.end()) continue;
        out.changed.push_back(each_area(*set, [&](const Region& area, const FlatLine& line) {
            const bool meets = bounds(cutter).meets(line.box);
            if (!meets && step.keep == CutOutStep::Keep::rest) return area;
            const Region left =
                step.keep == CutOutStep::Keep::rest ? subtracted(area, cutter) : intersected(area, cutter);
            gone += left.empty();
            ++touched;
            return left;
        }));
        // Open lines end where the other area begins.
        auto& lines = out.changed.back()->lines;
        for (FlatLine& line : lines) {
            if (!area_of(line).empty()) continue;
            const Region keep = step.keep == CutOutStep::Keep::overlap
                                    ? cutter
                                    : subtracted(region_of(Shape{{rectangle(line.box.grown(1))}}), cutter);
            line.contours = clipped(line.contours, keep);
            line.box = bounds(line.contours);
        }
        std::erase_if(lines, [](const FlatLine& line) { return line.contours.empty(); });
    }
    if (touched == 0) out.report.findings.push_back(misses({}));
    out.report.figures = {figure("lines_gone", static_cast<std::size_t>(gone))};
    return out;
}

} // namespace dotlane
