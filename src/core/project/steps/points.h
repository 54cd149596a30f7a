// Places for stones, eyelets or stitches: along lines or over areas, evenly, none on another.
#pragma once

#include "core/project/roles.h"
#include "core/project/steps/kind.h"

namespace dotlane {

struct PointsStep {
    enum class Over { lines, areas };
    enum class Mark { holes, marks };
    Over over = Over::lines;
    Mark mark = Mark::holes;
    Length size = mm(3);    ///< across, 0.2..100 mm
    Length spacing = mm(4); ///< from middle to middle, about, 0.3..500 mm
    Length inset = mm(0);   ///< of a row inside the line; over areas: kept free along the edge, 0..200 mm
    bool operator==(const PointsStep&) const = default;

    const char* role() const { return mark == Mark::holes ? role::hole : role::border; }

    static constexpr StepRow row{.key = "points",
                                 .name = "Point work",
                                 .about = "Places for stones or holes, evenly, along lines or over areas.",
                                 .wanted = StepRow::Wanted::place,
                                 .makes = true,
                                 .by_role = true};
    friend void fields(PointsStep& s, Fields& f) {
        f.one_of({"over", "over"}, s.over, {"lines", "areas"});
        f.one_of({"mark", "made as"}, s.mark, {"holes", "marks"});
        f.length({"size", "size", "Across"}, s.size, mm(0.2), mm(100));
        f.length({"spacing", "spacing", "From middle to middle, about"}, s.spacing, mm(0.3), mm(500));
        f.length({"inset", "inset", "Of the row inside the line, or free along the edge"}, s.inset, mm(0),
                 mm(200));
    }
    friend StepOutcome run(const PointsStep& step, const StepInput& in, Progress& progress);
    friend bool mend(PointsStep& step, const Finding& finding, const InkReport* ink);
};

} // namespace dotlane
