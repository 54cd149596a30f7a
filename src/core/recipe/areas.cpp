#include "core/recipe/areas.h"

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

Figure figure(const char* key, std::size_t n) {
    return {key, "", static_cast<double>(n)};
}

void tell_open(StepReport& report, int open, const Phrase& did) {
    if (open == 0) return;
    const std::string n = std::to_string(open);
    report.findings.push_back(
        {"step.open-lines",
         Grade::caution,
         say_n(open, "%n [open line bounds|open lines bound] no area and [was|were] not %1.", did),
         {{"count", n}, {"did", did.english()}}});
}

} // namespace dotlane
