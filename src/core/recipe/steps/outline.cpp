#include "core/project/steps/outline.h"

#include "core/base/finding_kind.h"
#include "core/recipe/areas.h"

namespace dotlane {
namespace {

constexpr FindingKind<Count, Name> nothing_left{
    "outline.empty", Grade::caution, to_say("Nothing is left for %1 of %2 rings."), {"count", nullptr}};

} // namespace

StepOutcome run(const OutlineStep& step, const StepInput& in, Progress& progress) {
    const Areas areas = areas_of(in.of);
    if (areas.each.empty()) return refused(say("There are no closed lines to outline."));
    Region base = covered(areas);
    const int holes = hole_count(base);
    if (step.outer_only)
        base = without_holes(base);
    else if (in_mm(step.fill_holes_under) > 0)
        base = without_holes(base, square_mm(in_mm(step.fill_holes_under) * in_mm(step.fill_holes_under)));
    OffsetOptions options;
    options.corner = step.corners == OutlineStep::Corners::round    ? Corner::round
                     : step.corners == OutlineStep::Corners::mitred ? Corner::mitre
                                                                    : Corner::bevel;
    options.mitre_limit = step.mitre_limit;
    StepOutcome out;
    out.made.emplace();
    const double sign = in_mm(step.distance) < 0 ? -1 : 1;
    int empty = 0;
    Area first_ring;
    for (int ring = 0; ring < step.rings; ++ring) {
        if (progress.cancelled()) return out;
        Region grown = offset(base, step.distance + step.gap * (sign * ring), options);
        if (step.outer_only) grown = without_holes(grown); // growing closes bays into new holes
        if (grown.empty()) {
            ++empty;
            continue;
        }
        if (ring == 0) first_ring = area(grown);
        for (FlatLine& line :
             lines_of(grown, [&](const Region&) -> const FlatLine& { return *areas.lines.front(); })) {
            line.filled = false;
            out.made->lines.push_back(std::move(line));
        }
    }
    if (out.made->lines.empty())
        return refused(say("Nothing is left at this distance: the lines are too thin."));
    out.report.figures = {figure("lines", out.made->lines.size()),
                          {"area", "mm2", in_square_mm(first_ring)},
                          {"holes_before", "", static_cast<double>(holes)},
                          {"holes_after", "", static_cast<double>(hole_count(base))}};
    tell_open(out.report, areas.open, say("outlined"));
    if (empty > 0) out.report.findings.push_back(nothing_left({}, Count{empty}, std::to_string(step.rings)));
    return out;
}

} // namespace dotlane
