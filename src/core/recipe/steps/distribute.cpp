#include "core/project/steps/distribute.h"

#include <algorithm>

#include "core/base/finding_kind.h"
#include "core/recipe/moves.h"

namespace dotlane {
namespace {

constexpr FindingKind<> overlap{
    "distribute.overlap", Grade::caution, to_say("There is not room for all of them: they overlap."), {}};

} // namespace

StepOutcome run(const DistributeStep& step, const StepInput& in, Progress&) {
    struct Thing {
        std::size_t set, line; ///< line: none when the whole set is one thing
        double lo, hi;
    };
    const bool across = step.way == DistributeStep::Way::across, whole = in.of.size() > 1;
    constexpr std::size_t all = ~std::size_t{0};
    std::vector<Thing> things;
    const auto add = [&](std::size_t set, std::size_t line, const Box& box) {
        if (!box.empty()) things.push_back({set, line, across ? box.x0 : box.y0, across ? box.x1 : box.y1});
    };
    for (std::size_t s = 0; s < in.of.size(); ++s)
        if (whole)
            add(s, all, in.of[s]->box());
        else
            for (std::size_t l = 0; l < in.of[s]->lines.size(); ++l)
                add(s, l, in.of[s]->lines[l].box);
    if (things.size() < 2) return refused(say("There is only one thing: nothing can be spread."));
    if (!whole && !in.of.front()->strokes.empty())
        return refused(say("The strokes of a fill cannot be spread."));
    const bool gaps = step.even == DistributeStep::Even::gaps;
    std::stable_sort(things.begin(), things.end(),
                     [](const Thing& a, const Thing& b) { return a.lo + a.hi < b.lo + b.hi; });
    double lo = things.front().lo, hi = things.back().hi;
    if (step.within == DistributeStep::Within::rest) {
        if (in.part.empty()) return refused(say("There is nothing else in the part to spread within."));
        lo = (across ? in.part.x0 : in.part.y0) + in_mm(step.inset);
        hi = (across ? in.part.x1 : in.part.y1) - in_mm(step.inset);
    }
    double sum = 0;
    for (const Thing& t : things)
        sum += t.hi - t.lo;
    const double n = static_cast<double>(things.size() - 1), gap = (hi - lo - sum) / n;
    const double first = lo + (things.front().hi - things.front().lo) / 2,
                 last = hi - (things.back().hi - things.back().lo) / 2;
    StepOutcome out;
    for (const WorkSet* set : in.of) {
        out.changed.push_back(copy_of(*set));
        out.changed.back()->worked = set->worked;
    }
    double at = lo;
    for (std::size_t i = 0; i < things.size(); ++i) {
        const Thing& t = things[i];
        const double by =
            gaps ? at - t.lo : first + (last - first) * static_cast<double>(i) / n - (t.lo + t.hi) / 2;
        at += t.hi - t.lo + gap;
        const Affine shift = Affine::translation(across ? Point{by, 0} : Point{0, by});
        WorkSet& set = *out.changed[t.set];
        if (t.line == all)
            move(set, shift);
        else
            move(set.lines[t.line], shift);
    }
    out.report.figures = {{"things", "", static_cast<double>(things.size())}};
    if (gaps) out.report.figures.push_back({"gap", "mm", gap});
    if (gaps && gap < 0) out.report.findings.push_back(overlap({}));
    return out;
}

} // namespace dotlane
