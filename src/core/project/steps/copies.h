// Copies in rows and columns, or around a ring.
#pragma once

#include "core/project/steps/kind.h"

namespace dotlane {

struct CopiesStep {
    enum class Layout { grid, ring };
    Layout layout = Layout::grid;
    int columns = 2, rows = 1; ///< 1..200
    Length gap_across = mm(2), gap_down = mm(2);
    int count = 6;          ///< around the ring, 1..500
    Length radius = mm(30); ///< of the ring, through the middles
    bool turned = true;     ///< copies look outwards, otherwise all stay upright
    bool operator==(const CopiesStep&) const = default;

    static constexpr StepRow row{.key = "copies",
                                 .name = "Copies",
                                 .about = "In rows and columns or around a ring.",
                                 .wanted = StepRow::Wanted::place};
    friend void fields(CopiesStep& s, Fields& f) {
        const bool ring = s.layout == CopiesStep::Layout::ring;
        f.one_of({"layout", "in a"}, s.layout, {"grid", "ring"});
        if (f.when(!ring)) {
            f.whole({"columns", "columns"}, s.columns, 1, 200);
            f.whole({"rows", "rows"}, s.rows, 1, 200);
            f.length({"gap-across", "gap across"}, s.gap_across, mm(-500), mm(500));
            f.length({"gap-down", "gap down"}, s.gap_down, mm(-500), mm(500));
        }
        if (f.when(ring)) {
            f.whole({"count", "copies"}, s.count, 1, 500);
            f.length({"radius", "radius", "Of the ring, through the middles of the copies"}, s.radius, mm(0),
                     mm(5000));
            f.flag({"turned", "look outwards"}, s.turned);
        }
    }
    friend StepOutcome run(const CopiesStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
