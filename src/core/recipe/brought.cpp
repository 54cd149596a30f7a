#include "core/recipe/brought.h"

namespace dotlane {

StepOutcome put(const StepInput& in, Angle turned, AlignStep place, bool as_they_lie) {
    WorkSet lines;
    const Affine turn = Affine::rotation(in_radians(turned));
    for (const DrawnLine& drawn : (*in.inserted)->drawing->lines) {
        FlatLine line;
        line.rule = drawn.shape.rule;
        line.contours = flattened(transformed(drawn.shape, turn));
        line.box = bounds(line.contours);
        lines.lines.push_back(std::move(line));
    }
    StepInput alone{{&lines}, {}, in.part, {}};
    if (in.part.empty() || as_they_lie)
        place.across = AlignStep::Across::leave, place.down = AlignStep::Down::leave;
    StepOutcome out = run(place, alone, no_progress());
    if (!out.report.refused.empty()) return out;
    out.made.emplace(std::move(*out.changed.front()));
    out.changed.clear();
    out.report.figures = (*in.inserted)->figures;
    out.report.findings = (*in.inserted)->findings;
    return out;
}

} // namespace dotlane
