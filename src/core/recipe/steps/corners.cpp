#include "core/project/steps/corners.h"

#include "core/base/finding_kind.h"
#include "core/geometry/reshape.h"
#include "core/recipe/step.h"

namespace dotlane {
namespace {

constexpr FindingKind<Count> short_of_room{
    "corners.short",
    Grade::hint,
    to_say("%n [corner has|corners have] no room for the whole radius and got a smaller one."),
    {"count"}};

} // namespace

StepOutcome run(const CornersStep& step, const StepInput& in, Progress&) {
    StepOutcome out;
    int changed = 0, shortened = 0;
    for (const WorkSet* set : in.of) {
        auto next = copy_of(*set);
        for (FlatLine& line : next->lines) {
            for (Polyline& c : line.contours) {
                CornerChange done =
                    softened(c, step.radius, step.kind == CornersStep::Kind::chamfer, step.sharper_than);
                changed += done.changed, shortened += done.shortened;
                c = std::move(done.line);
            }
            line.box = bounds(line.contours);
            line.area = nullptr;
        }
        next->worked = set->worked;
        out.changed.push_back(std::move(next));
    }
    out.report.figures = {{"corners", "", static_cast<double>(changed)}};
    if (shortened > 0) out.report.findings.push_back(short_of_room({}, Count{shortened}));
    return out;
}

} // namespace dotlane
