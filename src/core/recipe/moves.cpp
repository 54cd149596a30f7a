#include "core/recipe/moves.h"

namespace dotlane {

Box box_of(const StepInput& in) {
    Box box;
    for (const WorkSet* set : in.of)
        box.add(set->box());
    return box;
}

void move(FlatLine& line, const Affine& by) {
    line.contours = transformed(line.contours, by);
    if (line.area) line.area = std::make_shared<const Region>(transformed(*line.area, by));
    line.whole = nullptr;
    line.box = bounds(line.contours);
}

void move(WorkSet& set, const Affine& by) {
    for (FlatLine& line : set.lines)
        move(line, by);
    set.strokes = transformed(set.strokes, by);
}

StepOutcome moved(const StepInput& in, const Affine& by) {
    StepOutcome out;
    for (const WorkSet* set : in.of) {
        out.changed.push_back(copy_of(*set));
        move(*out.changed.back(), by);
        out.changed.back()->worked = set->worked; // its lines still stand for single source lines
    }
    return out;
}

Affine about(Point middle, const Affine& by) {
    return Affine::translation(middle) * by * Affine::translation({-middle.x, -middle.y});
}

} // namespace dotlane
