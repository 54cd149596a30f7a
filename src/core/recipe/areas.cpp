#include "core/recipe/areas.h"
#include "core/recipe/findings.h"

namespace dotlane {

Areas areas_of(const std::vector<const WorkSet*>& sets) {
    Areas out;
    for (const WorkSet* set : sets)
        for (const FlatLine& line : set->lines) {
            Region area = area_of(line);
            if (area.empty()) {
                ++out.open;
                continue;
            }
            out.each.push_back(std::move(area));
            out.lines.push_back(&line);
        }
    return out;
}

FlatLine line_along(Polylines contours) {
    FlatLine out;
    out.box = bounds(contours);
    out.contours = std::move(contours);
    return out;
}

Polylines edge_of(const Region& region) {
    Polylines out;
    for (const Ring& ring : region.rings)
        out.push_back({ring, true});
    return out;
}

Figure figure(const char* key, std::size_t n) {
    return {key, "", static_cast<double>(n)};
}

void tell_open(StepReport& report, int open, const Phrase& did) {
    if (open == 0) return;
    report.findings.push_back(recipes::step_open_lines({}, Count{open}, did));
}

} // namespace dotlane
