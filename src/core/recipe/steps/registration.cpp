#include "core/project/steps/registration.h"

#include "core/geometry/polyline.h"
#include "core/recipe/areas.h"

namespace dotlane {
StepOutcome run(const RegistrationStep& step, const StepInput& in, Progress&) {
    Box box;
    for (const WorkSet* set : in.of)
        box.add(set->box());
    if (box.empty()) return refused(say("There are no lines to put marks around."));
    const double away = in_mm(step.away), size = in_mm(step.size);
    const Box marks = box.grown(away);
    // From the left on top to the right below, which stays free when there are three.
    const Point corners[] = {
        {marks.x0, marks.y0}, {marks.x1, marks.y0}, {marks.x0, marks.y1}, {marks.x1, marks.y1}};
    StepOutcome out;
    out.made.emplace();
    for (int i = 0; i < step.count; ++i) {
        const Point p = corners[i];
        const double in_x = i % 2 == 0 ? size : -size, in_y = i < 2 ? size : -size;
        if (step.mark == RegistrationStep::Mark::holes)
            out.made->lines.push_back(line_along({flattened(ellipse(p, size / 2, size / 2), mm(0.005))}));
        else if (step.mark == RegistrationStep::Mark::crosses)
            out.made->lines.push_back(line_along({{{{p.x - size, p.y}, {p.x + size, p.y}}, false},
                                                  {{{p.x, p.y - size}, {p.x, p.y + size}}, false}}));
        else
            out.made->lines.push_back(line_along({{{{p.x + in_x, p.y}, p, {p.x, p.y + in_y}}, false}}));
    }
    out.report.figures = {figure("marks", static_cast<std::size_t>(step.count)),
                          {"apart_across", "mm", marks.width()},
                          {"apart_down", "mm", marks.height()}};
    return out;
}

} // namespace dotlane
