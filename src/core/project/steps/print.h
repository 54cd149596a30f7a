// Art that is printed and then cut: it runs on beyond the cut, so that no white edge shows.
#pragma once

#include "core/project/roles.h"
#include "core/project/steps/kind.h"

namespace dotlane {

struct PrintStep {
    enum class Art { lines, picture };
    Art art = Art::lines; ///< what is printed: the lines in their colours, or the picture that they were
                          ///< traced from
    Length bleed = mm(2); ///< beyond the cut, 0..50 mm
    Length border;        ///< of bare material around the art, inside the cut, 0: none, 0..100 mm
    bool holes = false;   ///< of the art are cut out
    bool operator==(const PrintStep&) const = default;

    const char* role() const { return role::outline; }

    static constexpr StepRow row{.key = "print",
                                 .name = "Print and cut",
                                 .about = "Art is printed with a bleed, and cut along its outline.",
                                 .wanted = StepRow::Wanted::edge,
                                 .makes = true,
                                 .by_role = true,
                                 .layers = true,
                                 .prints = true};
    friend void fields(PrintStep& s, Fields& f) {
        f.one_of({"art",
                  "printed is",
                  "What is drawn, in its colours, or the picture that it was traced from",
                  {11, R"("lines")"}},
                 s.art, {"lines", "picture"});
        f.length({"border", "bare border", "Around the art, inside the cut; 0: it is cut to the art"},
                 s.border, mm(0), mm(100));
        if (f.when(in_mm(s.border) <= 0))
            f.length({"bleed", "bleed", "The art runs on beyond the cut"}, s.bleed, mm(0), mm(50));
        f.flag({"holes", "holes cut out"}, s.holes);
    }
    friend StepOutcome run(const PrintStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
