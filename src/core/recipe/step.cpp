#include "core/recipe/step.h"
#include "core/recipe/findings.h"

namespace dotlane {

StepOutcome run_step(const StepWhat& what, const StepInput& input, Progress& progress) {
    return std::visit([&](const auto& step) { return run(step, input, progress); }, what);
}

Region area_of(const FlatLine& line) {
    return line.area ? *line.area : region_of(line.contours, line.rule, line.filled);
}

FlatLine line_of(const Region& area, const FlatLine& like) {
    FlatLine out{like.id, like.set,     FillRule::nonzero, like.filled,
                 {},      bounds(area), like.order,        std::make_shared<const Region>(area)};
    for (const Ring& ring : area.rings)
        out.contours.push_back({ring, true});
    return out;
}

std::shared_ptr<WorkSet> copy_of(const WorkSet& set) {
    auto out = std::make_shared<WorkSet>(set);
    out->worked = true;
    return out;
}

void settle(WorkSet& set) {
    std::erase_if(set.lines, [](const FlatLine& line) { return line.contours.empty(); });
    for (FlatLine& line : set.lines)
        line.box = bounds(line.contours);
}

StepOutcome refused(Phrase why) {
    StepOutcome out;
    out.report.refused = std::move(why);
    return out;
}

Finding no_piece(std::size_t number, std::size_t count) {
    return recipes::pieces_none({}, std::to_string(number), std::to_string(count));
}

} // namespace dotlane
