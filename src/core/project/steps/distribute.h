// Spreads the chosen line sets evenly; a single set's lines one by one.
#pragma once

#include "core/project/steps/kind.h"

namespace dotlane {

struct DistributeStep {
    enum class Way { across, down };
    enum class Even { gaps, middles };
    enum class Within { own, rest };
    Way way = Way::across;
    Even even = Even::gaps;
    Within within = Within::own; ///< the outermost stay where they are, or go to the edges of the other lines
    Length inset;                ///< from those edges, -500..500 mm
    bool operator==(const DistributeStep&) const = default;

    static constexpr StepRow row{.key = "distribute",
                                 .name = "Distribute",
                                 .about = "Evenly, by gaps or by middles.",
                                 .wanted = StepRow::Wanted::place,
                                 .places = true};
    friend void fields(DistributeStep& s, Fields& f) {
        f.one_of({"way", "spread"}, s.way, {"across", "down"});
        f.one_of({"even", "even"}, s.even, {"gaps", "middles"});
        f.one_of({"within", "within"}, s.within, {"own-width", "the-rest"});
        if (f.when(s.within == DistributeStep::Within::rest))
            f.length({"inset", "from the edges"}, s.inset, mm(-500), mm(500));
    }
    friend StepOutcome run(const DistributeStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
