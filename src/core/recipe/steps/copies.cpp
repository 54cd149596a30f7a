#include "core/project/steps/copies.h"

#include <numbers>

#include "core/recipe/moves.h"

namespace dotlane {

StepOutcome run(const CopiesStep& step, const StepInput& in, Progress& progress) {
    const Box box = box_of(in);
    if (box.empty()) return refused(say("There are no lines to copy."));
    std::vector<Affine> places;
    if (step.layout == CopiesStep::Layout::grid) {
        for (int row = 0; row < step.rows; ++row)
            for (int column = 0; column < step.columns; ++column)
                places.push_back(Affine::translation({column * (box.width() + in_mm(step.gap_across)),
                                                      row * (box.height() + in_mm(step.gap_down))}));
    } else {
        for (int i = 0; i < step.count; ++i) {
            const Affine turn = Affine::rotation(2 * std::numbers::pi * i / step.count);
            const Point at = turn({0, -in_mm(step.radius)});
            places.push_back(about(box.centre(), Affine::translation(at) * (step.turned ? turn : Affine{})));
        }
    }
    std::size_t points = 0;
    for (const WorkSet* set : in.of)
        for (const FlatLine& line : set->lines)
            for (const Polyline& c : line.contours)
                points += c.points.size();
    if (points * places.size() > 20'000'000)
        return refused(say("So many copies of so many lines would not fit into memory."));
    StepOutcome out;
    for (const WorkSet* set : in.of) {
        auto copies = std::make_shared<WorkSet>();
        copies->id = set->id, copies->step = set->step, copies->worked = true;
        for (const Affine& place : places) {
            if (progress.cancelled()) return out;
            WorkSet one = *set;
            move(one, place);
            std::move(one.lines.begin(), one.lines.end(), std::back_inserter(copies->lines));
            std::move(one.strokes.begin(), one.strokes.end(), std::back_inserter(copies->strokes));
        }
        out.changed.push_back(std::move(copies));
    }
    out.report.figures = {{"copies", "", static_cast<double>(places.size())}};
    return out;
}

} // namespace dotlane
