// Marks or holes around the lines, alike in all layers, so that these can be laid on one another.
#pragma once

#include "core/project/roles.h"
#include "core/project/steps/kind.h"

namespace dotlane {

struct RegistrationStep {
    enum class Mark { holes, crosses, corners };
    Mark mark = Mark::holes;
    Length size = mm(5); ///< across a hole; of a cross or a corner, its arms, 0.5..100 mm
    Length away = mm(6); ///< from the box of the lines to the middle of a mark, 0..200 mm
    int count = 3;       ///< 2: on top; 3: a layer that is laid turned shows it; 4: all corners
    bool operator==(const RegistrationStep&) const = default;

    const char* role() const { return mark == Mark::holes ? role::hole : role::border; }

    static constexpr StepRow row{.key = "registration",
                                 .name = "Registration",
                                 .about = "Marks or holes that all layers share.",
                                 .wanted = StepRow::Wanted::place,
                                 .makes = true,
                                 .by_role = true};
    friend void fields(RegistrationStep& s, Fields& f) {
        f.one_of({"mark", "marks"}, s.mark, {"holes", "crosses", "corners"});
        f.length({"size", "size", "Across a hole; of a cross or a corner, its arms"}, s.size, mm(0.5),
                 mm(100));
        f.length({"away", "away", "From the box of the lines"}, s.away, mm(0), mm(200));
        f.whole({"count", "how many", "Of three, a layer that is laid turned shows it"}, s.count, 2, 4);
    }
    friend StepOutcome run(const RegistrationStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
