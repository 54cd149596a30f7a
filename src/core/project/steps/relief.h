// Holes where folds meet, so that what is folded there does not tear or crumple.
#pragma once

#include "core/project/roles.h"
#include "core/project/steps/kind.h"

namespace dotlane {

struct ReliefStep {
    enum class Form { round, slot };
    Form form = Form::round;
    Length size = mm(2);    ///< across a hole; of a slot, its length, 0.2..50 mm
    Length reach = mm(1.5); ///< folds that end nearer than this meet there, 0..20 mm
    bool edges = false;     ///< also where a fold ends in a hollow corner of an outline
    bool operator==(const ReliefStep&) const = default;

    const char* role() const { return role::hole; }

    static constexpr StepRow row{.key = "relief",
                                 .name = "Relief cuts",
                                 .about = "Where folds cross or meet in corners, so that nothing tears.",
                                 .wanted = StepRow::Wanted::fold,
                                 .makes = true,
                                 .by_role = true};
    friend void fields(ReliefStep& s, Fields& f) {
        f.one_of({"form", "form"}, s.form, {"round", "slot"});
        f.length({"size", "size", "Across a hole, or along a slot"}, s.size, mm(0.2), mm(50));
        f.length({"reach", "meet within", "Folds that end nearer than this meet there"}, s.reach, mm(0),
                 mm(20));
        f.flag({"edges", "in hollow corners", "Where a fold ends in a hollow corner of an outline"}, s.edges);
    }
    friend StepOutcome run(const ReliefStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
