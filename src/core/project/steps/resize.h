// To a width, a height (0.1 mm .. 10 m) or a share, about the middle, every line keeping its place.
#pragma once

#include "core/project/steps/kind.h"

namespace dotlane {

struct ResizeStep {
    enum class By { width, height, percent };
    By by = By::width;
    Length size = mm(100);
    double percent = 100;
    bool operator==(const ResizeStep&) const = default;

    static constexpr StepRow row{.key = "resize",
                                 .name = "Resize",
                                 .about = "To a width, a height or a share.",
                                 .wanted = StepRow::Wanted::place};
    friend void fields(ResizeStep& s, Fields& f) {
        f.one_of({"by", "to a"}, s.by, {"width", "height", "percent"});
        if (f.when(s.by != ResizeStep::By::percent)) f.length({"size", "size"}, s.size, mm(0.1), mm(10000));
        if (f.when(s.by == ResizeStep::By::percent)) f.percent({"percent", "percent"}, s.percent, 0.1, 10000);
    }
    friend StepOutcome run(const ResizeStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
