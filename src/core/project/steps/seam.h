// Pieces that are sewn together: their sewing lines, an allowance around each, notches that match between
// neighbours.
#pragma once

#include "core/project/roles.h"
#include "core/project/steps/kind.h"

namespace dotlane {

struct SeamStep {
    Length allowance = mm(6.35);   ///< a quarter of an inch, common practice for quilts, 0.5..100 mm
    double limit = 4;              ///< corners reach at most so many allowances out, 1..20
    bool notches = true;           ///< slits into the allowance, at the same places of both seams
    Length notches_apart = mm(50); ///< about, 5..1000 mm
    Length apart = mm(4);  ///< pieces are moved apart until this is between them, 0: they stay, 0..200 mm
    bool mirrored = false; ///< sewn on paper, which is drawn from behind
    bool numbers = true;   ///< in the order of sewing
    bool operator==(const SeamStep&) const = default;

    const char* role() const { return role::outline; }
    std::vector<const char*> roles() const {
        std::vector<const char*> out{role::sewing};
        if (notches) out.push_back(role::clip);
        if (numbers) out.push_back(role::number);
        return out;
    }

    static constexpr StepRow row{.key = "seam",
                                 .name = "Seam allowance",
                                 .about = "Around pieces that are sewn together, with notches that match.",
                                 .wanted = StepRow::Wanted::fabric,
                                 .makes = true,
                                 .numbers = true,
                                 .by_role = true,
                                 .replaces = true};
    friend void fields(SeamStep& s, Fields& f) {
        f.length({"allowance", "allowance", "From the sewing line to the cut"}, s.allowance, mm(0.5),
                 mm(100));
        f.number({"limit", "corners up to", "Allowances that a pointed corner reaches out"}, s.limit, 1, 20);
        f.flag({"notches", "matching notches", "At the same places of both pieces of a seam"}, s.notches);
        if (f.when(s.notches)) f.length({"notches-apart", "about apart"}, s.notches_apart, mm(5), mm(1000));
        f.length({"apart", "pieces apart", "Between the cut lines; 0: pieces stay where they are"}, s.apart,
                 mm(0), mm(200));
        f.flag({"mirrored", "mirrored", "Sewn on paper, which is drawn from behind"}, s.mirrored);
        f.flag({"numbers", "numbers", "In the order of sewing"}, s.numbers);
    }
    friend Result<SourceLines> make(const SeamStep& step, const MakeInput& in);
    friend StepOutcome run(const SeamStep& step, const StepInput& in, Progress& progress);
};

} // namespace dotlane
