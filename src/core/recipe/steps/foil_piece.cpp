#include "core/project/steps/foil_piece.h"

#include <cmath>

#include "core/recipe/areas.h"
#include "core/recipe/step.h"

namespace dotlane {
namespace {

/// Boxes that lie nearer than that are one, until none does.
std::vector<Box> gathered(std::vector<Box> boxes, double near) {
    for (bool again = true; again;) {
        again = false;
        std::vector<Box> out;
        for (const Box& box : boxes) {
            const auto it = std::find_if(out.begin(), out.end(), [&](const Box& o) {
                return o.grown(near / 2).meets(box.grown(near / 2));
            });
            if (it == out.end()) {
                out.push_back(box);
            } else {
                it->add(box);
                again = true;
            }
        }
        boxes = std::move(out);
    }
    return boxes;
}

/// Up to a multiple, the middle where it was.
void round_up(double& from, double& to, double whole) {
    if (whole <= 0) return;
    const double more = std::ceil((to - from) / whole - 1e-9) * whole - (to - from);
    from -= more / 2, to += more / 2;
}

} // namespace

StepOutcome run(const FoilPieceStep& step, const StepInput& in, Progress&) {
    std::vector<Box> boxes;
    for (const WorkSet* set : in.of) {
        for (const FlatLine& line : set->lines)
            boxes.push_back(line.box);
        for (const Polyline& stroke : set->strokes)
            boxes.push_back(bounds(stroke));
    }
    if (boxes.empty()) return refused(say("There are no lines to lay foil over."));
    StepOutcome out;
    out.made.emplace();
    double sum = 0;
    std::vector<Box> pieces = gathered(std::move(boxes), in_mm(step.gather));
    std::sort(pieces.begin(), pieces.end(),
              [](const Box& a, const Box& b) { return a.x0 != b.x0 ? a.x0 < b.x0 : a.y0 < b.y0; });
    for (Box box : pieces) {
        box = box.grown(in_mm(step.margin));
        round_up(box.x0, box.x1, in_mm(step.whole));
        round_up(box.y0, box.y1, in_mm(step.whole));
        sum += box.width() * box.height();
        out.report.needs.push_back({say("foil"), mm(box.width()), mm(box.height())});
        FlatLine line;
        line.contours = {{{{box.x0, box.y0}, {box.x1, box.y0}, {box.x1, box.y1}, {box.x0, box.y1}}, true}};
        line.box = box;
        out.made->lines.push_back(std::move(line));
    }
    out.report.figures = {figure("lines", out.made->lines.size()), {"area", "mm2", sum}};
    return out;
}

} // namespace dotlane
