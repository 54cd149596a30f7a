#include "core/project/steps/dash.h"

#include "core/base/finding_kind.h"
#include "core/geometry/reshape.h"
#include "core/recipe/step.h"

namespace dotlane {
namespace {

constexpr FindingKind<Count> vanished{"dash.gone",
                                      Grade::caution,
                                      to_say("%n [line is|lines are] shorter than the setback and vanished."),
                                      {"count"}};

} // namespace

StepOutcome run(const DashStep& step, const StepInput& in, Progress&) {
    StepOutcome out;
    std::size_t dashes = 0;
    Length least = mm(1e9), most;
    int gone = 0;
    for (const WorkSet* set : in.of) {
        auto next = copy_of(*set);
        for (FlatLine& line : next->lines) {
            Polylines made;
            for (const Polyline& c : line.contours) {
                Length gap;
                const Polylines parts =
                    dashed(c, {step.dash, step.gap, step.setback, step.ends == DashStep::Ends::gap}, &gap);
                gone += parts.empty();
                if (in_mm(gap) > 0) least = std::min(least, gap), most = std::max(most, gap);
                made.insert(made.end(), parts.begin(), parts.end());
            }
            dashes += made.size();
            line.contours = std::move(made);
            line.area = nullptr;
        }
        settle(*next);
        next->worked = set->worked;
        out.changed.push_back(std::move(next));
    }
    if (dashes == 0) return refused(say("The lines are shorter than their setback."));
    out.report.figures = {{"dashes", "", static_cast<double>(dashes)}};
    if (in_mm(most) > 0) {
        out.report.figures.push_back({"gap_least", "mm", in_mm(least)});
        out.report.figures.push_back({"gap_most", "mm", in_mm(most)});
    }
    if (gone > 0) out.report.findings.push_back(vanished({}, Count{gone}));
    return out;
}

} // namespace dotlane
