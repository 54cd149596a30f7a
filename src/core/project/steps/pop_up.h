// What stands up when a card is opened: slits and folds across its fold line, which closes flat.
#pragma once

#include "core/project/roles.h"
#include "core/project/steps/kind.h"

namespace dotlane {

struct PopUpStep {
    enum class Form { box, v };
    Form form = Form::box;
    Length width =
        mm(30); ///< along the fold line; of a V: how far its slit reaches from the fold to each side
    Length height = mm(25); ///< of a box, above the lower panel; of a V: from its point to its slit
    Length depth = mm(20);  ///< of a box, off the back panel, 1..1000 mm
    double at = 50;         ///< of its middle, % of the fold line, 0..100
    bool operator==(const PopUpStep&) const = default;

    const char* role() const { return role::window; }
    std::vector<const char*> roles() const { return {role::fold, role::mountain}; }

    static constexpr StepRow row{.key = "pop-up",
                                 .name = "Pop-up",
                                 .about = "Slits and folds that stand up when the card is opened.",
                                 .wanted = StepRow::Wanted::fold,
                                 .makes = true,
                                 .by_role = true};
    friend void fields(PopUpStep& s, Fields& f) {
        const bool box = s.form == PopUpStep::Form::box;
        f.one_of({"form", "form"}, s.form, {"box", "v"});
        f.length({"width", "width", "Of a box along the fold; of a V, its slit to each side"}, s.width, mm(1),
                 mm(1000));
        f.length({"height", "height", "Of a box above the lower panel; of a V, from its point to its slit"},
                 s.height, mm(1), mm(1000));
        if (f.when(box)) f.length({"depth", "depth", "Off the back panel"}, s.depth, mm(1), mm(1000));
        f.percent({"at", "at %", "Along the fold line"}, s.at, 0, 100);
    }
    friend StepOutcome run(const PopUpStep& step, const StepInput& in, Progress& progress);
    friend bool mend(PopUpStep& step, const Finding& finding, const InkReport* ink);
};

} // namespace dotlane
